/** The job that cuts a setup’s soft jaws: their pocket, with relief in its corners. */
import { newJob } from '../document/new';
import { Job, Setup } from '../document/job';
import { Chain, Vertex, circle, flatten } from '../geometry/plane/chain';
import { fitArcs } from '../geometry/plane/arcfit';
import { Ring, offset, ringArea, union } from '../geometry/plane/clip';
import { Point, boundsOf } from '../geometry/plane/point';
import { SoftJawParams, blanksFor, softJaws } from '../holding/soft-jaws';
import { WorkSide } from '../holding/towards';
import { Feature, Shape } from '../part/plate/feature';
import { newFeature } from '../part/plate/new';
import { partModel } from '../part/plate/model';
import { groundOf } from '../plan/ground';
import { maths } from '../quantity/maths';

/** Corners sharper than this want relief, radians. */
const SHARP = Math.PI / 9;

/** Direction in which a piece of a chain begins or ends. */
function heading(a: Vertex, b: Point, end: 'start' | 'end'): number {
  const chord = maths.atan2(b.y - a.y, b.x - a.x);
  const half = 2 * maths.atan(a.bulge);
  return end === 'start' ? chord - half : chord + half;
}

/** Corners of an outline that point outwards: a pocket of the same outline has them as inside corners. */
function sharpCorners({ vertices }: Chain): Point[] {
  const n = vertices.length;
  return vertices.filter((v, i) => {
    const before = vertices[(i + n - 1) % n];
    const into = heading(before, v, 'end');
    const out = heading(v, vertices[(i + 1) % n], 'start');
    const turn = maths.atan2(maths.sin(out - into), maths.cos(out - into));
    return turn > SHARP;
  });
}

/** The corner of the blanks that stands still with the fixed jaw. */
const STILL: Record<WorkSide, Setup['zero']['point']> = {
  back: 'back left',
  front: 'front left',
  left: 'front left',
  right: 'front right',
};

const outside = (region: Ring[]): Ring | undefined =>
  [...region].sort((a, b) => Math.abs(ringArea(b)) - Math.abs(ringArea(a)))[0];

/**
 * A job of its own for the jaws a setup is held in: the blanks as they stand closed on their gap, the pocket of the work’s outline with its
 * clearance as deep as they grip, with relief round its corners; its route is still to be proposed. Its zero is the outer corner of the fixed jaw, left as
 * one looks at it from above: the setup can use the same.
 * @returns undefined where the setup has no soft jaws, or its work no outline
 */
export function softJawsJob(job: Job, setup: Setup): Job | undefined {
  const holding = setup.holding?.find((h) => h.kind === softJaws.kind);
  const { work } = groundOf(job, setup, partModel);
  const around = outside(work.outline);
  if (!holding || !around) return undefined;
  const params = holding.params as unknown as SoftJawParams;
  const blanks = boundsOf(blanksFor(params, work).flatMap((b) => b.at));
  const to = { x: -blanks.minX, y: -blanks.minY };
  const [width, height] = [blanks.maxX - blanks.minX, blanks.maxY - blanks.minY];
  const features: Feature[] = [];
  const add = (meaning: Feature['meaning'], name: string, shape: Shape, more: Partial<Feature>) =>
    features.push(newFeature(features, meaning, name, shape, more));
  add('outline', 'Jaws', { type: 'rectangle', width, height, radius: 0 }, { x: width / 2, y: height / 2 });
  const corners = params.relief > 0 ? sharpCorners(fitArcs(around)) : [];
  const relieved = union(
    offset([around], params.clearance),
    corners.map((p) => flatten(circle(p.x, p.y, params.relief / 2), 0.001)),
  );
  const pocket = fitArcs(outside(relieved) ?? around);
  add('pocket', 'Pocket', { type: 'chain', ...pocket }, { ...to, depth: params.grip });
  const { machine, controllerId, controller, tools, unit, boldness, output } = job;
  const jaws = newJob(`${job.name}, soft jaws`.slice(0, 120), unit);
  const [own] = jaws.setups;
  const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };
  return {
    ...{ ...jaws, machine, controllerId, controller, tools, boldness, output },
    note: `Soft jaws for “${job.name}”, ${setup.name}. Closed on a gap of ${params.gap} mm with something between them, below the pocket.`,
    part: { kind: 'plate', thickness: params.jawHeight, features },
    setups: [
      {
        ...own,
        name: 'Soft jaws',
        stock: { ...own.stock, ...flush },
        zero: { on: 'part', point: STILL[params.fixedJaw], height: 'top' },
        workOffset: setup.workOffset,
        riser: Math.max(0, setup.riser - (params.jawHeight - params.grip)),
      },
    ],
  };
}
