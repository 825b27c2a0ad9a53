/** Whether the grip holds: what the cut does to the work, and what is left of the walls that something presses on. */
import { Contact, Strength } from '../holding/holding';
import { HOLD_SAFETY } from '../cutting/limits';
import { contains, offset } from '../geometry/plane/clip';
import { Point } from '../geometry/plane/point';
import { FixtureBox, outlineOf } from '../geometry/space/box';
import { sideForce } from '../holding/held';
import { Motions } from '../path/motions';
import { Finding, finding } from '../quantity/finding';
import { maths } from '../quantity/maths';
import { radians } from '../quantity/units';
import { Section, sectionAt } from '../program/write/step';
import { Tool, cutsWalls } from '../shop/tool';
import { Samples } from '../simulate/samples';
import type { Stock } from '../stock/stock';

/** Below so many times what acts it gives way. */
const GIVES_WAY = 1;

/** How the work would come out of its grip. */
type Way = 'slip' | 'tip' | 'lift';

/** The worst moment of an operation for the grip. */
export interface Worst {
  operation?: string;
  way: Way;
  /** What acts then, and at how much it would give way there, N. */
  force: number;
  may: number;
  /** may / force. */
  margin: number;
  /** How far above what it would tip about the force acts, mm. */
  arm: number;
  sample: number;
}

export interface GripInput {
  strength: Strength;
  samples: Samples;
  motions: Motions;
  tools: Map<number, Tool>;
  sections: Section[];
}

/** Force up that the helix of a cutter pulls with at most: tangential force × tan of its angle, with the side force for the tangential one. */
const pullOf = (tool: Tool, force: number) => (cutsWalls(tool) ? force * maths.tan(radians(tool.helix)) : 0);

/** The worst moment for the grip of each operation, of all where they are not known. */
export function worstMoments({ strength, samples: s, motions, tools, sections }: GripInput): Worst[] {
  const starts = [...sections].sort((a, b) => a.line - b.line);
  const worst = new Map<string | undefined, Worst>();
  for (let i = 0; i < s.count; i++) {
    const force = s.force[i];
    const tool = tools.get(motions.tool[s.motion[i]]);
    if (!tool || force <= 0) continue;
    const operation = starts[sectionAt(starts, motions.line[s.motion[i]])]?.operationId;
    const at = s.z[i] + s.depth[i] / 2;
    const side = sideForce(strength, at);
    const pull = pullOf(tool, force);
    const lifts = pull > 0 ? strength.lift / pull : Infinity;
    const isLift = lifts < side / force;
    const margin = Math.min(lifts, side / force);
    const known = worst.get(operation);
    if (known && known.margin <= margin) continue;
    const way: Way = isLift ? 'lift' : side < strength.slip ? 'tip' : 'slip';
    const [acts, may] = isLift ? [pull, strength.lift] : [force, side];
    worst.set(operation, { operation, way, force: acts, may, margin, arm: at - strength.about, sample: i });
  }
  return [...worst.values()];
}

const CODES = { slip: 'slips', tip: 'tips', lift: 'lifts' } as const;
const HOW: Record<Way, string> = { slip: 'slip', tip: 'tip', lift: 'lift off' };

/** Operations the grip is too weak for. */
export function gripFindings(worst: Worst[], { samples: s, motions }: GripInput): Finding[] {
  return worst
    .filter((w) => w.margin < HOLD_SAFETY)
    .map(({ operation, way, force, may, margin, arm, sample }) => {
      const motion = s.motion[sample];
      const at = { x: s.x[sample], y: s.y[sample], z: s.z[sample] };
      const place = { operation, motion, line: motions.line[motion], at };
      if (margin >= GIVES_WAY)
        return finding('holds-barely', { how: HOW[way], force, may, margin, safety: HOLD_SAFETY }, place);
      return way === 'tip'
        ? finding(CODES[way], { force, may, margin, arm }, place)
        : finding(CODES[way], { force, may, margin }, place);
    });
}

/** Steps along a contact at which it is looked for metal. */
const LOOKS = 40;

/** Share of each contact behind which there is metal. */
export function contactShares(contacts: Contact[], stock: Stock): number[] {
  return contacts.map(({ from, to, into, low, high }) => {
    const inset = stock.grain * 1.5;
    const z = (low + high) / 2;
    let met = 0;
    for (let k = 0; k < LOOKS; k++) {
      const t = (k + 0.5) / LOOKS;
      const faces = stock.facesAt(
        from.x + (to.x - from.x) * t + into.x * inset,
        from.y + (to.y - from.y) * t + into.y * inset,
      );
      if (faces.some((top, i) => i % 2 === 0 && top >= z && faces[i + 1] <= z)) met++;
    }
    return met / LOOKS;
  });
}

/** How far apart a body is looked at, mm, and how deep in metal it may stand by the grain of the grid. */
const APART = 2;
const TOUCH = 0.3;

/** Where a body stands in metal of the piece; undefined where it stands free. */
function inMetal(body: FixtureBox, stock: Stock): Point | undefined {
  const inner = offset([outlineOf(body)], -(TOUCH + 1.5 * stock.grain));
  const step = Math.max(APART, stock.grain);
  for (let x = Math.max(body.minX, stock.bounds.minX); x <= Math.min(body.maxX, stock.bounds.maxX); x += step)
    for (let y = Math.max(body.minY, stock.bounds.minY); y <= Math.min(body.maxY, stock.bounds.maxY); y += step) {
      const faces = stock.facesAt(x, y);
      const meets = faces.some((top, i) => i % 2 === 0 && top > body.minZ + TOUCH && faces[i + 1] < body.maxZ - TOUCH);
      if (meets && contains(inner, { x, y })) return { x, y };
    }
  return undefined;
}

/** Bodies that stand where there is metal before anything is cut, told by their names. */
export const bodiesInMetal = (bodies: FixtureBox[], stock: Stock, zero: Point): Finding[] => {
  const told = new Set<string>();
  return bodies.flatMap((body) => {
    const at = told.has(body.name) ? undefined : inMetal(body, stock);
    if (!at) return [];
    told.add(body.name);
    return [
      finding(
        'body-in-metal',
        { body: body.name, where: { x: at.x - zero.x, y: at.y - zero.y } },
        { field: 'holding', at },
      ),
    ];
  });
};

/** Less of a contact is worth a look; less of what there was at the start is cut away. */
const LITTLE = 0.5;

/** What jaws and clamps press on, told by the thing that presses: the mean over its contacts. */
export function contactFindings(contacts: Contact[], before: number[], after: number[]): Finding[] {
  const names = [...new Set(contacts.map((c) => c.name))];
  return names.flatMap((jaw) => {
    const own = contacts.map((_, i) => i).filter((i) => contacts[i].name === jaw);
    const mean = (shares: number[]) =>
      own.reduce((sum, i) => sum + shares[i] * lengthOf(contacts[i]), 0) /
      own.reduce((sum, i) => sum + lengthOf(contacts[i]), 0);
    const [share, left] = [mean(before), mean(after)];
    const place = { field: 'holding' };
    if (share === 0) return [finding('jaw-misses', { jaw }, place)];
    if (left < share * LITTLE) return [finding('grip-cut-away', { jaw, left: left / share }, place)];
    return share < LITTLE ? [finding('jaw-meets-little', { jaw, share }, place)] : [];
  });
}

const lengthOf = ({ from, to }: Contact) => maths.hypot(to.x - from.x, to.y - from.y);
