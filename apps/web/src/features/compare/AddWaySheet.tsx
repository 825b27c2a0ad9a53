import { useState } from 'react';
import useSWR from 'swr';
import {
  Candidate,
  Comparison,
  Job,
  candidateFor,
  Tool,
  comparedIn,
  formatTime,
  kindOf,
  waysFor,
} from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { engine } from '../../compute/engine';
import { Actions } from '../../ui/Actions';
import { Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { SizeFinder } from '../../ui/cutting/SizeFinder';
import { NumberField } from '../../ui/NumberField';
import { LengthField } from '../../ui/LengthField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

/** What of a way may be otherwise than it comes. */
const OWN = [
  { key: 'stepover', label: 'Bite' },
  { key: 'layer', label: 'Layer' },
] as const;

/** How boldly its speeds are suggested. */
const BOLDNESS = { 'the job': undefined, 'a first cut': 0, 'settled work': 0.5, 'pushing it': 1 } as const;
type Bold = keyof typeof BOLDNESS;

interface Props {
  job: Job;
  comparison: Comparison;
  onAdd: (candidate: Candidate) => void;
  onClose: () => void;
}

/** Tools that clear what is compared, the quickest first, worked out beside the page. */
function useRoughers(job: Job, comparison: Comparison, all: Tool[]) {
  const feature = comparedIn(job, comparison)[0]?.targets[0];
  return useSWR(feature ? ['roughers', job.name, feature, all.length] : null, async () => {
    const { ranked } = await engine.advise(job, feature, all);
    return ranked.filter((a) => a.minutes !== undefined).sort((a, b) => a.minutes! - b.minutes!);
  });
}

/** One more way to do the same: the kind of passes, the tool, its bite and its layer. */
export function AddWaySheet({ job, comparison, onAdd, onClose }: Props) {
  const { items: rack } = useShelf('tools');
  const tools = [...job.tools, ...rack.filter((t) => !job.tools.some((own) => own.id === t.id))];
  const { data: roughers, isLoading } = useRoughers(job, comparison, tools);
  const ways = waysFor(job, comparison);
  const [way, setWay] = useState(ways[0].name);
  const [chosen, setChosen] = useState<string>();
  const [own, setOwn] = useState<{ stepover?: number; layer?: number }>({});
  /** One of a typed size. */
  const [sized, setSized] = useState<Tool>();
  const toolId = chosen ?? roughers?.[0]?.tool.id;
  const tool = sized?.id === toolId ? sized : roughers?.find((a) => a.tool.id === toolId)?.tool;
  const [boldness, setBoldness] = useState<Bold>('the job');
  const [spend, setSpend] = useState(0);
  const asked = ways.find((w) => w.name === way)!;
  const offer = tool && candidateFor(job, comparison, asked, tool, { own, boldness: BOLDNESS[boldness], rack });
  const made = offer?.ok ? offer.candidate : undefined;
  const params = made?.operations?.find((o) => o.kind === asked.kind)?.params;
  const choose =
    <T,>(set: (v: T) => void) =>
    (v: T) => {
      setOwn({});
      set(v);
    };
  return (
    <Sheet
      title="Another way"
      open
      onClose={onClose}
      actions={
        <Actions
          leave="Leave it"
          onLeave={onClose}
          take="Add it"
          disabled={!made}
          onTake={() => made && onAdd(spend > 0 ? { ...made, spend } : made)}
          testID="add-way"
        />
      }
    >
      <Choices
        label="Passes"
        value={way}
        options={ways.map(({ name }) => ({ value: name, label: name }))}
        onChange={choose(setWay)}
      />
      {roughers && roughers.length > 0 ? (
        <Choices
          label="Tool"
          value={toolId}
          options={[
            ...(sized && !roughers.some((r) => r.tool.id === sized.id) ? [{ value: sized.id, label: sized.name }] : []),
            ...roughers.map(({ tool: t, minutes }) => ({
              value: t.id,
              label: `${t.name}, about ${formatTime(minutes!)}`,
            })),
          ]}
          onChange={choose(setChosen)}
        />
      ) : (
        <Txt tone="quiet">{isLoading ? 'The tools are looked through …' : 'No tool of the rack clears it.'}</Txt>
      )}
      <SizeFinder
        kind={kindOf(asked.kind)!}
        tools={tools}
        unit={job.unit}
        onTake={(t) => {
          setSized(t);
          choose(setChosen)(t.id);
        }}
      />
      {params && tool && (
        <Fields>
          {OWN.map(({ key, label }) => (
            <LengthField
              key={`${key}-${way}-${toolId}`}
              label={label}
              value={Number(params[key])}
              unit={job.unit}
              min={0.01}
              max={key === 'layer' ? tool.fluteLength : tool.diameter}
              onChange={(mm) => setOwn({ ...own, [key]: mm })}
            />
          ))}
        </Fields>
      )}
      <Choices
        label="Speeds as boldly as"
        value={boldness}
        options={plainOptions(Object.keys(BOLDNESS) as Bold[])}
        onChange={setBoldness}
      />
      <NumberField
        label="Spent on it once"
        value={spend}
        min={0}
        max={1e6}
        help="a tool to buy, a fixture to make: shared by all parts of the batch"
        onChange={setSpend}
      />
      {offer && !offer.ok && <Txt tone="care">◆ {offer.why}</Txt>}
    </Sheet>
  );
}
