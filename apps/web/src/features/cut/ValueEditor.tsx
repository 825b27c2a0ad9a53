import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button, Checkbox, Switch } from 'react-native-paper';
import {
  COOLANTS,
  Coolant,
  Feature,
  Insight,
  Job,
  Operation,
  ParameterInfo,
  TOOLS,
  changeTool,
  editOperation,
  formatFeed,
  formatNumber,
  kindOf,
  parametersOf,
} from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Choices, plainOptions } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { ToolLine } from '../tools/ToolLine';
import type { Field } from './sentences/types';

interface Props {
  job: Job;
  operation: Operation;
  field: Field;
  insight: Insight | undefined;
  edit: (next: (job: Job) => Job, tag?: string) => void;
}

/** The working behind a suggested number: formula, numbers put in, source. */
function Why({ insight }: { insight: Insight }) {
  const [open, setOpen] = useState(false);
  return (
    <View>
      <Button compact onPress={() => setOpen(!open)} style={{ alignSelf: 'flex-start' }}>
        Why?
      </Button>
      {open && (
        <View style={{ gap: SPACE.s }}>
          {insight.suggestion.working.map((w, i) => (
            <View key={i}>
              <Txt bold kind="small">
                {w.what}: {w.result}
              </Txt>
              <Txt kind="small" mono>
                {w.formula}
              </Txt>
              <Txt kind="small" tone="quiet">
                {w.source}
              </Txt>
            </View>
          ))}
          <Txt kind="small">{insight.suggestion.limitText}</Txt>
        </View>
      )}
    </View>
  );
}

const SPEED_LABEL = { rpm: 'Spindle speed', feed: 'Feed', entryFeed: 'Entry feed' } as const;

function SpeedEditor({
  job,
  operation,
  insight,
  edit,
  which,
}: Omit<Props, 'field'> & { which: 'rpm' | 'feed' | 'entryFeed' }) {
  const inch = job.unit === 'inch' && which !== 'rpm';
  const scale = inch ? 25.4 : 1;
  const value = operation.speeds[which];
  const suggested = insight?.suggestion[which];
  const set = (v: number) =>
    edit(
      (j) => editOperation(j, operation.id, (o) => ({ ...o, speeds: { ...o.speeds, [which]: v } })),
      `${operation.id}-${which}`,
    );
  const text = (v: number) => (which === 'rpm' ? `${formatNumber(v, 0)} rpm` : formatFeed(v, job.unit));
  const max = which === 'rpm' ? job.machine.maxRpm : job.machine.maxFeed;
  return (
    <>
      <NumberField
        autoFocus
        testID="value-field"
        label={SPEED_LABEL[which]}
        value={value / scale}
        min={(which === 'rpm' ? Math.max(1, job.machine.minRpm) : 0.1) / scale}
        max={max / scale}
        step={which === 'rpm' ? 100 : 10}
        whole={which === 'rpm'}
        suffix={which === 'rpm' ? 'rpm' : inch ? 'in/min' : 'mm/min'}
        onChange={(v) => set(v * scale)}
      />
      {suggested !== undefined && insight && (
        <>
          {Math.abs(suggested - value) > 0.5 ? (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: SPACE.s }}>
              <Txt kind="small" tone="quiet">
                {formatNumber(Math.abs(value / suggested - 1) * 100, 0)} % {value > suggested ? 'above' : 'below'} the
                suggestion
              </Txt>
              <Button compact mode="outlined" onPress={() => set(suggested)}>
                Take {text(suggested)}
              </Button>
            </View>
          ) : (
            <Txt kind="small" tone="quiet">
              As suggested.
            </Txt>
          )}
          <Why insight={insight} />
        </>
      )}
    </>
  );
}

function ParamEditor({
  job,
  operation,
  edit,
  name,
  info,
}: Omit<Props, 'field' | 'insight'> & { name: string; info: ParameterInfo }) {
  const value = operation.params[name];
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const set = (v: unknown) =>
    edit(
      (j) => editOperation(j, operation.id, (o) => ({ ...o, params: { ...o.params, [name]: v } })),
      `${operation.id}-${name}`,
    );
  const step =
    job.unit === 'inch' && info.step ? Math.max(0.0254, Math.round((info.step / 25.4) * 200) * 0.127) : info.step;
  if (info.choices)
    return <Choices label={info.label} value={String(value)} options={plainOptions(info.choices)} onChange={set} />;
  if (info.unit === undefined) {
    return (
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.m }}>
        <Switch value={Boolean(value)} onValueChange={set} accessibilityLabel={info.label} />
        <Txt>{info.label}</Txt>
      </View>
    );
  }
  if (info.unit === 'length')
    return (
      <LengthField
        autoFocus
        testID="value-field"
        label={info.label}
        value={Number(value)}
        unit={job.unit}
        min={info.min}
        max={info.max}
        step={step}
        shareOf={tool?.diameter}
        onChange={set}
      />
    );
  const suffix = info.unit === 'angle' ? '°' : info.unit === 'share' ? '×' : undefined;
  return (
    <NumberField
      autoFocus
      testID="value-field"
      label={info.label}
      value={Number(value)}
      min={info.min!}
      max={info.max!}
      step={info.step}
      whole={info.unit === 'count'}
      suffix={suffix}
      onChange={set}
    />
  );
}

function TargetsEditor({ job, operation, edit }: Omit<Props, 'field' | 'insight'>) {
  const works = kindOf(operation.kind)?.works ?? [];
  const offered = job.part.features.filter((f) => works.includes(f.meaning));
  const toggle = (f: Feature) =>
    edit((j) =>
      editOperation(j, operation.id, (o) => ({
        ...o,
        targets: o.targets.includes(f.id) ? o.targets.filter((t) => t !== f.id) : [...o.targets, f.id],
      })),
    );
  if (offered.length === 0)
    return (
      <Txt>The part has nothing of this kind. Give a feature the meaning {works.join(' or ')} on the Part stage.</Txt>
    );
  return (
    <>
      {offered.map((f) => (
        <Checkbox.Item
          key={f.id}
          label={f.name}
          status={operation.targets.includes(f.id) ? 'checked' : 'unchecked'}
          onPress={() => toggle(f)}
          accessibilityLabel={f.name}
          position="leading"
          labelStyle={{ textAlign: 'left' }}
        />
      ))}
    </>
  );
}

function ToolEditor({ job, operation, edit }: Omit<Props, 'field' | 'insight'>) {
  const fits = kindOf(operation.kind)?.toolKinds ?? [];
  const rack = [...job.tools, ...TOOLS.filter((t) => !job.tools.some((own) => own.id === t.id))]
    .filter((t) => fits.includes(t.kind))
    .sort((a, b) => a.number - b.number);
  return (
    <>
      <Txt kind="small" tone="quiet">
        Bite and speeds follow the tool you choose.
      </Txt>
      {rack.map((t) => (
        <ToolLine
          key={t.id}
          tool={t}
          unit={job.unit}
          chosen={t.id === operation.toolId}
          onPress={() => edit((j) => changeTool(j, operation.id, t))}
        />
      ))}
    </>
  );
}

function DepthEditor({ job, edit, featureId }: Omit<Props, 'field' | 'insight' | 'operation'> & { featureId: string }) {
  const feature = job.part.features.find((f) => f.id === featureId);
  if (!feature) return null;
  const set = (more: Partial<Feature>, tag: string) =>
    edit(
      (j) => ({
        ...j,
        part: { ...j.part, features: j.part.features.map((f) => (f.id === featureId ? { ...f, ...more } : f)) },
      }),
      tag,
    );
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.m }}>
        <Switch
          value={feature.through}
          onValueChange={(through) => set({ through }, '')}
          accessibilityLabel="Goes through"
        />
        <Txt>Goes through</Txt>
      </View>
      {!feature.through && (
        <LengthField
          autoFocus
          testID="value-field"
          label={`Depth of ${feature.name}`}
          value={feature.depth}
          unit={job.unit}
          min={0.001}
          max={2000}
          step={job.unit === 'mm' ? 0.5 : 0.635}
          help="down from the top of the part"
          onChange={(depth) => set({ depth }, `depth-${featureId}`)}
        />
      )}
      <Txt kind="small" tone="quiet">
        This changes the part: every operation on it follows.
      </Txt>
    </>
  );
}

/** The right field for a value of a sentence, with its meaning and, where there is one, the suggestion. */
export function ValueEditor(props: Props) {
  const { job, operation, field, edit } = props;
  const kind = kindOf(operation.kind);
  const info = useMemo(() => (kind ? parametersOf(kind.Params) : {}), [kind]);
  switch (field.at) {
    case 'tool':
      return <ToolEditor {...props} />;
    case 'targets':
      return <TargetsEditor {...props} />;
    case 'coolant':
      return (
        <Choices
          label="Coolant"
          value={operation.coolant}
          options={plainOptions(COOLANTS.filter((c) => job.machine.coolants.includes(c)) as Coolant[])}
          onChange={(coolant) => edit((j) => editOperation(j, operation.id, (o) => ({ ...o, coolant })))}
        />
      );
    case 'speed':
      return <SpeedEditor {...props} which={field.key} />;
    case 'depth':
      return <DepthEditor {...props} featureId={field.featureId} />;
    case 'param': {
      const found = info[field.key];
      if (!found) return null;
      return (
        <>
          <ParamEditor {...props} name={field.key} info={found} />
          <Txt kind="small" tone="quiet">
            {found.help}
          </Txt>
        </>
      );
    }
  }
}
