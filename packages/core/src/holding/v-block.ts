import { Point } from '../geometry/plane/point';
import { standing } from '../geometry/space/box';
import { formatNumber, radians } from '../quantity/units';
import { maths } from '../quantity/maths';
import { Parameter } from '../quantity/parameter';
import { finding } from '../quantity/finding';
import { jawStrength } from './friction';
import { Contact, HoldingKind, Placed, Strength, SIZES, boundsOfWork } from './holding';
import { longestFlat } from './flat';
import { Towards, towards } from './towards';
import { ViseParams, viseFindings, viseFor } from './vise';

export class VBlockParams extends ViseParams {
  @Parameter({
    label: 'Angle of the V',
    group: SIZES,
    help: 'Between its two faces.',
    unit: 'angle',
    min: 60,
    max: 150,
    step: 10,
  })
  angle!: number;
}

/** How far along its faces the V goes beyond where the work touches, mm. */
const BEYOND = 6;
/** Half the length of what touches a round thing, mm. */
const TOUCH = 0.5;

/** The V that touches the work, seen towards the fixed jaw: its root, and where each face touches. */
function touching(points: Point[], { at, ahead, deep }: Towards, half: number) {
  const side = { x: ahead.y, y: -ahead.x };
  const near = at(0, 0);
  const seen = points.map((p) => ({
    u: (p.x - near.x) * side.x + (p.y - near.y) * side.y,
    v: (p.x - near.x) * ahead.x + (p.y - near.y) * ahead.y,
  }));
  const [cos, sin] = [maths.cos(half), maths.sin(half)];
  const touch = [-1, 1].map((to) =>
    seen.reduce((best, p) => (to * p.u * cos + p.v * sin > to * best.u * cos + best.v * sin ? p : best)),
  );
  const far = touch.map((p, k) => (k ? 1 : -1) * p.u * cos + p.v * sin);
  const root = { u: (far[1] - far[0]) / (2 * cos), v: (far[0] + far[1]) / (2 * sin) };
  return { touch, root: { u: root.u, v: Math.max(root.v, deep) } };
}

export const vBlock: HoldingKind<VBlockParams> = {
  kind: 'v-block',
  title: 'V-block in a vise',
  help: 'A V at the fixed jaw holds what is round, upright; the moving jaw presses on it, best on its one flat.',
  Params: VBlockParams,
  starts: (work) => ({ ...viseFor(work), angle: 90, jawThickness: 30 }),
  place(params, work, name): Placed {
    const box = boundsOfWork(work);
    const seen = towards(params.fixedJaw, box);
    const { grip, jawThickness, jawHeight, angle } = params;
    const { deep, at, ahead, rect } = seen;
    const { bottom } = work.stock;
    const top = bottom + grip;
    const half = radians(angle) / 2;
    const { touch, root } = touching(work.outline.flat(), seen, half);
    const open = Math.max(...touch.map((p) => Math.abs(p.u - root.u))) + BEYOND;
    const depth = open / maths.tan(half);
    const block = standing(
      `V-block of ${name}`,
      [
        at(root.u - open, root.v - depth),
        at(root.u, root.v),
        at(root.u + open, root.v - depth),
        at(root.u + open, root.v + jawThickness),
        at(root.u - open, root.v + jawThickness),
      ],
      top - jawHeight,
      top,
    );
    const jawFrom = seen.wide / 2 - params.off - params.jawWidth / 2;
    const moving = standing(
      `Moving jaw of ${name}`,
      rect(jawFrom, jawFrom + params.jawWidth, -jawThickness, 0),
      top - jawHeight,
      top,
    );
    const flat = longestFlat(work.outline);
    const onJaw =
      flat &&
      Math.abs(flat.into.x * ahead.x + flat.into.y * ahead.y) > 0.9999 &&
      flat.into.x * ahead.x + flat.into.y * ahead.y > 0;
    const contact = (what: string, u: number, v: number, into: Point, along: Point, reach: number): Contact => {
      const p = at(u, v);
      return {
        ...{ name: what, into, low: bottom, high: top },
        from: { x: p.x - along.x * reach, y: p.y - along.y * reach },
        to: { x: p.x + along.x * reach, y: p.y + along.y * reach },
      };
    };
    const side = { x: ahead.y, y: -ahead.x };
    const inVee = touch.map((p, k) => {
      const sign = k ? -1 : 1;
      const into = {
        x: sign * maths.cos(half) * side.x - maths.sin(half) * ahead.x,
        y: sign * maths.cos(half) * side.y - maths.sin(half) * ahead.y,
      };
      return contact(block.name, p.u, p.v, into, { x: -into.y, y: into.x }, TOUCH);
    });
    const pressed =
      flat && onJaw
        ? [{ name: moving.name, from: flat.from, to: flat.to, into: ahead, low: bottom, high: top }]
        : [contact(moving.name, root.u, 0, ahead, side, TOUCH)];
    return {
      bodies: [block, moving],
      fixed: block,
      moves: moving,
      contacts: [...inVee, ...pressed],
      strength: inVeeStrength(params, half, Math.max(deep, seen.wide), top),
      under: { what: 'parallels', height: jawHeight - grip },
      findings: [
        ...viseFindings(params, seen, name),
        ...(flat && !onJaw ? [finding('flat-not-on-jaw', { name, long: flat.long }, { field: 'fixedJaw' })] : []),
      ],
    };
  },
};

/** A V presses twice, each face with F/(2·sin(α/2)): slips at μ·F·(1 + 1/sin(α/2)). Statics of a wedge. */
function inVeeStrength({ force, friction, grip }: VBlockParams, half: number, wide: number, top: number): Strength {
  const plain = jawStrength(force * 1000, friction, grip, wide, top);
  const slip = friction * force * 1000 * (1 + 1 / maths.sin(half));
  return {
    ...plain,
    slip,
    lift: slip,
    working: [
      `Slips at μ·F·(1 + 1/sin ${formatNumber((half * 180) / Math.PI, 0)}°) = ${formatNumber(slip / 1000, 2)} kN`,
      plain.working[1],
    ],
  };
}
