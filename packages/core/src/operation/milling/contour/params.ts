import { IsOptional } from 'class-validator';
import { Feature } from '../../../part/plate/feature';
import { Choice, Parameter, Toggle, Words } from '../../../quantity/parameter';
import { FINISH_ALONE, FINISH_DIRECTION, finishesAlone, FinishDirection, whileClearing } from '../finish';
import { Corners } from '../laps';
import { LeadForm } from '../leads';
import { Tabs } from '../tabs';

/** Meanings of the features a wall is cut along. */
export const WORKS: Feature['meaning'][] = ['outline', 'pocket', 'boss', 'hole', 'edge', 'line'];

export type Side = 'outside' | 'inside' | 'scrap side' | 'left' | 'right' | 'on the line';

const isOpenSide = (p: ContourParams) => ['left', 'right', 'on the line'].includes(p.side);
const isBeside = (p: ContourParams) => p.side !== 'on the line';
const canStartAnywhere = (p: ContourParams) => p.side !== 'left' && p.side !== 'right';

export class ContourParams {
  @Choice({
    label: 'Side',
    help: 'The side of the line the cutter runs on: outside or inside of closed ones, left, right or on it of open ones.',
    choices: ['outside', 'inside', 'scrap side', 'left', 'right', 'on the line'],
  })
  side!: Side;
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better wall; conventional suits machines with backlash.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one layer; layers come out equal.',
    unit: 'length',
    min: 0.02,
    max: 200,
    step: 0.5,
    always: true,
    matters: (p: ContourParams) => !finishesAlone(p) || p.finishAt === 'each layer',
  })
  layer!: number;
  @Parameter({
    label: 'Sideways passes',
    help: 'Laps beside each other, the widest first, where more stands beside the wall than one lap takes.',
    unit: 'count',
    min: 1,
    max: 40,
    step: 1,
    ...whileClearing(),
  })
  passes!: number;
  @Parameter({
    label: 'Stepover',
    help: 'From one sideways pass to the next.',
    unit: 'length',
    min: 0.05,
    max: 100,
    step: 0.5,
    ...whileClearing((p: ContourParams) => p.passes > 1),
  })
  stepover!: number;
  @Parameter({
    label: 'Leave on the wall',
    help: 'Metal left on the wall when all is done.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  wallAllowance!: number;
  @Parameter({
    label: 'Break through',
    help: 'How far below the part it goes where it cuts right through.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  breakthrough!: number;
  @Choice({
    label: 'Descent',
    help: 'How the cutter gets down to each layer.',
    choices: ['ramp', 'plunge'],
  })
  descent!: 'ramp' | 'plunge';
  @Parameter({
    label: 'Ramp angle',
    help: 'Slope of the ramp along the wall; on a round wall it is a helix.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
    matters: (p: ContourParams) => p.descent === 'ramp',
  })
  rampAngle!: number;
  @Toggle({ label: 'Finish pass', help: 'One more lap with a light bite, after all layers.' })
  finish!: boolean;
  @Parameter({
    label: 'For the finish',
    help: 'Metal the layers leave for the finish lap.',
    unit: 'length',
    min: 0.01,
    max: 5,
    step: 0.05,
    matters: (p: ContourParams) => p.finish,
  })
  finishStock!: number;
  @Choice({
    label: 'Finish at',
    help: 'One lap at full depth leaves no steps; a lap a layer bends the cutter less.',
    choices: ['full depth', 'each layer'],
    matters: (p: ContourParams) => p.finish,
  })
  finishAt!: 'full depth' | 'each layer';
  @Toggle({
    label: 'Spring pass',
    help: 'The finish lap once more at the same size, for what the cutter bent away.',
    matters: (p: ContourParams) => p.finish,
  })
  spring!: boolean;
  @Choice({
    label: 'Lead',
    help: 'How it comes onto the wall: an arc that touches it, a straight at an angle, or the wall’s own line drawn longer.',
    choices: ['arc', 'line', 'tangent'],
    matters: isBeside,
  })
  leadForm!: LeadForm['form'];
  @Parameter({
    label: 'Lead size',
    help: 'Radius of the arc, or length of the straight.',
    unit: 'length',
    min: 0.1,
    max: 100,
    step: 0.5,
    matters: isBeside,
  })
  lead!: number;
  @Parameter({
    label: 'Lead angle',
    help: 'Sweep of the arc, or angle of the straight to the wall.',
    unit: 'angle',
    min: 10,
    max: 180,
    step: 15,
    matters: (p: ContourParams) => isBeside(p) && p.leadForm !== 'tangent',
  })
  leadAngle!: number;
  @Choice({
    label: 'Corners',
    help: 'Outside corners: rolled about, drawn out to a point, or passed and looped back, which leaves them sharpest.',
    choices: ['rolled', 'sharp', 'looped'],
    matters: (p: ContourParams) => p.side === 'outside' || p.side === 'scrap side',
  })
  corners!: Corners;
  @Choice({
    label: 'Start',
    help: 'Where a lap begins: the middle of the longest straight, or a chosen share of the way round.',
    choices: ['longest straight', 'chosen'],
    matters: canStartAnywhere,
  })
  startAt!: 'longest straight' | 'chosen';
  @Parameter({
    label: 'Way round',
    help: 'Share of the way round where a lap begins.',
    unit: 'share',
    min: 0,
    max: 1,
    step: 0.05,
    matters: (p: ContourParams) => canStartAnywhere(p) && p.startAt === 'chosen',
  })
  start!: number;
  @Parameter({
    label: 'Longer at the start',
    help: 'How far an open line is drawn on before its start; below zero holds it back.',
    unit: 'length',
    min: -100,
    max: 100,
    step: 1,
    matters: isOpenSide,
  })
  extendStart!: number;
  @Parameter({
    label: 'Longer at the end',
    help: 'How far an open line is drawn on past its end; below zero holds it back.',
    unit: 'length',
    min: -100,
    max: 100,
    step: 1,
    matters: isOpenSide,
  })
  extendEnd!: number;
  @IsOptional()
  @Toggle(FINISH_ALONE)
  finishAlone?: boolean;
  @IsOptional()
  @Choice(FINISH_DIRECTION)
  finishDirection?: FinishDirection;
  @Choice({
    label: 'Tabs',
    help: 'Bridges that hold the part in its frame: with upright ends, or ramped, which is kinder to the cutter.',
    choices: ['none', 'rectangular', 'ramped'],
  })
  tabs!: 'none' | Tabs['shape'];
  @Parameter({
    label: 'How many tabs',
    help: 'Spread evenly round each line.',
    unit: 'count',
    min: 1,
    max: 60,
    step: 1,
    matters: (p: ContourParams) => p.tabs !== 'none' && p.tabPlaces.trim() === '',
  })
  tabCount!: number;
  @Parameter({
    label: 'Tab width',
    help: 'Of the bridge itself.',
    unit: 'length',
    min: 0.2,
    max: 100,
    step: 0.5,
    matters: (p: ContourParams) => p.tabs !== 'none',
  })
  tabWidth!: number;
  @Parameter({
    label: 'Tab height',
    help: 'Up from the underside of the part.',
    unit: 'length',
    min: 0.1,
    max: 100,
    step: 0.5,
    matters: (p: ContourParams) => p.tabs !== 'none',
  })
  tabHeight!: number;
  @Words({
    label: 'Tab places',
    help: 'Each in percent of the way round, such as 10 40 75; empty spreads them evenly. Drag a tab to move it.',
    min: 0,
    max: 200,
    words: { '': 'spread evenly' },
    matters: (p: ContourParams) => p.tabs !== 'none',
  })
  tabPlaces!: string;
  @Choice({
    label: 'Compensation',
    help: 'Worked out here; or the wear of the cutter taken up in the control from its diameter offset (0 for a new one); or all of its radius.',
    choices: ['worked out', 'wear in the control', 'all in the control'],
    matters: isBeside,
  })
  compensation!: 'worked out' | 'wear in the control' | 'all in the control';
}
