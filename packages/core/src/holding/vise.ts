import { finding } from '../quantity/finding';
import { Choice, Parameter } from '../quantity/parameter';
import { standing } from '../geometry/space/box';
import { jawStrength } from './friction';
import { Contact, HoldingKind, Placed, Work, SIZES, boundsOfWork, startAt } from './holding';
import { SIDES, Towards, WorkSide, towards } from './towards';

/** What all vises are asked. */
export class ViseParams {
  @Choice({
    label: 'Fixed jaw at the',
    help: 'The side of the work that does not move; a zero belongs there.',
    choices: SIDES,
  })
  fixedJaw!: WorkSide;
  @Parameter({
    ...{ label: 'Grips', help: 'How far the jaws reach up the work; parallels make up the rest of their height.' },
    ...{ unit: 'length', min: 0.5, max: 500, step: 0.5 },
  })
  grip!: number;
  @Parameter({
    label: 'Force',
    help: 'How hard it presses: a bench vise 8 kN, a machine vise 20.',
    unit: 'force',
    min: 0.1,
    max: 500,
    step: 1,
  })
  force!: number;
  @Parameter({
    label: 'Friction',
    help: '0.15 smooth jaws, 0.3 serrated or cut to the part.',
    unit: 'number',
    min: 0.02,
    max: 0.8,
    step: 0.05,
  })
  friction!: number;
  @Parameter({ label: 'Jaw width', group: SIZES, help: 'Along the work.', unit: 'length', min: 5, max: 2000, step: 5 })
  jawWidth!: number;
  @Parameter({
    label: 'Jaw height',
    group: SIZES,
    help: 'From the bed of the vise to the top of its jaws.',
    unit: 'length',
    min: 2,
    max: 500,
    step: 1,
  })
  jawHeight!: number;
  @Parameter({ label: 'Jaw thickness', group: SIZES, help: 'Of each jaw.', unit: 'length', min: 2, max: 500, step: 1 })
  jawThickness!: number;
  @Parameter({
    label: 'Opens to',
    group: SIZES,
    help: 'As far as it opens.',
    unit: 'length',
    min: 5,
    max: 3000,
    step: 5,
  })
  opens!: number;
  @Parameter({
    label: 'Off the middle',
    group: SIZES,
    help: 'How far the work sits to the right of the middle of the jaws, as you face the fixed one.',
    unit: 'length',
    min: -2000,
    max: 2000,
    step: 5,
  })
  off!: number;
}

/** A machine vise, which grips as much as stock below the part gives, or a third of work that has none. */
export function viseFor(work: Work): ViseParams {
  const { stock, model } = work;
  const below = -model.thickness - stock.bottom;
  const grip = below > 0.5 ? below * 0.7 : (stock.top - stock.bottom) / 3;
  const sizes = { jawWidth: 125, jawHeight: 40, jawThickness: 18, opens: 150 };
  return {
    fixedJaw: 'back',
    grip: startAt(Math.min(8, grip)),
    force: 20,
    friction: 0.15,
    ...sizes,
    off: 0,
  };
}

/** The two jaws seen towards the fixed one: where they begin and end along the work. */
export const jawEnds = ({ wide }: Towards, { jawWidth, off }: ViseParams): [number, number] => [
  wide / 2 - off - jawWidth / 2,
  wide / 2 - off + jawWidth / 2,
];

/** What speaks against the work in a vise. */
export function viseFindings(
  { grip, opens, jawHeight, jawWidth, off }: ViseParams,
  { wide, deep }: Towards,
  name: string,
) {
  return [
    ...(deep > opens ? [finding('vise-too-small', { name, deep, opens }, { field: 'opens' })] : []),
    ...(grip > jawHeight ? [finding('grip-over-jaw', { name, grip, jawHeight }, { field: 'grip' })] : []),
    ...(Math.abs(off) > (wide + jawWidth) / 2 ? [finding('jaws-miss', { name }, { field: 'off' })] : []),
  ];
}

export const vise: HoldingKind<ViseParams> = {
  kind: 'vise',
  title: 'Vise',
  help: 'Two flat jaws press on opposite sides.',
  Params: ViseParams,
  starts: viseFor,
  place(params, work, name): Placed {
    const seen = towards(params.fixedJaw, boundsOfWork(work));
    const { grip, jawThickness, jawHeight, friction } = params;
    const { wide, deep, rect, at, ahead } = seen;
    const [from, to] = jawEnds(seen, params);
    const top = work.stock.bottom + grip;
    const jaw = (what: string, v0: number, v1: number) =>
      standing(`${what} jaw of ${name}`, rect(from, to, v0, v1), top - jawHeight, top);
    const fixed = jaw('Fixed', deep, deep + jawThickness);
    const moving = jaw('Moving', -jawThickness, 0);
    const ends: [number, number] = [Math.max(0, from), Math.min(wide, to)];
    const contact = (jawName: string, v: number, sign: number): Contact => ({
      name: jawName,
      from: at(ends[0], v),
      to: at(ends[1], v),
      into: { x: sign * ahead.x, y: sign * ahead.y },
      low: work.stock.bottom,
      high: top,
    });
    const held = Math.max(0, ends[1] - ends[0]);
    return {
      bodies: [fixed, moving],
      fixed,
      moves: moving,
      contacts: held > 0 ? [contact(fixed.name, deep, -1), contact(moving.name, 0, 1)] : [],
      strength: jawStrength(params.force * 1000, friction, grip, Math.max(deep, held), top),
      under: { what: 'parallels', height: jawHeight - grip },
      findings: viseFindings(params, seen, name),
    };
  },
};
