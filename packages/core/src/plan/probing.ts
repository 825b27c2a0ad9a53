/** Finding the zero of a setup, told for a hand with an edge finder, and as a program for a machine with a probe. */
import type { Job, Setup } from '../document/job';
import { partModel } from '../part/plate/model';
import { MM_PER_INCH, formatLength } from '../quantity/units';
import { numberText, plainText, remark } from '../program/write/blocks';
import { safeName } from '../program/write/step';
import type { Controller } from '../shop/controller';
import { groundOf } from './ground';
import { controllerOf } from './pipeline';
import { ROOM, Touch, touchesOf } from './touch';

/** An edge finder's ball where nothing is said of one, mm. */
const USUAL = 6;
/** How far the zero may have been set wrong by hand, mm: so far beyond a face it still looks for it. */
const ROUGH = 3;
/** Feeds: down beside the work, to the first touch, to the second, mm/min. */
const FEEDS = { down: 600, first: 120, second: 30 } as const;
/** Back from the first touch, mm. */
const BACK = 1;
/** Of the program, where a control wants one. */
const NUMBER = '9000';

/**
 * How the zero is found by hand, a line a face; empty where it is not found from the stock.
 */
export function zeroByHand(job: Job, setup: Setup): string[] {
  const found = touchesOf(groundOf(job, setup, partModel), job.machine.probeBall || USUAL);
  if (!found) return [];
  const mm = (v: number) => formatLength(v, job.unit);
  const of = setup.workOffset;
  const lines = found.touches.map(({ axis, face, at, way }) =>
    axis === 'z'
      ? `Z: the top of the stock is Z ${mm(at)} in ${of}: touch it with a tool whose length is set.`
      : `${axis.toUpperCase()}: the ${face} face of the stock is ${axis.toUpperCase()} ${mm(at)} in ${of}; with an edge finder against it the spindle stands its radius ${way > 0 ? 'less' : 'more'}.`,
  );
  const blocked = found.blocked.map((face) => `The ${face} face of the stock is not free to be touched.`);
  return [...lines, ...blocked];
}

/** Its control, where it and the machine can find a zero by themselves. */
function proberOf(job: Job): Controller | undefined {
  const controller = controllerOf(job);
  return controller?.probe && (job.machine.probeBall ?? 0) > 0 ? controller : undefined;
}

class ProbeProgram {
  readonly lines: string[] = [];
  private readonly r: number;
  constructor(
    private readonly job: Job,
    private readonly setup: Setup,
    private readonly controller: Controller,
    /** Height at which all is free, work coordinates, mm. */
    private readonly clear: number,
  ) {
    this.r = (job.machine.probeBall ?? USUAL) / 2;
  }

  private n(mm: number): string {
    const { decimals } = this.controller;
    return this.job.unit === 'mm' ? numberText(mm, decimals.mm) : numberText(mm / MM_PER_INCH, decimals.inch);
  }
  private f = (mmPerMin: number) =>
    numberText(this.job.unit === 'mm' ? mmPerMin : mmPerMin / MM_PER_INCH, this.controller.decimals.feed);
  private say = (text: string) => this.lines.push(remark(this.controller, text));

  /** Touches twice, the second time slowly, and says what stands there. */
  private touch({ axis, at, way }: Touch, value: number): void {
    const { touch, zero } = this.controller.probe!;
    const A = axis.toUpperCase();
    const beyond = this.n(at + way * ROUGH);
    const offset = Number(this.setup.workOffset.slice(1)) - 53;
    this.lines.push(
      `${touch} ${A}${beyond} F${this.f(FEEDS.first)}`,
      `G1 ${A}${this.n(value - way * (ROUGH + BACK))} F${this.f(FEEDS.down)}`,
      `${touch} ${A}${beyond} F${this.f(FEEDS.second)}`,
      zero.replace('{offset}', String(offset)).replace('{axis}', A).replace('{value}', this.n(value)),
    );
  }

  private top(t: Touch): void {
    const { x, y } = t.place;
    this.say('Z from the top');
    this.lines.push(`G0 X${this.n(x)} Y${this.n(y)}`, `G0 Z${this.n(t.at + ROOM.before)}`);
    this.touch(t, t.at);
    this.lines.push(`G0 Z${this.n(this.clear)}`);
  }

  private side(t: Touch): void {
    const { axis, at, way, place } = t;
    const A = axis.toUpperCase();
    const start = at - way * (ROOM.before + this.r);
    const [x, y] = axis === 'x' ? [start, place.y] : [place.x, start];
    this.say(`${A} from the ${t.face}`);
    this.lines.push(`G0 X${this.n(x)} Y${this.n(y)}`, `G1 Z${this.n(place.z)} F${this.f(FEEDS.down)}`);
    // Against the face its middle stands its radius before it.
    this.touch(t, at - way * this.r);
    this.lines.push(`G1 ${A}${this.n(start)} F${this.f(FEEDS.down)}`, `G0 Z${this.n(this.clear)}`);
  }

  write(touches: Touch[]): string {
    const { controller, setup, job } = this;
    const { machine } = job;
    const plain = plainText(`Zero of ${setup.name}`);
    const name = controller.comment.upperCase ? plain.toUpperCase() : plain;
    const frame = (lines: string[]) => lines.map((line) => line.replace('{number}', NUMBER).replace('{name}', name));
    const ball = formatLength(2 * this.r, job.unit);
    this.lines.push(...frame(controller.frame.open));
    this.say(`Sets ${setup.workOffset} by touch: set it by hand within ${formatLength(ROUGH, job.unit)} first`);
    this.say(`Probe with a ball of ${ball} in the spindle, switched on`);
    this.say('A finger on hold: nobody has proved this');
    this.lines.push(controller.units[job.unit], ...controller.safeStart, 'M5', ...controller.retreat);
    if (controller.toolChange === 'automatic' && machine.probePocket) this.lines.push(`T${machine.probePocket} M6`);
    const withLength = controller.lengthOffsets && machine.probePocket;
    this.lines.push(
      `${setup.workOffset} G0 X${this.n(touches[0].place.x)} Y${this.n(touches[0].place.y)}`,
      `${withLength ? `G43 H${machine.probePocket} ` : 'G0 '}Z${this.n(this.clear)}`,
    );
    for (const t of touches) {
      if (t.axis !== 'z') this.side(t);
      // What it measures of its own length is no length of a tool.
      else if (withLength) this.top(t);
    }
    this.lines.push(...controller.retreat, ...frame(controller.frame.close));
    return `${this.lines.join('\n')}\n`;
  }
}

/**
 * A program that sets the zero of a setup with a probe; undefined where it cannot be found so.
 * Its moves are told in the zero that was set by hand, which may be a little off; no proof sees what was set.
 */
export function zeroProgram(job: Job, setup: Setup): { fileName: string; text: string } | undefined {
  const controller = proberOf(job);
  if (!controller) return undefined;
  const ground = groundOf(job, setup, partModel);
  const found = touchesOf(ground, job.machine.probeBall!);
  if (!found || found.touches.length === 0) return undefined;
  const text = new ProbeProgram(job, setup, controller, ground.clearance - ground.zero.z).write(found.touches);
  return { fileName: `${safeName(`zero ${setup.name}`)}.${controller.fileExtension}`, text };
}
