import { Machine, formatNumber, powerAt, torqueAt } from '@tidypath/core';
import { LineFigure } from './LineFigure';

const STEPS = 40;

/** The spindle's power over speed, with the point a cut works at. */
export function PowerCurve({ machine, here }: { machine: Machine; here?: { rpm: number; kW: number } }) {
  const [from, to] = [0, machine.maxRpm];
  const at = (i: number) => from + ((to - from) * i) / STEPS;
  const values = Array.from({ length: STEPS + 1 }, (_, i) => powerAt(machine, at(i)));
  const kW = (v: number) => `${formatNumber(v, v < 2 ? 2 : 1)} kW`;
  const said = here
    ? `; the cut takes ${kW(here.kW)} of ${kW(powerAt(machine, here.rpm))} at ${formatNumber(here.rpm, 0)} rpm`
    : '';
  return (
    <LineFigure
      title="What the spindle can give"
      summary={`Power over speed of ${machine.name}: up to ${kW(Math.max(...values))}, torque up to ${formatNumber(torqueAt(machine, machine.spindle[0].rpm), 1)} newton metres${said}`}
      x={{ label: 'speed', from, to, text: (v) => formatNumber(v, 0) }}
      y={{ label: here ? `power, kW; the cut takes ${kW(here.kW)}` : 'power, kW', text: (v) => formatNumber(v, 2) }}
      curves={[{ name: 'power', values }]}
      here={here && { at: here.rpm / to, value: here.kW }}
    />
  );
}
