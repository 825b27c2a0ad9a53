import { ListOf, Nested } from '../quantity/nested';
import { IsArray, IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { Axes } from './axes';
import { Choice, Parameter, Words } from '../quantity/parameter';

export const COOLANTS = ['off', 'flood', 'mist', 'air', 'through'] as const;
export type Coolant = (typeof COOLANTS)[number];

/** A point of the spindle's power curve. */
export class SpindlePoint {
  @IsNumber() @Min(1) @Max(200000) rpm!: number;
  @IsNumber() @Min(0.001) @Max(500) kW!: number;
}

/** Which tool of the rack stands in which pocket of this machine. */
export class CarouselPlace {
  @IsInt() @Min(1) @Max(999) pocket!: number;
  @IsString() @Length(1, 40) toolId!: string;
}

/** A machine and what it can do. */
export class Machine {
  @IsString() @Length(1, 40) id!: string;
  @Words({ group: 'Machine', label: 'Name', help: 'As people in the shop call it.', min: 1, max: 80 })
  name!: string;
  @Choice({
    group: 'Machine',
    label: 'Kind',
    help: 'What it does.',
    choices: ['mill', 'router', 'lathe', 'sheet cutter'],
  })
  kind!: 'mill' | 'router' | 'lathe' | 'sheet cutter';
  @Words({ group: 'Machine', label: 'Taper', help: 'Of its spindle.', min: 0, max: 40 })
  taper!: string;
  @Parameter({
    group: 'Machine',
    label: 'Rigidity',
    help: 'Share of a stiff machine’s depth and width it carries: desktop 0.2 to 0.35, light mill 0.5, mid-size 0.8, heavy 1.',
    unit: 'share',
    min: 0.1,
    max: 1,
    step: 0.05,
  })
  rigidity!: number;
  @Parameter({
    group: 'Machine',
    label: 'Hourly rate',
    help: 'What an hour of it costs the shop.',
    unit: 'money',
    min: 0,
    max: 10000,
    step: 5,
  })
  hourlyRate!: number;
  @Parameter({
    group: 'Spindle',
    label: 'Slowest',
    help: 'Lowest spindle speed.',
    unit: 'rpm',
    min: 0,
    max: 200000,
    step: 100,
  })
  minRpm!: number;
  @Parameter({
    group: 'Spindle',
    label: 'Fastest',
    help: 'Highest spindle speed.',
    unit: 'rpm',
    min: 1,
    max: 200000,
    step: 500,
  })
  maxRpm!: number;
  /** Power over speed, rising in rpm; straight between points, through zero below the first, level above the last. */
  @ListOf(() => SpindlePoint, 12, 1)
  spindle!: SpindlePoint[];
  @IsOptional()
  @Parameter({
    group: 'Spindle',
    label: 'Continuous power',
    help: 'What it gives for more than three seconds; 0 where that is all of it.',
    unit: 'power',
    min: 0,
    max: 500,
    step: 0.5,
    absent: 0,
  })
  continuousPower?: number;
  @Parameter({
    group: 'Axes',
    label: 'Largest feed',
    help: 'Fastest cutting feed.',
    unit: 'feed',
    min: 1,
    max: 200000,
    step: 100,
  })
  maxFeed!: number;
  @IsOptional()
  @Choice({
    group: 'Axes',
    label: 'Rapids',
    help: 'Straight to the end, or bent: each axis at full speed until it is there.',
    choices: ['straight', 'bent'],
    words: { bent: 'bent, each axis for itself' },
    absent: 'straight',
  })
  rapids?: 'straight' | 'bent';
  @Parameter({
    group: 'Axes',
    label: 'Path tolerance',
    help: 'How far corners may be rounded at speed.',
    unit: 'length',
    min: 0.0005,
    max: 1,
    step: 0.005,
  })
  pathTolerance!: number;
  @Nested(() => Axes) axes!: Axes;
  @Parameter({
    group: 'Axes',
    label: 'Nose to table',
    help: 'From the spindle nose at the top of its travel down to the table.',
    unit: 'length',
    min: 1,
    max: 20000,
    step: 10,
  })
  noseToTable!: number;
  @IsOptional()
  @Parameter({
    group: 'Axes',
    label: 'Nose diameter',
    help: 'Of the spindle where the holder sits, for what it might touch.',
    unit: 'length',
    min: 1,
    max: 1000,
    step: 5,
  })
  noseDiameter?: number;
  @IsOptional()
  @Parameter({
    group: 'Table',
    label: 'Table along X',
    help: 'How long it is; 0 where it is not known.',
    unit: 'length',
    min: 0,
    max: 20000,
    step: 10,
    absent: 0,
  })
  tableX?: number;
  @IsOptional()
  @Parameter({
    group: 'Table',
    label: 'Table along Y',
    help: 'How deep it is; 0 where it is not known.',
    unit: 'length',
    min: 0,
    max: 20000,
    step: 10,
    absent: 0,
  })
  tableY?: number;
  @IsArray() @IsIn([...COOLANTS], { each: true }) coolants!: Coolant[];
  @Parameter({
    group: 'Tools',
    label: 'Tool pockets',
    help: 'Of its carousel; 1 where tools are changed by hand.',
    unit: 'count',
    min: 1,
    max: 400,
    step: 1,
  })
  toolPockets!: number;
  @Parameter({
    group: 'Tools',
    label: 'Tool change',
    help: 'From the last cut of one tool to the first move of the next.',
    unit: 'seconds',
    min: 0,
    max: 3600,
    step: 1,
  })
  toolChangeSeconds!: number;
  @IsOptional()
  @Parameter({
    group: 'Tools',
    label: 'Room to change',
    help: 'How far below the tip of a tool, with the spindle at its top, nothing may stand when tools are changed.',
    unit: 'length',
    min: 0,
    max: 2000,
    step: 5,
    absent: 0,
  })
  changeRoom?: number;
  @IsOptional()
  @Parameter({
    group: 'Axes',
    label: 'Extra time',
    help: 'Share by which real moves take longer than computed: 0.12 is 12 % more.',
    absent: 0,
    unit: 'share',
    min: -0.5,
    max: 2,
    step: 0.01,
  })
  extraTime?: number;
  /** Where that and the seconds of a tool change are from, where the log says so. */
  @IsOptional() @IsString() @Length(0, 200) extraTimeNote?: string;
  /** Of the touch probe it has. */
  @IsOptional()
  @Parameter({
    group: 'Probe',
    label: 'Ball of its touch probe',
    help: 'Across; 0 where it has none.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 1,
    absent: 0,
  })
  probeBall?: number;
  @IsOptional()
  @Parameter({
    group: 'Probe',
    label: 'Pocket of the probe',
    help: 'Its place and its length register; 0 where it is put in by hand, its length unknown.',
    unit: 'count',
    min: 0,
    max: 999,
    step: 1,
    absent: 0,
    matters: (m: Machine) => (m.probeBall ?? 0) > 0,
  })
  probePocket?: number;
  @ListOf(() => CarouselPlace, 400) carousel!: CarouselPlace[];
  @IsString() @Length(1, 40) controllerId!: string;
}

type Spindle = Pick<Machine, 'spindle'>;

/** Power the spindle can give at a speed, kW, along its curve: through zero below the first point, level above the last. */
export function powerAt({ spindle }: Spindle, rpm: number): number {
  const [first] = spindle;
  if (rpm <= first.rpm) return (first.kW * Math.max(0, rpm)) / first.rpm;
  const next = spindle.findIndex((p) => p.rpm >= rpm);
  if (next < 0) return spindle[spindle.length - 1].kW;
  const [a, b] = [spindle[next - 1], spindle[next]];
  return a.kW + ((b.kW - a.kW) * (rpm - a.rpm)) / (b.rpm - a.rpm);
}

/** Torque the spindle can give at a speed, N·m: 9549·P/n. */
export const torqueAt = (machine: Spindle, rpm: number) =>
  (powerAt(machine, Math.max(rpm, 1)) * 9549) / Math.max(rpm, 1);

/** Share of its power a spindle gives for longer: all of it where nothing else is known. */
export const continuousShare = (machine: Spindle & { continuousPower?: number }) =>
  machine.continuousPower ? Math.min(1, machine.continuousPower / ratedPower(machine)) : 1;

/** Largest power of the spindle, kW. */
export const ratedPower = ({ spindle }: Spindle) => Math.max(...spindle.map((p) => p.kW));

/** The pocket a tool stands in on this machine: as its carousel says, else the tool's own number. */
export const pocketOf = (machine: Pick<Machine, 'carousel'>, tool: { id: string; number: number }) =>
  machine.carousel.find((p) => p.toolId === tool.id)?.pocket ?? tool.number;
