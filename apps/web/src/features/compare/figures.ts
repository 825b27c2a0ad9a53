import {
  Job,
  LengthUnit,
  Measured,
  Outcome,
  costInBatch,
  formatLength,
  formatNumber,
  formatTime,
} from '@tidypath/core';

/** A figure ways are held against each other by. */
export interface Figure {
  label: string;
  /** Where it is less, it is better; nothing is said of others. */
  less: boolean;
  value: (outcome: Outcome, job: Job) => number | undefined;
  text: (value: number, unit: LengthUnit) => string;
}

const time = (minutes: number) => formatTime(minutes);
const percent = (share: number) => `${formatNumber(share * 100, share < 0.1 ? 1 : 0)} %`;
const long = (mm: number, unit: LengthUnit) => formatLength(mm, unit);
/** Of a whole way, where thousandths say nothing. */
const far = (mm: number, unit: LengthUnit) =>
  unit === 'mm' ? `${formatNumber(mm / 1000, 2)} m` : `${formatNumber(mm / 304.8, 1)} ft`;
const whole = (n: number) => formatNumber(n, 0);
const of = (value: (m: Measured) => number) => (o: Outcome) => o.figures && value(o.figures);

/** What decides: time and money. */
export const DECIDING: Figure[] = [
  { label: 'Time', less: true, value: of((m) => m.minutes.total), text: time },
  {
    label: 'Cost a part',
    less: true,
    value: ({ priced }, { machine, batch = 1 }) => priced && costInBatch(priced, machine.hourlyRate, batch),
    text: (v) => v.toFixed(2),
  },
];

export const FIGURES: Figure[] = [
  ...DECIDING,
  { label: 'Edges a part', less: true, value: ({ priced }) => priced?.edgePrice, text: (v) => v.toFixed(2) },
  {
    label: 'Edges for the batch',
    less: true,
    // Whole edges: for buying, never for ranking.
    value: (o, job) =>
      o.figures?.wear.reduce((sum, w) => sum + Math.max(1, Math.ceil(w.share * (job.batch ?? 1) - 1e-9)), 0),
    text: whole,
  },
  { label: 'In metal', less: false, value: of((m) => m.minutes.cut), text: time },
  { label: 'Fed in the air', less: true, value: of((m) => m.minutes.back), text: time },
  { label: 'Rapids', less: true, value: of((m) => m.minutes.rapid), text: time },
  { label: 'Tool change', less: true, value: of((m) => m.minutes.change), text: time },
  { label: 'Way', less: true, value: of((m) => m.length), text: far },
  { label: 'Entries', less: true, value: of((m) => m.entries), text: whole },
  { label: 'Retracts', less: true, value: of((m) => m.retracts), text: whole },
  { label: 'Load at most', less: true, value: of((m) => m.load.peak), text: percent },
  { label: 'Load, mean in metal', less: false, value: of((m) => m.load.mean), text: percent },
  { label: 'Spikes of load', less: true, value: of((m) => m.spikes.count), text: whole },
  { label: 'Spikes last', less: true, value: of((m) => m.spikes.seconds), text: (v) => `${formatNumber(v, 1)} s` },
  { label: 'Power at most', less: true, value: of((m) => m.power), text: (v) => `${formatNumber(v, 2)} kW` },
  { label: 'Heat made', less: true, value: of((m) => m.heat), text: (v) => `${formatNumber(v, v < 10 ? 1 : 0)} kJ` },
  { label: 'Side force at most', less: true, value: of((m) => m.force), text: (v) => `${whole(v)} N` },
  { label: 'Bends at most', less: true, value: of((m) => m.bend), text: long },
  { label: 'Turn in metal, mean', less: false, value: of((m) => m.angle), text: (v) => `${whole(v)}°` },
  { label: 'Flutes in use', less: false, value: of((m) => m.fluteUse), text: percent },
  { label: 'Marks on the wall', less: true, value: of((m) => m.wallMark), text: long },
  {
    label: 'Share of an edge',
    less: true,
    value: of((m) => m.wear.reduce((sum, w) => sum + w.share, 0)),
    text: percent,
  },
  { label: 'Energy', less: true, value: of((m) => m.kWh), text: (v) => `${formatNumber(v, 3)} kWh` },
  { label: 'Whole program', less: true, value: (o) => o.whole, text: time },
];

/** Figures that differ by less are as good as each other, as a share. */
const SAME = 0.005;

/** Which of some ways are best in a figure: none where all are. */
export function bestIn(figure: Figure, outcomes: Outcome[], job: Job): Set<string> {
  const known = outcomes.flatMap((o) => {
    const value = figure.value(o, job);
    return value === undefined ? [] : [{ id: o.id, value }];
  });
  const least = Math.min(...known.map((k) => k.value));
  const best = known.filter((k) => k.value <= least + SAME * Math.abs(least));
  return new Set(figure.less && best.length < known.length ? best.map((k) => k.id) : []);
}
