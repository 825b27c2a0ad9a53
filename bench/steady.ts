/** Steady-load clearing, measured from the posted program by the slow checker of the tests. */
import { widest } from '../packages/core/src/operation/milling/room';
import { ClearingShape } from '../packages/core/testing/clearing-shapes';
import { againstBest, clearingShapes, measureSteady } from '../packages/core/testing/steady-jobs';
import { SteadyFigures } from '../packages/core/testing/steady-checker';

const percent = (share: number, digits = 2) => `${(share * 100).toFixed(digits)} %`;

function bars({ kind, target }: ClearingShape, ae: number, D: number, both: boolean) {
  const slot = kind === 'narrow';
  const wide = kind === 'plain' && widest(target).diameter / 2 > 3 * D;
  const light = ae <= 0.1 * D;
  return {
    mean: wide ? 0.92 : 0.8,
    length: light ? (slot ? 1.25 : 1.1) : slot ? 1.4 : 1.2,
    idle: both ? (wide ? 0.08 : 0.23) : wide ? 0.15 : 0.3,
  };
}

function verdict(f: SteadyFigures, bar: ReturnType<typeof bars>): string {
  const missed = [
    f.steady < 0.999 && 'steady',
    (f.peak > 1.2 || f.most > 1.3) && 'peak',
    f.mean < bar.mean && 'mean',
    f.length > bar.length && 'length',
    f.idle > bar.idle && 'idle',
    (f.left > 0.001 || f.widest > 0.2) && 'left',
    f.gouge > 0.01 && 'gouge',
    f.brushed > 0 && `brushed ${f.brushed.toFixed(3)}`,
  ].filter(Boolean);
  return missed.length ? `MISSED ${missed.join(', ')}` : 'met';
}

const column = (figure: number | undefined, width: number) => (figure?.toFixed(2) ?? '-').padStart(width);

/** Prints a line a case: figures against the bars, its cycle against the best known, its planning time against the rectangle's. */
export function steadyTable(tools: [number, number][], direction: 'climb' | 'both ways'): void {
  process.stdout.write(
    `\n${`steady load, ${direction}`.padEnd(26)}  D   ae   <=1.10  peak  most  mean  length  idle   cycle/best  left (widest)    gouge   plan  /rectangle\n`,
  );
  for (const [D, ae] of tools) {
    const shapes = clearingShapes(D);
    measureSteady(shapes[0], D, ae, { direction });
    let rectangle = NaN;
    for (const shape of shapes) {
      const { figures: f, seconds, findings } = measureSteady(shape, D, ae, { direction });
      if (shape === shapes[0]) rectangle = seconds;
      const cycle = ae === 0.1 * D && direction === 'climb' ? againstBest(shape.name, f) : undefined;
      const bar = bars(shape, ae, D, direction === 'both ways');
      const met = cycle !== undefined && cycle > 1.03 ? 'MISSED cycle' : verdict(f, bar);
      process.stdout.write(
        `${shape.name.padEnd(26)} ${String(D).padStart(2)} ${String(ae).padStart(4)}  ${percent(f.steady)}${column(f.peak, 6)}${column(f.most, 6)}${column(f.mean, 6)}${column(f.length, 8)}  ${percent(f.idle, 1).padStart(6)}${column(cycle, 9)}    ${percent(f.left, 3)} (${f.widest.toFixed(2)})  ${f.gouge.toFixed(4)}  ${seconds.toFixed(1)} s ${column(seconds / rectangle, 5)}  ${met}${findings.length ? ` ${findings[0]}` : ''}\n`,
      );
    }
  }
}
