import { IsOptional } from 'class-validator';
import { LAST_LAYER } from '../../layers';
import { Choice, Parameter, Toggle } from '../../../quantity/parameter';
import { FinishParams, whileClearing } from '../finish';

export const CLEAR_ORDERS = ['feature by feature', 'by layer'] as const;

export class ClearParams extends FinishParams {
  @Parameter({
    label: 'Bite',
    help: 'Sideways bite held everywhere, corners included.',
    unit: 'length',
    min: 0.01,
    max: 100,
    step: 0.1,
    ...whileClearing(),
  })
  stepover!: number;
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one layer; with a light bite the whole length of the flutes.',
    unit: 'length',
    min: 0.02,
    max: 200,
    step: 0.5,
    ...whileClearing(),
  })
  layer!: number;
  @Choice({
    label: 'Clears',
    help: 'All of the stock, or only what earlier operations left, drilled holes included.',
    choices: ['what is left', 'all of the stock'],
    ...whileClearing(),
  })
  from!: 'what is left' | 'all of the stock';
  @Parameter({
    label: 'Leave on walls',
    help: 'Metal left on the walls when all is done.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  wallAllowance!: number;
  @Parameter({
    label: 'Leave on floors',
    help: 'Metal left on floors.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  floorAllowance!: number;
  @Parameter({
    label: 'Break through',
    help: 'How far below the part it goes where it cuts right through.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  breakthrough!: number;
  @IsOptional()
  @Parameter(LAST_LAYER)
  lastLayer?: number;
  @IsOptional()
  @Choice({
    label: 'Order',
    help: 'One feature after the other, or all of them layer by layer, so that thin walls stay stiff.',
    choices: CLEAR_ORDERS,
    absent: 'feature by feature',
    ...whileClearing(),
  })
  order?: (typeof CLEAR_ORDERS)[number];
  @Toggle({
    label: 'Stop at flats',
    help: 'Clear every flat between the top and the floor too.',
    ...whileClearing(),
  })
  flats!: boolean;
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better wall; both ways saves going back; conventional suits machines with backlash.',
    choices: ['climb', 'both ways', 'conventional'],
  })
  direction!: 'climb' | 'both ways' | 'conventional';
  @Parameter({
    label: 'Entry angle',
    help: 'Slope of the helix, or of the ramp where a helix does not fit.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
    ...whileClearing(),
  })
  entryAngle!: number;
  @Parameter({
    label: 'Helix',
    help: 'Diameter of the entry helix, as a share of the cutter; narrower where there is less room.',
    unit: 'share',
    min: 0.2,
    max: 0.95,
    step: 0.05,
    ...whileClearing(),
  })
  helix!: number;
  @Parameter({
    label: 'Smallest turn',
    help: 'Smallest radius of the path. Larger is smoother and leaves more in corners.',
    unit: 'length',
    min: 0.02,
    max: 20,
    step: 0.1,
    ...whileClearing(),
  })
  turn!: number;
  @Toggle({
    label: 'Lighter first lap',
    help: 'Where the size of the stock is uncertain: the first lap along its outside bites less.',
    ...whileClearing(),
  })
  careful!: boolean;
  @Parameter({
    label: 'First lap',
    help: 'Bite of the first lap, as a share of the bite.',
    unit: 'share',
    min: 0.1,
    max: 1,
    step: 0.1,
    ...whileClearing((p: ClearParams) => p.careful),
  })
  firstBite!: number;
  @Parameter({
    label: 'Feed of the first lap',
    help: 'As a share of the feed.',
    unit: 'share',
    min: 0.1,
    max: 1,
    step: 0.1,
    ...whileClearing((p: ClearParams) => p.careful),
  })
  firstFeed!: number;
  @Toggle({
    label: 'Raise the feed',
    help: 'Feed faster where the bite is lighter than asked, so that the chip keeps its thickness.',
    ...whileClearing(),
  })
  raise!: boolean;
  @Parameter({
    label: 'Feed going back',
    help: 'Feed of moves with the tool down that do not cut.',
    unit: 'feed',
    min: 10,
    max: 100_000,
    step: 100,
    ...whileClearing(),
  })
  linkFeed!: number;
  @Parameter({
    label: 'Small lift',
    help: 'Lift while going back with the tool down.',
    unit: 'length',
    min: 0,
    max: 5,
    step: 0.05,
    ...whileClearing(),
  })
  lift!: number;
  @Parameter({
    label: 'Keep down',
    help: 'How many times longer than a retract going back with the tool down may take. 1 is whichever is quicker.',
    unit: 'number',
    min: 0,
    max: 10,
    step: 0.5,
    ...whileClearing(),
  })
  keepDown!: number;
  @Parameter({
    label: 'Longest way back',
    help: 'A longer way back is made by a retract.',
    unit: 'length',
    min: 0,
    max: 2000,
    step: 10,
    ...whileClearing((p: ClearParams) => p.keepDown > 0),
  })
  longestBack!: number;
  @Toggle({
    label: 'Feed moves only',
    help: 'Ways across above the work are feed moves too, for machines whose rapids do not run in a straight line.',
    ...whileClearing(),
  })
  feedOver!: boolean;
}
