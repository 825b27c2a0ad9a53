/** Stands at a simulated machine: gives it the time, prepares what it needs, and tells what it shows. */
import {
  Machine,
  MachineEvent,
  MachineView,
  Measured,
  Memory,
  Press,
  StreamRow,
  type Work,
  freshMemory,
  load,
  measured,
  prepare,
  press,
  sheetLengths,
  viewOf,
  workOf,
} from '@tidypath/controller';
import { Finding, Job, SurfaceView, putAtHand } from '@tidypath/core';

/** What is put on a machine. */
export interface Begin {
  job: Job;
  setupId: string;
  text: string;
  seed: number;
  /** Files the job names. */
  files: Uint8Array[];
  /** What its control remembers from before its power went. */
  memory?: Memory;
  cell?: number;
}

/** How fast its time passes. */
export const PACES = [1, 10, 100] as const;
export type Pace = (typeof PACES)[number];

/** What is told of it. */
export interface Shown {
  view: MachineView;
  memory: Memory;
  /** Since it was told last. */
  events: MachineEvent[];
  rows: StreamRow[];
  pace: Pace;
  /** Whether it works out what it is about to do. */
  isPreparing: boolean;
}

/** The piece as it lies there. */
export interface PieceSeen {
  sizes: Measured[];
  findings: Finding[];
  /** As it is to be seen; nothing where nothing was cut. */
  surface?: SurfaceView;
}

/** Between two looks at the time, ms. */
const BEAT = 200;

export class Operator {
  private machine: Machine;
  private readonly work: Work;
  private readonly beats: ReturnType<typeof setInterval>;
  private last: number;
  private pace: Pace = 1;

  /**
   * @param say hears what it shows
   * @param clock ms, of a clock that only goes forwards
   */
  constructor(
    { job, setupId, text, seed, files, memory, cell }: Begin,
    private readonly say: (shown: Shown) => void,
    private readonly clock: () => number = () => performance.now(),
  ) {
    files.forEach(putAtHand);
    const setup = job.setups.find((s) => s.id === setupId)!;
    const skips = memory?.switches.blockSkip ?? false;
    this.work = workOf(job, setup, text, { seed, skips, cell });
    const loaded = load(this.work);
    const fresh = () => freshMemory({ lengths: sheetLengths(loaded), zero: {}, lift: 0 });
    this.machine = new Machine(loaded, memory ?? fresh(), true);
    if (memory) this.machine.losePower();
    this.last = clock();
    this.beats = setInterval(() => this.beat(), BEAT);
    this.show();
  }

  /** Lets the time pass that has passed since the last look. */
  beat(): void {
    const now = this.clock();
    const passed = ((now - this.last) / 1000) * this.pace;
    this.last = now;
    if (this.machine.memory.state !== 'running') return;
    this.pass(this.machine.memory.now + passed);
    this.show();
  }

  private pass(to: number): void {
    const { machine } = this;
    do {
      const { needs } = machine;
      if (needs) {
        this.show(true);
        machine.supply(prepare(machine.loaded, needs));
        // What it took to work it out is no time of the machine.
        this.last = this.clock();
      }
      machine.advance(to);
    } while (machine.needs);
  }

  /** @returns why not, where it cannot be */
  press(one: Press): string | undefined {
    this.beat();
    const refused = press(this.machine, one);
    this.show();
    if (one.press === 'switch' && one.which === 'blockSkip' && !refused) this.reload();
    return refused;
  }

  /** Reads the program anew, with what is skipped or without. */
  private reload(): void {
    const { memory } = this.machine;
    this.machine = new Machine(load({ ...this.work, skips: memory.switches.blockSkip }), memory, true);
    this.show();
  }

  setPace(pace: Pace): void {
    this.beat();
    this.pace = pace;
    this.show();
  }

  /** On to where it stops next. */
  onward(): void {
    if (this.machine.memory.state === 'running') this.pass(Infinity);
    this.show();
  }

  /** Measures the piece, and compares it with what was wanted. */
  piece(): PieceSeen {
    const { machine } = this;
    const { loaded, memory, cut } = machine;
    if (cut.length === 0) return { sizes: [], findings: [] };
    const made = prepare(loaded, cut);
    return { sizes: measured(loaded, cut, memory), findings: made.judged(), surface: made.piece() };
  }

  close(): void {
    clearInterval(this.beats);
  }

  private show(isPreparing = false): void {
    const { machine, pace } = this;
    const told = { events: machine.events(), rows: machine.stream() };
    this.say({ view: viewOf(machine), memory: machine.memory, ...told, pace, isPreparing });
  }
}
