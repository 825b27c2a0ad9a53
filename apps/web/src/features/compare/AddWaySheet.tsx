import { useState } from 'react';
import useSWR from 'swr';
import { Candidate, Comparison, Job, WAYS, candidateFor, comparedIn, formatTime } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { engine } from '../../compute/engine';
import { Actions } from '../../ui/Actions';
import { Choices } from '../../ui/Choices';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

interface Props {
  job: Job;
  comparison: Comparison;
  onAdd: (candidate: Candidate) => void;
  onClose: () => void;
}

/** Tools that clear what is compared, the quickest first, worked out beside the page. */
function useRoughers(job: Job, comparison: Comparison) {
  const { items: rack } = useShelf('tools');
  const feature = comparedIn(job, comparison)[0]?.targets[0];
  return useSWR(feature ? ['roughers', job.name, feature, rack.length] : null, async () => {
    const all = [...job.tools, ...rack.filter((t) => !job.tools.some((own) => own.id === t.id))];
    const { ranked } = await engine.advise(job, feature, all);
    return ranked.filter((a) => a.minutes !== undefined).sort((a, b) => a.minutes! - b.minutes!);
  });
}

/** One more way to do the same: the kind of passes, and the tool. */
export function AddWaySheet({ job, comparison, onAdd, onClose }: Props) {
  const { data: roughers, isLoading } = useRoughers(job, comparison);
  const [way, setWay] = useState(WAYS[0].name);
  const [chosen, setChosen] = useState<string>();
  const toolId = chosen ?? roughers?.[0]?.tool.id;
  const tool = roughers?.find((a) => a.tool.id === toolId)?.tool;
  const made =
    tool &&
    candidateFor(
      job,
      comparison,
      WAYS.find((w) => w.name === way)!,
      tool,
    );
  return (
    <Sheet
      title="Another way"
      open
      onClose={onClose}
      actions={
        <Actions leave="Leave it" onLeave={onClose} take="Add it" onTake={() => made && onAdd(made)} testID="add-way" />
      }
    >
      <Choices
        label="Passes"
        value={way}
        options={WAYS.map(({ name }) => ({ value: name, label: name }))}
        onChange={setWay}
      />
      {roughers && roughers.length > 0 ? (
        <Choices
          label="Tool"
          value={toolId}
          options={roughers.map(({ tool: t, minutes }) => ({
            value: t.id,
            label: `${t.name}, about ${formatTime(minutes!)}`,
          }))}
          onChange={setChosen}
        />
      ) : (
        <Txt tone="quiet">{isLoading ? 'The tools are looked through …' : 'No tool of the rack clears it.'}</Txt>
      )}
      {tool && !made && <Txt tone="care">◆ {tool.name} cannot make such passes.</Txt>}
    </Sheet>
  );
}
