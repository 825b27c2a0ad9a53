import { Nested } from '../quantity/nested';
import { IsArray, IsIn, IsInt, IsNumber, IsString, Length, Max, Min } from 'class-validator';

export const COOLANTS = ['off', 'flood', 'mist', 'air'] as const;
export type Coolant = (typeof COOLANTS)[number];

export class Travel {
  @IsNumber() @Min(1) @Max(20000) x!: number;
  @IsNumber() @Min(1) @Max(20000) y!: number;
  @IsNumber() @Min(1) @Max(20000) z!: number;
}

/** A machine and what it can do. */
export class Machine {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 80) name!: string;
  @IsIn(['mill', 'router', 'lathe']) kind!: 'mill' | 'router' | 'lathe';
  @IsNumber() @Min(0) @Max(200000) minRpm!: number;
  @IsNumber() @Min(1) @Max(200000) maxRpm!: number;
  /** Rated spindle power, kW. */
  @IsNumber() @Min(0.01) @Max(500) power!: number;
  /** Largest spindle torque, N·m; it holds up to the speed where power takes over. */
  @IsNumber() @Min(0.01) @Max(10000) torque!: number;
  /** Largest cutting feed, mm/min. */
  @IsNumber() @Min(1) @Max(200000) maxFeed!: number;
  /** Rapid rate, mm/min. */
  @IsNumber() @Min(1) @Max(200000) rapid!: number;
  /** mm/s². */
  @IsNumber() @Min(1) @Max(50000) acceleration!: number;
  /** How far corners may be rounded at speed, mm. */
  @IsNumber() @Min(0.0005) @Max(1) pathTolerance!: number;
  @Nested(() => Travel) travel!: Travel;
  /** From the spindle nose at the top of its travel down to the table, mm. */
  @IsNumber() @Min(1) @Max(20000) noseToTable!: number;
  /** Share of a stiff machine's depth and width that this one carries, 0.1 to 1. */
  @IsNumber() @Min(0.1) @Max(1) rigidity!: number;
  @IsArray() @IsIn([...COOLANTS], { each: true }) coolants!: Coolant[];
  @IsInt() @Min(1) @Max(400) toolPockets!: number;
  /** Seconds from the last cut of one tool to the first move of the next. */
  @IsNumber() @Min(0) @Max(3600) toolChangeSeconds!: number;
  @IsString() @Length(1, 40) controllerId!: string;
}

/** Power the spindle can give at a speed, kW: torque·n/9549 below the corner speed, rated power above it. */
export const powerAt = (machine: Pick<Machine, 'power' | 'torque'>, rpm: number) =>
  Math.min(machine.power, (machine.torque * rpm) / 9549);

/** Torque the spindle can give at a speed, N·m. */
export const torqueAt = (machine: Pick<Machine, 'power' | 'torque'>, rpm: number) =>
  Math.min(machine.torque, (machine.power * 9549) / Math.max(rpm, 1));
