import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Finding, Job, Outcome } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';
import { DECIDING, FIGURES } from './figures';

interface Props {
  job: Job;
  name: string;
  outcome?: Outcome;
  /** Why it is not counted, where it is not. */
  leftOut?: string;
  /** It stands in the route as it is. */
  isPresent: boolean;
  onTake: () => void;
  onRemove: () => void;
}

/** What speaks against a way, stops first. */
export const against = (findings: Finding[]): string[] =>
  [...findings]
    .sort((a, b) => Number(b.level === 'stop') - Number(a.level === 'stop'))
    .map((f) => `${f.level === 'stop' ? '▲' : '◆'} ${f.message}`);

/** One way on a phone: the two figures that decide, the rest when it is opened. */
export function WayCard({ job, name, outcome, leftOut, isPresent, onTake, onRemove }: Props) {
  const figure = ({ value, text }: (typeof FIGURES)[number]) => {
    const v = outcome && value(outcome, job);
    return v === undefined ? undefined : text(v, job.unit);
  };
  const said = outcome ? against(outcome.findings) : [];
  return (
    <Card testID={`way-${outcome?.id}`}>
      <Txt bold>{name}</Txt>
      {outcome && (
        <View style={{ flexDirection: 'row', gap: SPACE.l }}>
          {DECIDING.map((f) => (
            <Txt key={f.label}>
              {f.label} <Txt mono>{figure(f) ?? '–'}</Txt>
            </Txt>
          ))}
        </View>
      )}
      {outcome && !outcome.figures && <Txt tone="danger">▲ It cannot be cut.</Txt>}
      {leftOut && (
        <Txt kind="small" tone="care">
          ◆ Not counted: {leftOut}
        </Txt>
      )}
      {said.slice(0, 2).map((line) => (
        <Txt key={line} kind="small" tone={line.startsWith('▲') ? 'danger' : 'care'}>
          {line}
        </Txt>
      ))}
      {outcome?.figures && (
        <Fold label="All figures">
          {() =>
            FIGURES.slice(DECIDING.length).map((f) => (
              <Txt key={f.label} kind="small">
                {f.label} {figure(f)}
              </Txt>
            ))
          }
        </Fold>
      )}
      {!isPresent && (
        <View style={{ flexDirection: 'row', gap: SPACE.s, flexWrap: 'wrap' }}>
          <Button mode="outlined" onPress={onTake} disabled={!outcome?.figures} testID={`take-${outcome?.id}`}>
            Take it over
          </Button>
          <Button onPress={onRemove}>Leave it out</Button>
        </View>
      )}
    </Card>
  );
}
