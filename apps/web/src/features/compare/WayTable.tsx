import { ScrollView, View } from 'react-native';
import { Button } from 'react-native-paper';
import { Candidate, Job, Outcome } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';
import { FIGURES, bestIn } from './figures';
import { against } from './WayCard';

interface Props {
  job: Job;
  candidates: Candidate[];
  outcomes: Outcome[];
  /** Why some are not counted. */
  leftOut: Map<string, string | undefined>;
  onTake: (candidate: Candidate) => void;
  onRemove: (candidate: Candidate) => void;
}

const [LABEL, COLUMN] = [170, 168];

/** Ways side by side on a wide screen: a column each, the best of a figure marked. */
export function WayTable({ job, candidates, outcomes, leftOut, onTake, onRemove }: Props) {
  const palette = usePalette();
  const outcomeOf = ({ id }: Candidate) => outcomes.find((o) => o.id === id);
  const line = { borderTopWidth: 1, borderColor: palette.line, paddingVertical: SPACE.xs };
  return (
    <ScrollView horizontal>
      <View role="table" aria-label="Ways compared" testID="ways">
        <View role="row" style={{ flexDirection: 'row' }}>
          <View style={{ width: LABEL }} />
          {candidates.map((c) => (
            <View role="columnheader" key={c.id} style={{ width: COLUMN, padding: SPACE.xs, gap: SPACE.xs }}>
              <Txt bold>{c.name}</Txt>
              {leftOut.get(c.id) && (
                <Txt kind="small" tone="care">
                  ◆ Not counted: {leftOut.get(c.id)}
                </Txt>
              )}
              {against(outcomeOf(c)?.findings ?? [])
                .slice(0, 2)
                .map((said) => (
                  <Txt key={said} kind="small" tone={said.startsWith('▲') ? 'danger' : 'care'}>
                    {said}
                  </Txt>
                ))}
            </View>
          ))}
        </View>
        {FIGURES.map((figure) => {
          const best = bestIn(figure, outcomes, job);
          return (
            <View role="row" key={figure.label} style={{ flexDirection: 'row', ...line }}>
              <View role="rowheader" style={{ width: LABEL }}>
                <Txt kind="small">{figure.label}</Txt>
              </View>
              {candidates.map((c) => {
                const outcome = outcomeOf(c);
                const value = outcome && figure.value(outcome, job);
                const isBest = best.has(c.id);
                return (
                  <View role="cell" key={c.id} style={{ width: COLUMN, paddingHorizontal: SPACE.xs }}>
                    <Txt mono bold={isBest}>
                      {value === undefined ? '–' : figure.text(value, job.unit)}
                      {isBest ? ' ✓' : ''}
                    </Txt>
                  </View>
                );
              })}
            </View>
          );
        })}
        <View style={{ flexDirection: 'row', ...line }}>
          <View style={{ width: LABEL }} />
          {candidates.map((c) => (
            <View key={c.id} style={{ width: COLUMN, alignItems: 'flex-start' }}>
              {c.operations && (
                <>
                  <Button
                    mode="outlined"
                    compact
                    onPress={() => onTake(c)}
                    disabled={!outcomeOf(c)?.figures}
                    testID={`take-${c.id}`}
                  >
                    Take it over
                  </Button>
                  <Button compact onPress={() => onRemove(c)}>
                    Leave it out
                  </Button>
                </>
              )}
            </View>
          ))}
        </View>
      </View>
    </ScrollView>
  );
}
