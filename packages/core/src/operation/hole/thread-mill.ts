import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { circle, flatten } from '../../geometry/plane/chain';
import { Region, contains, difference, distanceToBoundary } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Thread, threadSizes } from '../../cutting/threads';
import { Hole, solidAt } from '../../part/plate/model';
import { Tool, formOf } from '../../shop/tool';
import { centreShare } from './radii';
import { reachFindings, targetFindings, toolFindings } from '../checks';
import { wallBottom } from '../depth';
import { isOpened, notOpened, targetHoles } from './holes';
import { OperationKind, Plan, PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';
import { maths } from '../../quantity/maths';

export class ThreadMillParams {
  @Choice({ label: 'Hand', help: 'Of the thread.', choices: ['right', 'left'] })
  hand!: 'right' | 'left';
  @Choice({
    label: 'Direction',
    help: 'Climb cuts better; with the hand it decides whether the mill goes up or down.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Passes',
    help: 'Radial passes to the full depth of the thread; each takes the same area of chip.',
    unit: 'count',
    min: 1,
    max: 10,
    step: 1,
  })
  passes!: number;
  @Toggle({ label: 'Spring pass', help: 'The last pass once more, for what the mill bent away.' })
  spring!: boolean;
  @Parameter({
    label: 'Full thread',
    help: 'Depth of thread from the top; 0 takes all there is.',
    unit: 'length',
    min: 0,
    max: 400,
    step: 0.5,
  })
  threadDepth!: number;
  @Parameter({
    label: 'Fit',
    help: 'Deeper into the wall by this much a side, until the gauge goes; below zero leaves it tighter.',
    unit: 'length',
    min: -0.3,
    max: 0.5,
    step: 0.01,
  })
  fit!: number;
}

/** A thread with its place: in a hole or around a boss. */
interface Job {
  centre: Point;
  thread: Thread;
  inside: boolean;
  /** Z of where the thread begins and the lowest the mill may go. */
  top: number;
  floor: number;
  through: boolean;
  feature: string;
  hole?: Hole;
}

/** Room a mill keeps above the bottom of a blind hole, mm. */
const BOTTOM_ROOM = 0.2;
/** The way onto the thread and off it is a quarter turn about the thread's axis, so a quarter of the pitch high. */
const QUARTER = 0.25;
/** Room between a boss and a mill that waits beside it, mm. */
const BESIDE = 1;
const HAIR = 0.01;

function jobsOf(context: PlanContext): Job[] {
  const holes = targetHoles(context).flatMap((hole): Job[] =>
    hole.thread
      ? [
          {
            centre: hole.centre,
            thread: hole.thread,
            inside: true,
            top: Math.min(context.top, -(hole.counterbore?.depth ?? 0)),
            floor: hole.through ? -hole.depth - hole.thread.pitch : -hole.depth + BOTTOM_ROOM,
            through: hole.through,
            feature: hole.feature,
            hole,
          },
        ]
      : [],
  );
  const bosses = context.targets.flatMap((target) =>
    context.model.bosses
      .filter((b) => b.feature === target.id)
      .map((b): Job => ({
        ...b,
        inside: false,
        top: Math.min(context.top, -target.depth),
        floor: wallBottom(target, context, 0) + BOTTOM_ROOM,
        through: false,
      })),
  );
  return [...holes, ...bosses];
}

/** Radii of the mill's path for each pass: equal areas of chip, the last at full depth. */
export function threadRadii(
  job: Pick<Job, 'thread' | 'inside' | 'hole'>,
  tool: Tool,
  passes: number,
  fit: number,
): number[] {
  const { major, internalMinor, externalMinor } = threadSizes(job.thread);
  const full = job.inside ? (major - tool.diameter) / 2 + fit : (externalMinor + tool.diameter) / 2 - fit;
  const first = job.inside ? ((job.hole?.diameter ?? internalMinor) - tool.diameter) / 2 : (major + tool.diameter) / 2;
  return Array.from({ length: passes }, (_, i) => first + (full - first) * Math.sqrt((i + 1) / passes));
}

/** Lowest and highest tip of the full turns, and the tips the single turns of a many-toothed mill start from. */
function levels(job: Job, params: ThreadMillParams, tool: Tool): { low: number; high: number; starts: number[] } {
  const { pitch } = job.thread;
  const deepest = job.floor + QUARTER * pitch;
  const low = params.threadDepth > 0 ? Math.max(deepest, job.top - params.threadDepth) : deepest;
  const teeth = tool.kind === 'thread-comb' ? Math.max(1, Math.floor(tool.fluteLength / pitch)) : 1;
  if (teeth === 1) return { low, high: job.top + pitch / 2, starts: [low] };
  const step = Math.max(1, teeth - 1) * pitch;
  const count = Math.max(1, Math.ceil((job.top - low - tool.fluteLength) / step) + 1);
  return { low, high: low + pitch, starts: Array.from({ length: count }, (_, i) => low + i * step) };
}

const pointAt = (centre: Point, radius: number, angle: number): Point => ({
  x: centre.x + radius * maths.cos(angle),
  y: centre.y + radius * maths.sin(angle),
});

/** Directions a way onto a boss is looked for in, and how often the room beside it is halved. */
const [WAYS, HALVED] = [24, 4];

/** What of the part stands at a height beside a boss and its thread. */
const standing = ({ centre, thread }: Job, z: number, { model }: Pick<PlanContext, 'model'>): Region =>
  difference(solidAt(model, z), [flatten(circle(centre.x, centre.y, thread.major / 2 + HAIR), HAIR)]);

const isFree = (around: Region, p: Point, radius: number) =>
  around.length === 0 || (!contains(around, p) && distanceToBoundary(around, p) >= radius - HAIR);

/** Where a mill waits beside a boss: a direction, and the radius of its way onto the thread; undefined where there is no room. */
function waitBeside(job: Job, radius: number, z: number, context: PlanContext) {
  const { tool } = context;
  const around = standing(job, z, context);
  for (let n = 0; n <= HALVED; n++) {
    const by = (tool.diameter / 2) * maths.pow(0.5, n) + BESIDE;
    for (let k = 0; k < WAYS; k++) {
      const angle = (2 * Math.PI * k) / WAYS;
      const ways = [radius + 2 * by, radius + by];
      if (ways.every((r, i) => isFree(around, pointAt(job.centre, r, angle), tool.diameter / 2 + (i ? by : 0))))
        return { angle, by };
    }
  }
  return undefined;
}

class ThreadMiller {
  readonly path: PathBuilder;

  constructor(
    private readonly params: ThreadMillParams,
    private readonly context: PlanContext,
  ) {
    this.path = new PathBuilder(context.budget);
  }

  mill(job: Job): void {
    const { params, context } = this;
    const radii = threadRadii(job, context.tool, params.passes, params.fit);
    if (params.spring) radii.push(radii[radii.length - 1]);
    const { low, high, starts } = levels(job, params, context.tool);
    for (const radius of radii) for (const start of starts) this.turns(job, radius, start, start + high - low);
    this.path.rapid(this.path.x, this.path.y, context.clearance);
  }

  /** Onto the thread by an arc, round and round at its pitch, and off again. */
  private turns(job: Job, radius: number, low: number, high: number): void {
    const { params, context, path } = this;
    const { tool, operation, machine, clearance } = context;
    const { centre, inside, thread } = job;
    const clockwise = (params.direction === 'climb') !== inside;
    const up = (params.hand === 'right') !== clockwise;
    const quarter = QUARTER * thread.pitch * (up ? 1 : -1);
    const turns = Math.max(2, Math.ceil((2 * (high - low)) / thread.pitch - 1e-9));
    // Around a boss it leaves where it came: only there is room known.
    const halves = inside ? turns : 2 * Math.ceil(turns / 2);
    const from = up ? low : low + (halves * thread.pitch) / 2;
    const feed = inside
      ? operation.speeds.feed * centreShare(radius, tool.diameter / 2)
      : Math.min(machine.maxFeed, operation.speeds.feed * (radius / (radius - tool.diameter / 2)));
    const beside = inside ? undefined : waitBeside(job, radius, low, context);
    const away = inside ? 0 : radius + 2 * (beside?.by ?? BESIDE);
    const at = (r: number) => pointAt(centre, r, beside?.angle ?? 0);
    const [wait, middle, onto] = [at(away), at((away + radius) / 2), at(radius)];
    const arcClockwise = inside ? clockwise : !clockwise;
    const start = context.top + context.approach;
    if (!(path.z < clearance)) path.rapid(wait.x, wait.y, clearance);
    path.rapid(path.x, path.y, Math.max(start, from - quarter)).rapid(wait.x, wait.y, path.z);
    path.rapid(wait.x, wait.y, from - quarter);
    path.arc(middle.x, middle.y, onto.x, onto.y, from, arcClockwise, feed, 'lead');
    for (let k = 1; k <= halves; k++) {
      const to = at(k % 2 === 0 ? radius : -radius);
      const z = from + (thread.pitch / 2) * k * (up ? 1 : -1);
      path.arc(centre.x, centre.y, to.x, to.y, z, clockwise, feed, 'cut');
    }
    path.arc(
      (wait.x + path.x) / 2,
      (wait.y + path.y) / 2,
      wait.x,
      wait.y,
      path.z + quarter,
      arcClockwise,
      feed,
      'lead',
    );
    path.rapid(wait.x, wait.y, Math.max(start, path.z));
  }
}

function faults(job: Job, params: ThreadMillParams, context: PlanContext): Finding[] {
  const { tool, operation } = context;
  const { thread, hole, inside } = job;
  const { internalMinor, internalMinorMost } = threadSizes(thread);
  const place = { operation: operation.id, feature: job.feature, tool: tool.id, at: job.centre };
  const found: Finding[] = [];
  const many = tool.kind === 'thread-comb';
  if (many ? Math.abs(tool.pitch - thread.pitch) > 1e-3 : thread.pitch > tool.pitch + 1e-6)
    return [
      finding(
        'other-pitch',
        { tool: tool.name, isComb: many, makes: tool.pitch, thread: thread.name, wanted: thread.pitch },
        { ...place, field: 'toolId' },
      ),
    ];
  if (hole && inside) {
    if (tool.diameter > hole.diameter - 0.2)
      return [
        finding(
          'thread-mill-wide',
          { tool: tool.name, diameter: hole.diameter, at: hole.centre, most: hole.diameter - 0.2 },
          { ...place, field: 'toolId' },
        ),
      ];
    if (hole.diameter < internalMinor - 0.02 || hole.diameter > internalMinorMost + 0.02)
      found.push(
        finding(
          'thread-hole',
          { at: hole.centre, diameter: hole.diameter, thread: thread.name, internalMinor, internalMinorMost },
          place,
        ),
      );
    if (!isOpened(hole, job.floor, context)) found.push(notOpened(hole, context));
  }
  if (!inside) {
    const [first] = threadRadii(job, tool, params.passes, params.fit);
    const { low } = levels(job, params, tool);
    const around = standing(job, low, context);
    const room = around.length ? distanceToBoundary(around, job.centre) : Infinity;
    const wanted = first + tool.diameter / 2;
    if (room < wanted - HAIR || !waitBeside(job, first, low, context))
      return [
        finding(
          'thread-no-room',
          { tool: tool.name, thread: thread.name, at: job.centre, room, wanted: wanted + BESIDE },
          { ...place, field: 'toolId' },
        ),
      ];
  }
  const gives = job.top - job.floor - QUARTER * thread.pitch;
  if (!job.through && params.threadDepth > gives + 1e-6)
    found.push(
      finding(
        'thread-too-deep',
        { threadDepth: params.threadDepth, room: Math.max(0, gives) },
        { ...place, field: 'params.threadDepth' },
      ),
    );
  if (thread.form !== 60)
    found.push(finding('thread-form', { thread: thread.name, form: thread.form, tool: tool.name }, place));
  return [...found, ...reachFindings(context, context.top - job.floor, 0)];
}

function plan(params: ThreadMillParams, context: PlanContext): Plan {
  const miller = new ThreadMiller(params, context);
  const findings = [...toolFindings(context, threadMill.suits), ...targetFindings(context, threadMill.works)];
  const jobs = findings.some((f) => f.level === 'stop') ? [] : jobsOf(context);
  for (const target of context.targets)
    if (findings.length === 0 && !jobs.some((j) => j.feature === target.id))
      findings.push(
        finding(
          'feature-no-thread',
          { feature: target.name },
          {
            operation: context.operation.id,
            feature: target.id,
            field: 'targets',
          },
        ),
      );
  for (const job of jobs) {
    const found = faults(job, params, context);
    for (const f of found) if (!findings.some((g) => g.code === f.code)) findings.push(f);
    if (!found.some((f) => f.level === 'stop')) miller.mill(job);
  }
  return { path: miller.path.build(), findings };
}

/** Threads inside holes and around bosses, with one tooth or many, on helices entered and left by arcs. */
export const threadMill: OperationKind<ThreadMillParams> = {
  kind: 'thread-mill',
  title: 'Mill threads',
  verb: 'Thread',
  process: 'milling',
  stage: 'threads',
  leavesSizes: true,
  works: ['hole', 'boss'],
  takesHeights: 'start',
  suits: (tool) => formOf(tool) === 'thread',
  Params: ThreadMillParams,
  usesEarlier: () => true,
  defaults: ({ material }) => ({
    hand: 'right',
    direction: 'climb',
    passes: material.kc11 > 1500 ? 2 : 1,
    spring: false,
    threadDepth: 0,
    fit: 0,
  }),
  bite: (p, tool) => {
    const height = 0.6134 * tool.pitch;
    return { ae: height / Math.sqrt(p.passes), ap: Math.min(tool.fluteLength, 4 * tool.pitch), peakAe: height };
  },
  plan,
};
