import { View } from 'react-native';
import { Job, Priced, costInBatch, formatNumber } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { LineFigure } from '../../ui/LineFigure';
import { Txt } from '../../ui/Txt';

const BATCHES = [1, 10, 100, 1000];
/** Steps of the curves, each so many times the batch before. */
const STEPS = 48;

interface Props {
  job: Job;
  /** Of the ways that are counted. */
  priced: Priced[];
  name: (id: string) => string;
}

/** What a part costs each way in batches of several sizes; only where something is spent once, as else it is the same in all. */
export function BatchCosts({ job: { machine, batch = 1 }, priced, name }: Props) {
  if (priced.every((p) => p.oneOff === 0)) return null;
  const sizes = [...new Set([...BATCHES, batch])].sort((a, b) => a - b);
  const cost = (p: Priced, n: number) => costInBatch(p, machine.hourlyRate, n);
  const least = (n: number) => Math.min(...priced.map((p) => cost(p, n)));
  const most = sizes[sizes.length - 1];
  const [best, ...others] = [...priced].sort((a, b) => cost(a, batch) - cost(b, batch));
  const other = others.find((p) => p.oneOff !== best.oneOff);
  const curve = (p: Priced) => ({
    name: name(p.id),
    values: Array.from({ length: STEPS + 1 }, (_, i) => cost(p, most ** (i / STEPS))),
  });
  return (
    <Card testID="batch-costs">
      <Txt heading bold>
        Cost a part by how many are made
      </Txt>
      <LineFigure
        title={name(best.id)}
        summary={`${name(best.id)} costs ${cost(best, batch).toFixed(2)} a part in a batch of ${batch}`}
        x={{ label: 'parts', from: 1, to: most, text: (v) => formatNumber(v, 0) }}
        y={{ label: 'a part', text: (v) => v.toFixed(v < 10 ? 1 : 0) }}
        curves={other ? [curve(best), curve(other)] : [curve(best)]}
        here={{ at: Math.log(batch) / Math.log(most), value: cost(best, batch) }}
      />
      {priced.map((p) => (
        <View key={p.id}>
          <Txt>{name(p.id)}</Txt>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
            {sizes.map((n) => {
              const isLeast = cost(p, n) === least(n);
              return (
                <Txt key={n} kind="small" mono bold={isLeast}>
                  {formatNumber(n, 0)}: {cost(p, n).toFixed(2)}
                  {isLeast ? ' ✓' : ''}
                </Txt>
              );
            })}
          </View>
        </View>
      ))}
    </Card>
  );
}
