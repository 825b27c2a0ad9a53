import { ReactNode, memo, useMemo, useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button, IconButton, Menu } from 'react-native-paper';
import {
  Finding,
  Job,
  Operation,
  canCompare,
  estimateMinutes,
  formatFeed,
  formatLength,
  formatTime,
  insightOf,
  kindOf,
  parameterText,
  parametersOf,
  PlannedView,
  splitsFinish,
} from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { FindingCard } from '../../ui/FindingCard';
import { GaugeBar } from '../../ui/GaugeBar';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';
import { SentenceText } from './SentenceText';
import { fieldsOf, sentenceOf } from './sentences';
import { Field, fieldKey } from './sentences/types';

export type Act = 'duplicate' | 'split' | 'delete' | 'switch' | 'up' | 'down' | 'compare' | 'comment';

interface Props {
  job: Job;
  operation: Operation;
  index: number;
  open: boolean;
  planned: PlannedView | undefined;
  /** Whether the rack's tool has changed since the job took it. */
  isToolStale?: boolean;
  /** Minutes from the proof, where it is fresh. */
  proved: number | undefined;
  /** How many comments stand at it. */
  comments: number;
  editing: Field | undefined;
  handle: ReactNode;
  onOpen: () => void;
  onEdit: (field: Field) => void;
  onAct: (act: Act) => void;
}

function Actions({ operation, onAct, onRename }: Pick<Props, 'operation' | 'onAct'> & { onRename: () => void }) {
  const [open, setOpen] = useState(false);
  const [used, setUsed] = useState(false);
  const act = (what: Parameters<Props['onAct']>[0]) => () => {
    setOpen(false);
    onAct(what);
  };
  const button = (
    <IconButton
      icon="dots-vertical"
      accessibilityLabel={`More for ${operation.name}`}
      onPress={() => {
        setUsed(true);
        setOpen(true);
      }}
    />
  );
  // A menu that appears closed takes the focus to its button, and scrolls there: it appears when it is first opened.
  if (!used) return button;
  return (
    <Menu visible={open} onDismiss={() => setOpen(false)} anchor={button}>
      <Menu.Item title={operation.on ? 'Switch off' : 'Switch on'} onPress={act('switch')} />
      <Menu.Item
        title="Rename"
        onPress={() => {
          setOpen(false);
          onRename();
        }}
      />
      <Menu.Item title="Comments" onPress={act('comment')} />
      {canCompare(operation) && <Menu.Item title="Compare with other ways" onPress={act('compare')} />}
      {splitsFinish(operation) && <Menu.Item title="Split the finish off" onPress={act('split')} />}
      <Menu.Item title="Duplicate" onPress={act('duplicate')} />
      <Menu.Item title="Earlier" onPress={act('up')} />
      <Menu.Item title="Later" onPress={act('down')} />
      <Menu.Item title="Delete" onPress={act('delete')} />
    </Menu>
  );
}

/** Values that say where an operation ends, where no height does. */
const ENDS = ['breakthrough', 'floorAllowance'];

/** Values that matter but are not in the sentence. */
function moreFields(operation: Operation, said: Field[], bends: boolean): Field[] {
  const kind = kindOf(operation.kind);
  if (!kind) return [];
  const keys = new Set(said.map(fieldKey));
  const isHand = kind.process === 'hand';
  const all: Field[] = [
    ...(isHand ? [] : [{ at: 'speed', key: 'entryFeed' } as Field]),
    ...Object.entries(parametersOf(kind.Params))
      .filter(
        ([key, info]) =>
          !(operation.heights?.end && ENDS.includes(key)) && (!info.matters || info.matters(operation.params as never)),
      )
      .map(([key]): Field => ({ at: 'param', key })),
    ...(kind.process === 'beam' || isHand ? [] : [{ at: 'heights' } as Field]),
    ...(kind.process === 'milling' ? [{ at: 'feeds' } as Field] : []),
    ...(kind.takesBounds ? [{ at: 'bounds' } as Field] : []),
    ...(kind.takesStretch ? [{ at: 'stretch' } as Field] : []),
    ...(kind.takesBegins ? [{ at: 'begins' } as Field] : []),
    ...(bends ? [{ at: 'bend' } as Field] : []),
    ...(kind.works.length ? [{ at: 'repeat' } as Field] : []),
    ...(isHand ? [] : [{ at: 'before' } as Field]),
  ];
  return all.filter((f) => !keys.has(fieldKey(f)));
}

const startsText = ({ begins = [] }: Operation) =>
  begins.length ? counted(begins.length, 'start point', 'start points') : 'Laps begin as they come';

/** What a value under “more” is called, and what it is now. */
function labelOf(operation: Operation, field: Field, unit: Job['unit'], bend: number | undefined): string {
  if (field.at === 'speed') return `Entry feed ${formatFeed(operation.speeds.entryFeed, unit)}`;
  if (field.at === 'bend') return `Bends at most ${formatLength(bend!, unit)}`;
  if (field.at === 'repeat') return 'Done once';
  if (field.at === 'bounds') return 'No bounds';
  if (field.at === 'feeds') return 'Feeds as they come';
  if (field.at === 'stretch') return 'Along all of its line';
  if (field.at === 'begins') return startsText(operation);
  if (field.at === 'heights') return 'Heights as they come';
  if (field.at === 'before') return 'No stop before it';
  if (field.at !== 'param') return '';
  const info = parametersOf(kindOf(operation.kind)!.Params)[field.key];
  return `${info.label} ${parameterText(info, operation.params[field.key], unit)}`;
}

/** What a card shows of its plan without being opened: what stops, what wants care, what waits. */
function marksOf(operation: Operation, planned: PlannedView | undefined, [stops, cares, comments]: number[]) {
  const said = comments
    ? [{ text: `“${comments}”`, said: counted(comments, 'comment', 'comments'), tone: 'quiet' as const }]
    : [];
  if (!operation.on) return said;
  return [
    ...said,
    ...(stops ? [{ text: `▲${stops}`, said: counted(stops, 'stop', 'stops'), tone: 'danger' as const }] : []),
    ...(cares ? [{ text: `◆${cares}`, said: counted(cares, 'care', 'cares'), tone: 'care' as const }] : []),
    ...(planned ? [] : [{ text: '↻', said: 'waits to be planned', tone: 'quiet' as const }]),
  ];
}

/** One operation: its sentence, what its values do, how long it takes, what is wrong with it. */
function OperationCardView({
  job,
  operation,
  index,
  open,
  planned,
  isToolStale,
  proved,
  comments,
  editing,
  handle,
  onOpen,
  onEdit,
  onAct,
}: Props) {
  const palette = usePalette();
  const [more, setMore] = useState(false);
  const pieces = useMemo(() => (open ? sentenceOf(job, operation) : []), [open, job, operation]);
  const insight = useMemo(() => insightOf(job, operation), [job, operation]);
  const bends = !!insight?.gauges.some((g) => g.id === 'deflection');
  const rest = open ? moreFields(operation, fieldsOf(pieces), bends) : [];
  const departs = !open && operation.on ? insight?.departure : undefined;
  const minutes = proved ?? (planned ? estimateMinutes(planned.minutes, operation) : undefined);
  const told = (level: Finding['level']) => planned?.findings.filter((f) => f.level === level).length ?? 0;
  const marks = marksOf(operation, planned, [told('stop'), told('care'), comments]);
  return (
    <Card
      testID={`operation-${operation.id}`}
      style={{
        opacity: operation.on ? 1 : 0.65,
        borderColor: open ? palette.accent : palette.line,
        paddingVertical: SPACE.xs,
        paddingHorizontal: SPACE.s,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        {handle}
        <Pressable
          role="button"
          aria-expanded={open}
          aria-label={`${index + 1} ${operation.name}`}
          onPress={onOpen}
          style={{ flex: 1, minHeight: SIZE.touch, justifyContent: 'center', minWidth: 0, paddingRight: SPACE.s }}
        >
          <Txt bold lines={2}>
            {index + 1} {operation.name}
            {operation.on ? '' : ' (off)'}
          </Txt>
          {!open && isToolStale && (
            <Txt kind="small" tone="care">
              ◆ its tool has changed in the rack
            </Txt>
          )}
          {!!departs?.brief && (
            <Txt kind="small" tone={departs.governs ? 'care' : 'quiet'} testID={`departs-${operation.id}`}>
              {departs.governs ? '◆ ' : ''}
              {departs.brief}
            </Txt>
          )}
        </Pressable>
        {marks.map(({ text, said, tone }) => (
          <Txt key={said} kind="small" tone={tone} label={said} testID={`mark-${operation.id}`}>
            {text}{' '}
          </Txt>
        ))}
        {minutes !== undefined && operation.on && (
          <Txt mono kind="small" testID={`time-${operation.id}`}>
            {formatTime(minutes)}
          </Txt>
        )}
        <Actions operation={operation} onAct={onAct} onRename={() => onEdit({ at: 'name' })} />
      </View>
      {open && (
        <View style={{ gap: SPACE.m, paddingHorizontal: SPACE.s, paddingBottom: SPACE.s }}>
          {operation.reason && (
            <Txt kind="small" tone="quiet">
              {operation.reason}
            </Txt>
          )}
          <SentenceText pieces={pieces} editing={editing && fieldKey(editing)} onEdit={onEdit} />
          {insight && (
            <>
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
                {insight.gauges.map((g) => (
                  <GaugeBar key={g.id} gauge={g} />
                ))}
              </View>
              <Txt kind="small" tone="quiet">
                {insight.suggestion.limitText}
              </Txt>
            </>
          )}
          {planned?.findings.map((f, i) => (
            <FindingCard key={i} finding={f} onGo={goTo(f.place.field, onEdit)} goLabel="Change it" />
          ))}
          {rest.length > 0 && (
            <Button compact onPress={() => setMore(!more)} style={{ alignSelf: 'flex-start' }}>
              {more ? 'Less' : 'More'}
            </Button>
          )}
          {more && (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
              {rest.map((f) => (
                <Button
                  key={fieldKey(f)}
                  compact
                  mode="outlined"
                  onPress={() => onEdit(f)}
                  testID={`more-${fieldKey(f)}`}
                >
                  {labelOf(operation, f, job.unit, insight?.bend.most)}
                </Button>
              ))}
            </View>
          )}
        </View>
      )}
    </Card>
  );
}

/** A closed card shows nothing of the rest of the job, so it stays as it is while another one is being changed. */
const sameWhileClosed = (a: Props, b: Props) =>
  !a.open &&
  !b.open &&
  a.operation === b.operation &&
  a.index === b.index &&
  a.planned === b.planned &&
  a.isToolStale === b.isToolStale &&
  a.comments === b.comments &&
  a.proved === b.proved;

export const OperationCard = memo(OperationCardView, sameWhileClosed);

/** The value a finding points at, as something to open. */
function goTo(field: string | undefined, onEdit: (f: Field) => void): (() => void) | undefined {
  if (field === 'toolId') return () => onEdit({ at: 'tool' });
  if (field === 'targets') return () => onEdit({ at: 'targets' });
  if (field === 'coolant') return () => onEdit({ at: 'coolant' });
  if (field === 'within' || field === 'keepAway') return () => onEdit({ at: 'bounds' });
  if (field === 'stretch') return () => onEdit({ at: 'stretch' });
  if (field === 'repeat') return () => onEdit({ at: 'repeat' });
  const [group, key] = field?.split('.') ?? [];
  if (group === 'feeds') return () => onEdit({ at: 'feeds' });
  if (group === 'heights') return () => onEdit({ at: 'heights' });
  if (group === 'params') return () => onEdit({ at: 'param', key });
  if (group === 'speeds' && (key === 'rpm' || key === 'feed' || key === 'entryFeed'))
    return () => onEdit({ at: 'speed', key });
  return undefined;
}
