import { leaningPlace } from '../part/plate/leaning';
import { boundsOf } from '../geometry/plane/point';
import { FixtureBox } from '../geometry/space/box';
import { finding } from '../quantity/finding';
import { maths } from '../quantity/maths';
import { formatNumber, radians } from '../quantity/units';
import { Parameter } from '../quantity/parameter';
import { HoldingKind, NOTHING_PLACED, Placed, SIZES } from './holding';

/** A leaning plate is taken as so many upright blocks, none higher than the plate. */
const STEPS = 16;
/** How far it reaches beyond the work along the slope, and how thick it is, mm. */
const PLATE = { beyond: 20, thick: 15 };

export class SinePlateParams {
  @Parameter({
    label: 'Force',
    help: 'With which clamps or a magnet press the work on it, in all.',
    unit: 'force',
    min: 0.01,
    max: 500,
    step: 0.5,
  })
  force!: number;
  @Parameter({
    label: 'Friction',
    help: 'Between work and plate: dry steel 0.15, with paper between 0.25.',
    unit: 'number',
    min: 0.02,
    max: 1,
    step: 0.01,
  })
  friction!: number;
  @Parameter({
    label: 'Roll distance',
    group: SIZES,
    help: 'From the middle of one of its rolls to that of the other: the gauge blocks under one of them are this times the sine.',
    unit: 'length',
    min: 20,
    max: 1000,
    step: 50,
  })
  rolls!: number;
}

/** Holds leaning work: what is under it, and the gauge blocks that set it. */
export const sinePlate: HoldingKind<SinePlateParams> = {
  kind: 'sine plate',
  title: 'Sine plate',
  help: 'Sets the work at an angle on gauge blocks; it lies against a stop at the lower end.',
  Params: SinePlateParams,
  starts: () => ({ force: 4, friction: 0.15, rolls: 100 }),
  place({ force, friction, rolls }, { leaning, stock }, name): Placed {
    if (!leaning) return { ...NOTHING_PLACED, findings: [finding('sine-plate-flat', { name })] };
    const { lean, body, flat } = leaning;
    const { minX, maxX, minY, maxY } = boundsOf(flat.region.flat());
    const isX = lean.to === 'left' || lean.to === 'right';
    const [from, to] = isX ? [minX - PLATE.beyond, maxX + PLATE.beyond] : [minY - PLATE.beyond, maxY + PLATE.beyond];
    const at = (u: number) => leaningPlace(lean, { x: isX ? u : minX, y: isX ? minY : u, z: flat.bottom }, body);
    const bodies = Array.from({ length: STEPS }, (_, k): FixtureBox => {
      const [a, b] = [k, k + 1].map((n) => at(from + ((to - from) * n) / STEPS));
      const maxZ = Math.min(a.z, b.z);
      const along = isX ? [a.x, b.x] : [a.y, b.y];
      const [low, high] = [Math.min(...along), Math.max(...along)];
      const sides = isX ? { minX: low, maxX: high, minY, maxY } : { minX, maxX, minY: low, maxY: high };
      return { name, ...sides, minZ: maxZ - PLATE.thick, maxZ };
    });
    const press = force * 1000;
    const slip = press * friction;
    const long = isX ? maxX - minX : maxY - minY;
    const tip = (press * Math.min(long, isX ? maxY - minY : maxX - minX)) / 2;
    const blocks = rolls * maths.sin(radians(lean.degrees));
    return {
      bodies,
      contacts: [],
      strength: {
        ...{ slip, lift: press, tip, about: stock.bottom },
        working: [
          `Pressed on with ${formatNumber(force, 2)} kN: slips at μ·F = ${formatNumber(slip, 0)} N, comes off at ${formatNumber(press, 0)} N`,
          `Tips at F·w/2 = ${formatNumber(tip / 1000, 1)} N·m`,
        ],
      },
      under: { what: 'gauge blocks under the roll', height: blocks },
      findings: [],
    };
  },
};
