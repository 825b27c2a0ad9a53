/** A program for a touch probe, as a control with the words for it takes it. */
import type { Point } from '../geometry/plane/point';
import type { Job, Setup } from '../document/job';
import { MM_PER_INCH, formatLength } from '../quantity/units';
import { numberText, plainText, remark } from '../program/write/blocks';
import { safeName } from '../program/write/step';
import type { Controller } from '../shop/controller';
import { controllerOf } from './pipeline';
import { ROUGH } from './touch';

/** Feeds: beside the work, to the first touch, to the second, mm/min. */
const FEEDS = { beside: 600, first: 120, second: 30 } as const;
/** Back from the first touch, mm. */
export const BACK = 1;
/** Of the program, where a control wants one. */
const NUMBER = '9000';

type Axis = 'x' | 'y' | 'z';

/** A program as it is saved. */
export interface ProbeFile {
  fileName: string;
  text: string;
}

/** Its control, where it and the machine can probe. One that counts lengths has to know the probe's, or it runs it into the work. */
export function proberOf(job: Job): Controller | undefined {
  const controller = controllerOf(job);
  const { probeBall = 0, probePocket = 0 } = job.machine;
  const knows = !controller?.lengthOffsets || probePocket > 0;
  return controller?.probe && probeBall > 0 && knows ? controller : undefined;
}

/** Writes such a program, block by block; places in work coordinates, mm. */
export class Probe {
  readonly lines: string[] = [];
  /** Radius of its ball. */
  readonly r: number;

  /** @param clear height at which all is free */
  constructor(
    private readonly job: Job,
    private readonly setup: Setup,
    readonly controller: Controller,
    private readonly clear: number,
  ) {
    this.r = job.machine.probeBall! / 2;
  }

  private n(mm: number): string {
    const { decimals } = this.controller;
    return this.job.unit === 'mm' ? numberText(mm, decimals.mm) : numberText(mm / MM_PER_INCH, decimals.inch);
  }
  private f = (mmPerMin: number) =>
    numberText(this.job.unit === 'mm' ? mmPerMin : mmPerMin / MM_PER_INCH, this.controller.decimals.feed);

  say(text: string): void {
    this.lines.push(remark(this.controller, text));
  }

  /** Over a place, where all is free. */
  over({ x, y }: Point): void {
    this.lines.push(`G0 X${this.n(x)} Y${this.n(y)}`);
  }

  /** Down or along, slowly enough to be stopped. */
  to(axis: Axis, at: number): void {
    this.lines.push(`G1 ${axis.toUpperCase()}${this.n(at)} F${this.f(FEEDS.beside)}`);
  }

  up(): void {
    this.lines.push(`G0 Z${this.n(this.clear)}`);
  }

  /**
   * Touches a face twice, the second time slowly.
   * @param stands where the ball's middle, along Z its lower end, is when it touches
   */
  touch(axis: Axis, stands: number, way: 1 | -1): void {
    const word = `${this.controller.probe!.touch} ${axis.toUpperCase()}${this.n(stands + way * ROUGH)}`;
    this.lines.push(`${word} F${this.f(FEEDS.first)}`);
    this.to(axis, stands - way * (ROUGH + BACK));
    this.lines.push(`${word} F${this.f(FEEDS.second)}`);
  }

  /** Touches a face, and makes the work offset of where it stands. */
  set(axis: Axis, stands: number, way: 1 | -1): void {
    this.touch(axis, stands, way);
    const offset = String(Number(this.setup.workOffset.slice(1)) - 53);
    const line = this.controller.probe!.zero.replace('{offset}', offset).replace('{axis}', axis.toUpperCase());
    this.lines.push(line.replace('{value}', this.n(stands)));
  }

  /** Stops until somebody goes on. */
  wait(): void {
    this.lines.push('M0');
  }

  /**
   * The program round what it does, from above a place.
   * @param title what it does, in a word
   * @param about what is said first
   */
  file(title: string, about: string[], at: Point, work: () => void): ProbeFile {
    const { controller, setup, job } = this;
    const { probePocket = 0 } = job.machine;
    const plain = plainText(`${title} of ${setup.name}`);
    const name = controller.comment.upperCase ? plain.toUpperCase() : plain;
    const frame = (lines: string[]) => lines.map((line) => line.replace('{number}', NUMBER).replace('{name}', name));
    this.lines.push(...frame(controller.frame.open));
    about.forEach((line) => this.say(line));
    this.say(`Probe with a ball of ${formatLength(2 * this.r, job.unit)} in the spindle, switched on`);
    this.say('A finger on hold: nobody has proved this');
    this.lines.push(controller.units[job.unit], ...controller.safeStart, 'M5', ...controller.retreat);
    if (controller.toolChange === 'automatic' && probePocket > 0) this.lines.push(`T${probePocket} M6`);
    this.lines.push(
      `${setup.workOffset} G0 X${this.n(at.x)} Y${this.n(at.y)}`,
      `${controller.lengthOffsets ? `G43 H${probePocket}` : 'G0'} Z${this.n(this.clear)}`,
    );
    work();
    this.lines.push(...controller.retreat, ...frame(controller.frame.close));
    const fileName = `${safeName(`${title} ${setup.name}`)}.${controller.fileExtension}`;
    return { fileName, text: `${this.lines.join('\n')}\n` };
  }
}
