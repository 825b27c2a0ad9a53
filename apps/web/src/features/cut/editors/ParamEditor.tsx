import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  ParameterInfo,
  Working,
  biteWorking,
  changeParam,
  formatNumber,
  kindOf,
  parameterText,
  proposedParams,
  withEntryHole,
  partModel,
} from '@tidypath/core';
import { SPACE } from '../../../theme/theme';
import { NumberField } from '../../../ui/NumberField';
import { ParameterField } from '../../../ui/ParameterField';
import { Txt } from '../../../ui/Txt';
import { Fold } from '../../../ui/Fold';
import { BoldnessSlide } from '../../../ui/cutting/BoldnessSlide';
import { Steps } from '../../../ui/cutting/Why';
import { useShop } from '../../../ui/cutting/useShop';
import { ContourPreview } from './ContourPreview';
import { useGoTo } from './useGoTo';
import type { EditorProps } from './types';

/** Adds a drilled hole to go down through, with its operation; says why where that cannot be. */
function EntryHoleButton({ operation, edit }: Pick<EditorProps, 'operation' | 'edit'>) {
  const { tools } = useShop();
  const [why, setWhy] = useState('');
  const drill = () =>
    edit((j) => {
      const made = withEntryHole(j, operation.id, tools);
      setWhy(made.ok ? '' : made.why);
      return made.ok ? made.job : j;
    });
  return (
    <>
      <Button compact mode="outlined" onPress={drill} testID="entry-hole" style={{ alignSelf: 'flex-start' }}>
        Drill an entry hole instead
      </Button>
      {why !== '' && <Txt kind="small">◆ {why}</Txt>}
    </>
  );
}

/** The number of a working that a value of an operation is. */
const LEADS_TO: Record<string, Working['of']> = { stepover: 'bite', layer: 'layer' };

/** How boldly bite and layer are suggested, and what the suggestion is made of. */
function BiteWhy({ job, operation, edit, onField, name }: Omit<EditorProps, 'insight'> & { name: string }) {
  const goTo = useGoTo({ job, operation, onField });
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const biting = kindOf(operation.kind)?.biting;
  const of = LEADS_TO[name] as Working['of'] | undefined;
  if (!tool || !biting || !of) return null;
  return (
    <>
      <BoldnessSlide value={job.boldness} onChange={(boldness) => edit((j) => ({ ...j, boldness }), 'boldness')} />
      <Fold label="Why?" testID="why">
        {() => (
          <Steps
            steps={biteWorking(biting, tool, job.material, job.machine, job.boldness).filter((w) => w.of === of)}
            goTo={goTo}
          />
        )}
      </Fold>
    </>
  );
}

/** Layers one operation may come to here. */
const MOST_LAYERS = 500;

/** How many layers a thickness comes to; typed, it sets the thickness. */
function LayerCount({
  deep,
  layer,
  info,
  onLayer,
}: {
  deep: number | undefined;
  layer: number;
  info: ParameterInfo;
  onLayer: (mm: number) => void;
}) {
  if (!deep || !(layer > 0)) return null;
  const count = Math.max(1, Math.ceil(deep / layer - 1e-9));
  const least = Math.max(1, Math.ceil(deep / info.max!));
  return (
    <NumberField
      label="Comes to so many layers"
      whole
      value={count}
      min={least}
      max={MOST_LAYERS}
      onChange={(n) => onLayer(Math.ceil((deep / n) * 1000) / 1000)}
      testID="layer-count"
    />
  );
}

/** One value of an operation: its field, what it does, and the value it would start from a tap away. */
export function ParamEditor(props: EditorProps & { name: string; info: ParameterInfo }) {
  const { job, operation, edit, name, info } = props;
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const set = (v: unknown) => edit((j) => changeParam(j, operation.id, name, v), `${operation.id}-${name}`);
  const { part, material, machine, boldness } = job;
  const kind = kindOf(operation.kind);
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operation.id))!;
  const proposed = useMemo(() => {
    if (!kind || !tool) return undefined;
    return proposedParams(job, setup, kind, tool, operation.targets, partModel)[name];
    // Only these decide what it would start from; the values typed do not.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [part, material, machine, boldness, tool, kind, operation.targets, setup.stock, name]);
  const value = operation.params[name];
  const departs = typeof proposed === 'number' && typeof value === 'number' && Math.abs(value - proposed) > 1e-6;
  const { preview, entry } = kind ?? {};
  return (
    <>
      <ParameterField
        info={info}
        value={value}
        unit={job.unit}
        autoFocus
        testID="value-field"
        shareOf={tool?.diameter}
        onChange={set}
      />
      {departs && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: SPACE.s }}>
          {proposed > 0 && (
            <Txt kind="small" tone="quiet">
              {formatNumber(Math.abs(value / proposed - 1) * 100, 0)} % {value > proposed ? 'over' : 'below'} the
              suggested.
            </Txt>
          )}
          <Button compact mode="outlined" onPress={() => set(proposed)}>
            Take {parameterText(info, proposed, job.unit)}
          </Button>
        </View>
      )}
      <Txt kind="small" tone="quiet">
        {info.help}
      </Txt>
      {name === 'layer' && <LayerCount deep={props.insight?.deep} layer={Number(value)} info={info} onLayer={set} />}
      <BiteWhy {...props} />
      {tool && preview?.shows.includes(name as never) && (
        <ContourPreview job={job} operation={operation} edit={edit} tool={tool} previewOf={preview.of} />
      )}
      {entry === name && <EntryHoleButton operation={operation} edit={edit} />}
    </>
  );
}
