import { Point } from '../geometry/plane/point';
import { roundPost, standing } from '../geometry/space/box';
import { finding } from '../quantity/finding';
import { maths } from '../quantity/maths';
import { formatNumber, radians } from '../quantity/units';
import { Parameter } from '../quantity/parameter';
import { Contact, HoldingKind, Placed, SIZES, boundsOfWork, startAt } from './holding';

export class ChuckParams {
  @Parameter({
    label: 'Grips',
    help: 'How far the jaws reach up the work.',
    unit: 'length',
    min: 0.5,
    max: 300,
    step: 0.5,
  })
  grip!: number;
  @Parameter({ label: 'Diameter', group: SIZES, help: 'Of the chuck.', unit: 'length', min: 20, max: 1000, step: 5 })
  diameter!: number;
  @Parameter({
    label: 'Jaw width',
    group: SIZES,
    help: 'Of each of its three jaws.',
    unit: 'length',
    min: 3,
    max: 200,
    step: 1,
  })
  jawWidth!: number;
  @Parameter({
    label: 'Jaw height',
    group: SIZES,
    help: 'From the face of the chuck to the top of its jaws.',
    unit: 'length',
    min: 2,
    max: 300,
    step: 1,
  })
  jawHeight!: number;
  @Parameter({
    label: 'First jaw at',
    help: 'Where it points to, counterclockwise from X.',
    unit: 'angle',
    min: -360,
    max: 360,
    step: 15,
  })
  turn!: number;
  @Parameter({
    label: 'Force of a jaw',
    help: 'A chuck of 160 mm well tightened 12 kN.',
    unit: 'force',
    min: 0.1,
    max: 200,
    step: 1,
  })
  force!: number;
  @Parameter({
    label: 'Friction',
    help: '0.15 smooth or soft jaws on a turned face, 0.3 serrated.',
    unit: 'number',
    min: 0.02,
    max: 0.8,
    step: 0.05,
  })
  friction!: number;
}

/** A square of work lies as deep in a jaw, mm. */
const LONG = 35;
const DEEP = 60;

export const chuck: HoldingKind<ChuckParams> = {
  kind: 'chuck',
  title: 'Three-jaw chuck on the table',
  help: 'Centres and holds what is round, its axis upright.',
  Params: ChuckParams,
  starts: ({ stock }) => ({
    grip: startAt(Math.min(10, (stock.top - stock.bottom) / 3)),
    diameter: 160,
    jawWidth: 20,
    jawHeight: 30,
    turn: 90,
    force: 12,
    friction: 0.15,
  }),
  place(params, work, name): Placed {
    const { grip, diameter, jawWidth, jawHeight, turn, force, friction } = params;
    const box = boundsOfWork(work);
    const centre = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
    const { bottom } = work.stock;
    const top = bottom + grip;
    const face = top - jawHeight;
    const body = roundPost(`Body of ${name}`, centre, diameter, face - DEEP, face);
    const points = work.outline.flat();
    const jaws = [0, 1, 2].map((k) => {
      const angle = radians(turn + 120 * k);
      const out = { x: maths.cos(angle), y: maths.sin(angle) };
      const along = { x: -out.y, y: out.x };
      const reach = Math.max(...points.map((p) => (p.x - centre.x) * out.x + (p.y - centre.y) * out.y));
      const at = (r: number, s: number): Point => ({
        x: centre.x + out.x * r + along.x * s,
        y: centre.y + out.y * r + along.y * s,
      });
      const half = jawWidth / 2;
      const corners = [at(reach, -half), at(reach + LONG, -half), at(reach + LONG, half), at(reach, half)];
      const jawName = `Jaw ${k + 1} of ${name}`;
      const contact: Contact = {
        name: jawName,
        from: at(reach, -0.5),
        to: at(reach, 0.5),
        into: { x: -out.x, y: -out.y },
        low: bottom,
        high: top,
      };
      return { body: standing(jawName, corners, face, top), contact, reach };
    });
    const reaches = jaws.map((j) => j.reach);
    const radius = Math.max(...reaches);
    const slip = 3 * friction * force * 1000;
    const tip = force * 1000 * grip + slip * radius * (2 / 3);
    return {
      bodies: [body, ...jaws.map((j) => j.body)],
      fixed: body,
      contacts: jaws.map((j) => j.contact),
      strength: {
        ...{ slip, lift: slip, tip, about: top - grip / 2 },
        working: [
          `Slips at 3·μ·F = ${formatNumber(slip / 1000, 2)} kN`,
          `Tips at F·g + ⅔·3·μ·F·r = ${formatNumber(tip / 1000, 1)} N·m, r ${formatNumber(radius, 1)} mm`,
        ],
      },
      under: { what: 'the face of the chuck', height: jawHeight - grip },
      findings: [
        ...(2 * radius > diameter
          ? [finding('chuck-too-small', { name, across: 2 * radius, diameter }, { field: 'diameter' })]
          : []),
        ...(radius - Math.min(...reaches) > 0.5
          ? [finding('chuck-not-round', { name, by: radius - Math.min(...reaches) }, { field: 'turn' })]
          : []),
      ],
    };
  },
};
