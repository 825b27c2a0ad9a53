/** What is pressed, turned and entered at a machine, as it is sent to it. */
import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { hashOf, normalFrom, randomFrom } from '@tidypath/core';
import type { Machine } from './machine';
import { OVERRIDES, Override, SWITCHES, Switch } from './memory';

export const PRESSES = [
  'start',
  'hold',
  'reset',
  'new piece',
  'switch',
  'override',
  'put in',
  'enter length',
  'touch length',
  'touch zero',
  'lift',
  'start at',
] as const;

const TURNED = [...SWITCHES, ...(Object.keys(OVERRIDES) as Override[])];

/** One press, with what it wants of the rest. */
export class Press {
  @IsIn(PRESSES) press!: (typeof PRESSES)[number];
  /** The switch or the override that is turned. */
  @IsOptional() @IsIn(TURNED) which?: Switch | Override;
  @IsOptional() @IsBoolean() on?: boolean;
  /** Percent of an override, number of a tool or register, or a line. */
  @IsOptional() @IsInt() @Min(0) @Max(99_999_999) n?: number;
  /** Length that is entered, or height above the part, mm. */
  @IsOptional() @IsNumber() @Min(-2000) @Max(2000) mm?: number;
  @IsOptional() @IsIn(['x', 'y', 'z']) axis?: 'x' | 'y' | 'z';
  /** What really is under the tip or round the finder when it touches, and what the control is told of it, mm. */
  @IsOptional() @IsNumber() @Min(-500) @Max(500) under?: number;
  @IsOptional() @IsNumber() @Min(-500) @Max(500) told?: number;
}

/** How well a hand feels the touch, mm. */
const FEELS = 0.003;

/** Error of a touch: what was told wrong, and the hand's. */
function missed(machine: Machine, { under = 0, told = 0 }: Press, what: string): number {
  const seed = parseInt(hashOf([machine.loaded.work.seed, what, machine.memory.now]).slice(0, 6), 36);
  return under - told + FEELS * normalFrom(randomFrom(seed))();
}

/** Touches a tool off: its register takes what the control makes of it. */
function touchLength(machine: Machine, press: Press): string | undefined {
  const own = machine.lengthOf(press.n ?? 0);
  if (own === undefined) return `There is no T${press.n ?? 0} for this job`;
  return machine.enterLength(press.n!, own + missed(machine, press, `H${press.n}`));
}

/** Touches the work off along an axis; along Z with a tool, whose register counts. */
function touchZero(machine: Machine, press: Press): string | undefined {
  const { axis, n = 0 } = press;
  if (!axis) return 'Say along which axis';
  const { character } = machine.loaded;
  const own = machine.lengthOf(n);
  if (axis === 'z' && own === undefined) return 'Say with which tool';
  const off = axis === 'z' ? own! - (machine.memory.entered.lengths[n] ?? 0) : 0;
  return machine.enterZero({ [axis]: character.zero[axis] + off + missed(machine, press, axis) });
}

const isOverride = (which: string | undefined): which is Override => !!which && which in OVERRIDES;

/**
 * Does what was pressed.
 * @returns why not, where it cannot be
 */
export function press(machine: Machine, one: Press): string | undefined {
  const { which, on = false, n = 0, mm = 0 } = one;
  switch (one.press) {
    case 'start':
      return machine.start();
    case 'hold':
      return machine.hold();
    case 'reset':
      return machine.reset();
    case 'new piece':
      return machine.newPiece();
    case 'switch':
      return which && !isOverride(which) ? machine.turn(which, on) : 'Say which switch';
    case 'override':
      return isOverride(which) ? machine.override(which, n) : 'Say which override';
    case 'put in':
      return machine.putIn(n);
    case 'enter length':
      return machine.enterLength(n, mm);
    case 'touch length':
      return touchLength(machine, one);
    case 'touch zero':
      return touchZero(machine, one);
    case 'lift':
      return machine.liftBy(mm);
    case 'start at':
      return machine.startAt(n);
  }
}
