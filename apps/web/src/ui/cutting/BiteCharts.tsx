import {
  LengthUnit,
  Situation,
  cutState,
  formatNumber,
  lengthNumber,
  scallopHeight,
  stepoverForScallop,
  suggest,
  thin,
  thinnestChip,
} from '@tidypath/core';
import { LineFigure } from '../LineFigure';

interface Props {
  situation: Situation;
  rpm: number;
  feed: number;
  unit: LengthUnit;
}

const STEPS = 24;
/** A ridge one hardly feels, mm. */
const FINE = 0.005;
const steps = <T,>(make: (share: number) => T) => Array.from({ length: STEPS + 1 }, (_, i) => make(i / STEPS));
const least = 0.02;
const short = (unit: LengthUnit) => (unit === 'mm' ? 'mm' : 'in');
/** A small length without its unit, for an axis. */
const bare = (v: number, unit: LengthUnit) => thin(v, unit).split(' ')[0];

/** Chip thickness against stepover at the same feed: where it starts to rub. */
function ChipChart({ situation: s, rpm, feed, unit }: Props) {
  const D = s.tool.diameter;
  const chip = (ae: number) => cutState({ ...s, ae, rpm, feed }).largestChip;
  const values = steps((share) => chip(D * (least + (1 - least) * share)));
  const limit = thinnestChip(s.tool, s.material);
  return (
    <LineFigure
      title="Chip thickness against bite, at this feed"
      summary={`At a bite of ${lengthNumber(s.ae, unit)} the chip is ${thin(chip(s.ae), unit)}; below ${thin(limit, unit)} it rubs`}
      x={{ label: 'bite', from: D * least, to: D, text: (v) => lengthNumber(v, unit) }}
      y={{ label: `chip, ${short(unit)}`, text: (v) => bare(v, unit) }}
      curves={[{ name: 'chip', values }]}
      here={{ at: (s.ae / D - least) / (1 - least), value: chip(s.ae) }}
      limit={{ value: limit, text: `it rubs below ${thin(limit, unit)}` }}
    />
  );
}

/** So much metal is taken away at each width. */
const MUCH = {
  mm: { cm3: 100, text: '100 cm³', words: '100 cubic centimetres' },
  inch: { cm3: 10 * 2.54 ** 3, text: '10 in³', words: '10 cubic inches' },
};

/** The same removal rate at other widths: the depth and feed that keep it, and what they ask of the tool. */
function WidthChart({ situation: s, rpm, feed, unit }: Props) {
  const D = s.tool.diameter;
  const much = MUCH[unit];
  const rate = cutState({ ...s, rpm, feed }).removalRate;
  const at = (ae: number) => {
    const own = suggest({ ...s, ae, peakAe: undefined, asked: undefined });
    const ap = Math.min(s.tool.fluteLength, (rate * 1000) / (ae * own.feed));
    const state = cutState({ ...s, ae, ap, peakAe: undefined, rpm: own.rpm, feed: own.feed });
    return {
      minutes: much.cm3 / Math.max(1e-6, state.removalRate),
      load: state.power / Math.max(1e-9, state.powerAvailable),
      bends: state.deflection,
    };
  };
  const found = steps((share) => at(D * (0.05 + 0.95 * share)));
  const peak = Math.max(...found.map((f) => f.minutes));
  const load = Math.max(1e-9, ...found.map((f) => f.bends));
  const here = at(s.ae);
  return (
    <LineFigure
      title="Time and bending against width, for the same removal rate"
      summary={`${much.words} take ${formatNumber(here.minutes, 1)} minutes at this width, bending ${thin(here.bends, unit)}`}
      x={{ label: 'bite', from: D * 0.05, to: D, text: (v) => lengthNumber(v, unit) }}
      y={{ label: `minutes for ${much.text}`, text: (v) => formatNumber(v, 1) }}
      curves={[
        { name: `bending, at most ${thin(load, unit)}`, values: found.map((f) => f.minutes) },
        { name: `bending, at most ${thin(load, unit)}`, values: found.map((f) => (f.bends / load) * peak) },
      ]}
      here={{ at: (s.ae / D - 0.05) / 0.95, value: here.minutes }}
    />
  );
}

/** Ridges between ball passes against stepover. */
function ScallopChart({ situation: s, unit }: Props) {
  const D = s.tool.cornerRadius * 2;
  const widest = D * 0.4;
  const values = steps((share) => scallopHeight(widest * share, D));
  const here = scallopHeight(Math.min(s.ae, widest), D);
  return (
    <LineFigure
      title={`Ridges left between passes of a ball; ${thin(FINE, unit)} want a stepover of ${lengthNumber(stepoverForScallop(FINE, D), unit)}`}
      summary={`A stepover of ${lengthNumber(s.ae, unit)} leaves ridges of ${thin(here, unit)}`}
      x={{ label: 'stepover', from: 0, to: widest, text: (v) => lengthNumber(v, unit) }}
      y={{ label: `ridge, ${short(unit)}`, text: (v) => bare(v, unit) }}
      curves={[{ name: 'ridge', values }]}
      here={{ at: Math.min(1, s.ae / widest), value: here }}
    />
  );
}

/** The curves that help to choose a bite. */
export function BiteCharts(props: Props) {
  const { kind } = props.situation.tool;
  return (
    <>
      <ChipChart {...props} />
      <WidthChart {...props} />
      {(kind === 'ball' || kind === 'taper-ball') && <ScallopChart {...props} />}
    </>
  );
}
