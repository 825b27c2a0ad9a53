import type { Controller } from '../../shop/controller';
import { Feed } from './feed';
import { Told } from './told';
import { Word } from './words';

/** What is known of the machine’s tools. */
export interface KnownTools {
  /** Of a two-axis machine: the tool its beam is. */
  beam?: { tool: number };
  /** Numbers of the tools that cut turning to the left, where the tools are known. */
  leftHanded?: Set<number>;
  /** The control it is read for, where that is known. */
  control?: Controller;
}

/** The tool in the spindle, whether it turns and how, and whether its length is taken into account; what is wrong with that in a cut. */
export class Tooling {
  /** Number of the tool in the spindle, 0 for none. */
  tool = 0;
  /** The tool that was named last. */
  pending = 0;
  rpm = 0;
  isOn = false;
  readonly tools: number[] = [];
  private turnsLeft = false;
  /** Whether tools change at M6; where it never comes, T itself is a change by hand. */
  private changesByWord = false;
  private hasLength = false;
  private usesLengths = false;
  /** Lines of the first cuts of tools whose length was not taken into account. */
  private readonly withoutLength = new Map<number, number>();

  constructor(
    private readonly told: Told,
    private readonly feed: Feed,
    private readonly known: KnownTools,
  ) {
    if (known.beam) this.tool = this.pending = known.beam.tool;
  }

  /** Whether a tool was named that no word changes to. */
  get waitsForHand(): boolean {
    return !this.changesByWord && this.pending !== this.tool;
  }

  /** @param byWord whether a word asks for it */
  change(byWord: boolean): void {
    this.changesByWord ||= byWord;
    if (this.pending === 0) this.told.report('no-tool-number', {}, `m6:${this.told.line}`);
    this.tool = this.pending;
    this.hasLength = false;
    if (!this.tools.includes(this.tool)) this.tools.push(this.tool);
  }

  /** M3 and M4. */
  turn(code: number): void {
    this.turnsLeft = code === 4;
  }

  takeLength(words: Word[]): void {
    const h = words.find((w) => w.letter === 'H')?.value;
    this.hasLength = this.usesLengths = true;
    if (h !== undefined && h !== this.tool && this.tool > 0)
      this.told.report('other-length', { tool: this.tool, h }, `length:${this.told.line}`);
  }

  dropLength(): void {
    this.hasLength = false;
  }

  /** What is wrong with it as a cut begins. */
  checkCut(): void {
    const { told, tool } = this;
    if (!this.isOn) told.report('spindle-off', {}, `spindle:${tool}`);
    else if (!this.known.beam) {
      this.checkTurn();
      this.checkFeed();
    }
    if (tool > 0 && !this.hasLength && !this.withoutLength.has(tool)) this.withoutLength.set(tool, told.line);
  }

  /** A feed that nobody could mean at this speed. */
  checkFeed(): void {
    if (this.isOn && !this.known.beam) this.told.tell(this.feed.odd(this.rpm), `odd:${this.feed.value}`);
  }

  private checkTurn(): void {
    const { told, tool, turnsLeft } = this;
    if (this.rpm <= 0) told.report('no-speed', {}, `speed:${tool}`);
    const { leftHanded } = this.known;
    if (leftHanded && tool > 0 && leftHanded.has(tool) !== turnsLeft)
      told.report('wrong-turn', { tool, toLeft: turnsLeft }, `turn:${tool}`);
  }

  /** Tells, the program read, which tools were left without their length. */
  finish(): void {
    if (!this.usesLengths && !this.known.control?.lengthOffsets) return;
    const isOnlyTool = this.tools.length <= 1;
    for (const [tool, line] of this.withoutLength) {
      this.told.line = line;
      if (this.usesLengths || !isOnlyTool) this.told.report('no-length-offset', { tool }, `length:${tool}`);
      else this.told.report('length-left-out', { tool }, `length:${tool}`);
    }
  }
}
