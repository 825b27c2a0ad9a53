import { Region, difference, intersection, offset, ringArea } from '../geometry/plane/clip';
import { standing } from '../geometry/space/box';
import { finding } from '../quantity/finding';
import { Parameter } from '../quantity/parameter';
import { jawStrength } from './friction';
import { Contact, HoldingKind, Placed, SIZES, Work, boundsOfWork, startAt } from './holding';
import { towards } from './towards';
import { ViseParams, jawEnds, viseFindings, viseFor } from './vise';

export class SoftJawParams extends ViseParams {
  @Parameter({
    label: 'Clearance',
    group: SIZES,
    help: 'By how much the pocket in the jaws is wider than the work all round.',
    unit: 'length',
    min: 0,
    max: 2,
    step: 0.01,
  })
  clearance!: number;
  @Parameter({
    label: 'Corner relief',
    group: SIZES,
    help: 'Diameter of the relief cut round each inside corner: more than the cutter of the pocket; 0 for none.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.5,
  })
  relief!: number;
  @Parameter({
    label: 'Left between the jaws',
    group: SIZES,
    help: 'The gap the jaws are cut and closed with.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.5,
  })
  gap!: number;
}

/** Metal left round the pocket in new jaws, mm. */
const WALL = 12;

/** Shorter pieces of an outline are no contact, mm. */
const SHORT = 0.05;

/** The pieces of an outline that look towards one jaw. */
function contactsOf(
  outline: Region,
  name: string,
  ahead: { x: number; y: number },
  low: number,
  high: number,
): Contact[] {
  return outline.flatMap((ring) =>
    ring.flatMap((a, i): Contact[] => {
      const b = ring[(i + 1) % ring.length];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const length = Math.sqrt(dx * dx + dy * dy);
      // Outlines run counterclockwise: the metal lies to the left.
      const into = { x: -dy / length, y: dx / length };
      const isFacing = into.x * ahead.x + into.y * ahead.y < -0.5;
      return length >= SHORT && isFacing ? [{ name, from: a, to: b, into, low, high }] : [];
    }),
  );
}

/** The two blanks as they stand round the work, each with the way towards its outside. */
export function blanksFor(params: SoftJawParams, work: Work) {
  const seen = towards(params.fixedJaw, boundsOfWork(work));
  const { deep, rect, ahead } = seen;
  const [from, to] = jawEnds(seen, params);
  const { gap, jawThickness } = params;
  const [low, high] = [deep / 2 - gap / 2, deep / 2 + gap / 2];
  return [
    { what: 'Fixed', at: rect(from, to, high, high + jawThickness), ahead },
    { what: 'Moving', at: rect(from, to, low - jawThickness, low), ahead: { x: -ahead.x, y: -ahead.y } },
  ];
}

export const softJaws: HoldingKind<SoftJawParams> = {
  kind: 'soft jaws',
  title: 'Soft jaws cut to the part',
  help: 'Jaws with a pocket of the work’s own outline: they hold any shape, finished faces too.',
  Params: SoftJawParams,
  starts(work) {
    const vise = viseFor(work);
    const { wide, deep } = towards(vise.fixedJaw, boundsOfWork(work));
    const toFive = (mm: number) => Math.ceil(mm / 5) * 5;
    return {
      ...{ ...vise, friction: 0.3, clearance: 0.02, relief: 6.8, gap: 3 },
      grip: startAt(Math.min(8, work.model.thickness / 3)),
      jawWidth: Math.min(2000, Math.max(vise.jawWidth, toFive(wide + 2 * WALL))),
      jawThickness: Math.min(500, Math.max(25, toFive(deep / 2 + WALL))),
    };
  },
  place(params, work, name): Placed {
    const seen = towards(params.fixedJaw, boundsOfWork(work));
    const { grip, jawThickness, jawHeight, friction, gap, clearance } = params;
    const { deep, wide } = seen;
    const [from, to] = jawEnds(seen, params);
    const { bottom } = work.stock;
    const top = bottom + grip;
    const blanks = blanksFor(params, work);
    const pocket = offset(work.outline, clearance);
    const jaws = blanks.map((blank) => {
      const jawName = `${blank.what} jaw of ${name}`;
      const floor = standing(jawName, blank.at, top - jawHeight, bottom);
      const walls = difference([blank.at], pocket)
        .filter((ring) => ringArea(ring) > 0)
        .map((ring) => standing(jawName, ring, bottom, top));
      const held = contactsOf(intersection(work.outline, [blank.at]), jawName, blank.ahead, bottom, top);
      return { bodies: [floor, ...walls], floor, held };
    });
    const [fixed, moving] = jaws;
    const reaches = deep / 2 < gap / 2 + jawThickness && from < 0 && to > wide;
    return {
      bodies: jaws.flatMap((j) => j.bodies),
      fixed: { ...fixed.floor, maxZ: top },
      moves: moving.floor,
      contacts: jaws.flatMap((j) => j.held),
      strength: jawStrength(params.force * 1000, friction, grip, Math.max(deep, wide), top),
      under: { what: 'the floor of their pocket', height: jawHeight - grip },
      findings: [
        // The blanks take up the rest of what the vise opens.
        ...viseFindings(params, { ...seen, deep: gap }, name),
        ...(reaches ? [] : [finding('jaws-too-small', { name, wide, deep }, { field: 'jawWidth' })]),
      ],
    };
  },
};
