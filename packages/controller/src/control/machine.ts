/**
 * A simulated machine under its control. It is pure: whoever has it gives it the time and what is pressed; the same seed and the same
 * presses give the same run however finely time is given.
 */
import { Engine, CARRIED, NONE } from './engine';
import { Memory, OVERRIDES, Override, Switch } from './memory';
import { ORIGIN, Place } from './place';
import { blockAt } from './program';

/** What is pressed and entered at a machine: each says why not, where it cannot be. */
export class Machine extends Engine {
  /** Cycle start. */
  start(): string | undefined {
    const { memory } = this;
    if (memory.state === 'running') return 'It runs already';
    if (memory.alarm) return 'An alarm stands: reset first';
    if (memory.switches.door) return 'The door is open';
    const open = (['x', 'y', 'z'] as const).filter((axis) => memory.entered.zero[axis] === undefined);
    if (open.length > 0) return `The zero is not set along ${open.join(', ').toUpperCase()}`;
    if (memory.asks !== undefined) return `T${memory.asks} is asked for: put it in first`;
    if (!memory.current) {
      const block = this.loaded.blocks[memory.block];
      if (!block) return 'The program has nothing to run';
      memory.current = this.legFrom(block.from);
      memory.began = memory.ran;
      memory.turned = this.isTurned;
      this.changed = NONE;
      this.isOther = false;
    }
    memory.state = 'running';
    this.anchor = memory.now;
    this.tell('start', 'Cycle start');
    return undefined;
  }

  /** Whether feed or rapids are not as they are programmed. */
  private get isTurned(): boolean {
    const { feed, rapid } = this.memory.overrides;
    return feed !== 100 || rapid !== 100;
  }

  /** Feed hold. */
  hold(): string | undefined {
    const { memory } = this;
    if (memory.state !== 'running') return 'Nothing runs';
    this.stand();
    memory.state = 'held';
    this.tell('hold', 'Feed hold');
    return undefined;
  }

  /** Back to the start of the program; what was cut stays cut. */
  reset(): string | undefined {
    const { memory } = this;
    if (memory.state === 'running') return 'It runs: hold it first';
    this.endLeg();
    memory.state = 'ready';
    memory.block = 0;
    memory.alarm = memory.asks = undefined;
    this.overloaded = 0;
    this.tell('reset', 'Reset');
    return undefined;
  }

  /** The next start begins at a line, or at the first after it that holds something. */
  startAt(line: number): string | undefined {
    const { memory } = this;
    if (memory.state !== 'ready' && memory.state !== 'done')
      return 'Only a machine that stands ready begins elsewhere: reset first';
    const block = blockAt(this.loaded.blocks, line);
    if (block < 0) return `The program has nothing at line ${line} or after it`;
    memory.block = block;
    memory.state = 'ready';
    return undefined;
  }

  /** A fresh piece on the table. */
  newPiece(): string | undefined {
    const { memory } = this;
    if (memory.current) return 'The program is under way: reset first';
    memory.past = [];
    memory.steps = [];
    memory.lost = ORIGIN;
    // Of this one no time has passed yet.
    memory.began = memory.ran;
    [memory.state, memory.block] = ['ready', 0];
    return undefined;
  }

  /** What it was doing when its power went: it stands at the last block it knows to have run. */
  losePower(): void {
    const { memory, loaded } = this;
    const to = loaded.blocks[memory.block]?.from ?? 0;
    if (!memory.current) return;
    if (to > memory.current.from) memory.past = [...memory.past, { ...memory.current, to }];
    memory.current = memory.asks = undefined;
    this.raise(this.alarm(41, `while line ${this.line} ran`));
  }

  /** Turns a switch. */
  turn(which: Switch, on: boolean): string | undefined {
    const { memory } = this;
    // Another program is another tape.
    if (which === 'blockSkip' && (memory.current || memory.past.length > 0))
      return 'What is cut was cut with it: put on a new piece first';
    memory.switches = { ...memory.switches, [which]: on };
    this.tell('switch', `${SWITCH_WORDS[which]} ${on ? 'on' : 'off'}`);
    if (which === 'door' && on && memory.state === 'running') this.hold();
    return undefined;
  }

  /** Turns an override, percent. */
  override(which: Override, percent: number): string | undefined {
    const steps: readonly number[] = OVERRIDES[which];
    if (!steps.includes(percent)) return `${which} goes in steps: ${steps.join(', ')} %`;
    const { memory } = this;
    if (memory.overrides[which] === percent) return undefined;
    if (memory.state === 'running') this.stand();
    memory.overrides = { ...memory.overrides, [which]: percent };
    memory.turned ||= this.isTurned;
    this.tell('override', `${OVERRIDE_WORDS[which]} ${percent} %`);
    return undefined;
  }

  /** Puts a tool into the spindle where one is asked for, or a new one, with fresh edges, in the place of one that wore or broke. */
  putIn(tool: number): string | undefined {
    const { memory } = this;
    if (memory.state === 'running') return 'It runs: hold it first';
    if (!this.loaded.character.tools.has(tool)) return `There is no T${tool} for this job`;
    const asked = memory.asks ?? tool;
    const before = memory.spindle[asked];
    const spindle = { ...memory.spindle, [asked]: tool };
    if (asked === tool) delete spindle[asked];
    memory.spindle = spindle;
    const isNew = memory.asks === undefined || memory.fates[tool]?.brokeAt !== undefined;
    if (isNew) {
      delete memory.fates[tool];
      memory.renewed = { ...memory.renewed, [tool]: (memory.renewed?.[tool] ?? 0) + 1 };
    }
    if (memory.asks !== undefined) this.changed = this.motion;
    const isOther = before !== memory.spindle[asked];
    memory.asks = undefined;
    if (memory.state === 'tool') memory.state = 'held';
    this.tell('tool', `${isNew ? 'A new ' : ''}T${tool} was put in${asked === tool ? '' : ` for T${asked}`}`);
    if (isOther || isNew) this.changeUnderWay();
    return undefined;
  }

  /** Enters a length register, mm. */
  enterLength(register: number, mm: number): string | undefined {
    return this.enter({ lengths: { ...this.memory.entered.lengths, [register]: mm } }, `H${register} ${mm.toFixed(3)}`);
  }

  /** Enters the zero, as the machine counts, mm. */
  enterZero(zero: Partial<Place>): string | undefined {
    const words = Object.entries(zero).map(([axis, mm]) => `${axis.toUpperCase()} ${mm.toFixed(3)}`);
    return this.enter({ zero: { ...this.memory.entered.zero, ...zero } }, `Zero ${words.join(' ')}`);
  }

  /** Tries it so high above the part, mm; 0 for the real thing. */
  liftBy(mm: number): string | undefined {
    return this.enter({ lift: mm }, mm === 0 ? 'At the part' : `Dry run ${mm} mm above the part`);
  }

  private enter(entered: Partial<Memory['entered']>, text: string): string | undefined {
    const { memory } = this;
    if (memory.state === 'running') return 'It runs: nothing is entered now';
    memory.entered = { ...memory.entered, ...entered };
    this.tell('entered', text);
    this.changeUnderWay();
    return undefined;
  }

  /** What was changed while the program waits counts from where it stands. */
  private changeUnderWay(): void {
    const { prepared: p, memory } = this;
    if (!memory.current) return;
    const { from } = memory.current;
    // Not begun with what was entered before: it begins with this too.
    if (!p) return void (memory.current = this.legFrom(from));
    const isChange = this.changed === this.motion;
    const source = p.tape.source[this.motion] ?? -1;
    this.split(isChange ? (source < 0 ? from : source) : Math.max(from, this.nextOf(p)));
    // The change was made: only its place in the tape is another.
    if (isChange) this.changed = CARRIED;
  }
}

const SWITCH_WORDS: Record<Switch, string> = {
  singleBlock: 'Single block',
  optionalStop: 'Optional stop',
  blockSkip: 'Block skip',
  door: 'Door open',
};
const OVERRIDE_WORDS: Record<Override, string> = { feed: 'Feed', rapid: 'Rapid', speed: 'Spindle' };
