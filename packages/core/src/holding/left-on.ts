import { ringArea } from '../geometry/plane/clip';
import { distance } from '../geometry/plane/point';
import { formatNumber } from '../quantity/units';
import { Choice, Parameter } from '../quantity/parameter';
import { HoldingKind, Placed, boundsOfWork } from './holding';

const BY = ['tabs', 'a skin'] as const;
type LeftOn = { by: (typeof BY)[number] };

export class LeftOnParams {
  @Choice({
    label: 'By',
    help: 'What is left of the metal around it: tabs here and there, or a skin below all round.',
    choices: BY,
  })
  by!: (typeof BY)[number];
  @Parameter({
    label: 'Tabs',
    help: 'How many the outside is cut with.',
    unit: 'count',
    min: 1,
    max: 60,
    step: 1,
    matters: (p: LeftOn) => p.by === 'tabs',
  })
  count!: number;
  @Parameter({
    label: 'Width of a tab',
    help: 'Along the outside.',
    unit: 'length',
    min: 0.2,
    max: 200,
    step: 0.5,
    matters: (p: LeftOn) => p.by === 'tabs',
  })
  width!: number;
  @Parameter({
    label: 'Height left',
    help: 'Of the tabs, or of the skin.',
    unit: 'length',
    min: 0.02,
    max: 50,
    step: 0.1,
  })
  height!: number;
  @Parameter({
    label: 'Shears at',
    help: 'Strength of the metal in shear: aluminium 150 N/mm², steel 300, acetal 50.',
    unit: 'pressure',
    min: 1,
    max: 2000,
    step: 10,
  })
  shears!: number;
}

export const leftOn: HoldingKind<LeftOnParams> = {
  kind: 'left on',
  title: 'Tabs or a skin',
  help: 'The part stays in its sheet until it is broken out; the sheet is held by something else.',
  Params: LeftOnParams,
  starts: () => ({ by: 'tabs', count: 4, width: 4, height: 1, shears: 150 }),
  place({ by, count, width, height, shears }, work): Placed {
    const outside = work.model.outline.filter((ring) => ringArea(ring) > 0);
    const round = outside.reduce(
      (sum, ring) => sum + ring.reduce((s, p, i) => s + distance(p, ring[(i + 1) % ring.length]), 0),
      0,
    );
    const metal = by === 'tabs' ? count * width * height : (round * height) / work.parts;
    const slip = metal * shears;
    const { minX, maxX, minY, maxY } = boundsOfWork(work);
    const wide = Math.min(maxX - minX, maxY - minY);
    return {
      bodies: [],
      contacts: [],
      strength: {
        ...{ slip, lift: slip, tip: (slip * wide) / 4, about: -work.model.thickness },
        working: [
          `${by === 'tabs' ? `${count} tabs` : 'The skin'}: ${formatNumber(metal, 1)} mm² of metal shear at ${formatNumber(slip / 1000, 2)} kN`,
          `Tips at A·τ·w/4 = ${formatNumber((slip * wide) / 4000, 1)} N·m, w ${formatNumber(wide, 1)} mm`,
        ],
      },
      findings: [],
    };
  },
};
