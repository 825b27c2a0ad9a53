import { IsOptional } from 'class-validator';
import { LAST_LAYER } from '../../layers';
import { Choice, Parameter } from '../../../quantity/parameter';
import { FinishParams, whileClearing } from '../finish';

export const POCKET_ORDERS = ['feature by feature', 'by layer', 'by region'] as const;

type Pattern = 'inside out' | 'outside in' | 'spiral' | 'zigzag' | 'one way';

export class PocketParams extends FinishParams {
  @Choice({
    label: 'Pattern',
    help: 'Rings from the middle outwards or from the wall inwards, one unbroken spiral, or straight rows to and fro or always the same way.',
    choices: ['inside out', 'outside in', 'spiral', 'zigzag', 'one way'],
    ...whileClearing(),
  })
  pattern!: Pattern;
  @Parameter({
    label: 'Row angle',
    help: 'Of the straight rows, to X.',
    unit: 'angle',
    min: -180,
    max: 180,
    step: 15,
    ...whileClearing((p: PocketParams) => p.pattern === 'zigzag' || p.pattern === 'one way'),
  })
  rowAngle!: number;
  @Parameter({
    label: 'Round the passes',
    help: 'Radius of the inner passes in corners, so that the machine does not stop there; the last pass follows the wall.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.5,
    ...whileClearing((p: PocketParams) => p.pattern !== 'zigzag' && p.pattern !== 'one way'),
  })
  smooth!: number;
  @Parameter({
    label: 'Bite',
    help: 'Distance from one pass to the next, sideways.',
    unit: 'length',
    min: 0.02,
    max: 100,
    step: 0.1,
    ...whileClearing(),
  })
  stepover!: number;
  @Parameter({
    label: 'Layer',
    help: 'Most depth taken in one layer; layers come out equal.',
    unit: 'length',
    min: 0.02,
    max: 200,
    step: 0.5,
    ...whileClearing(),
  })
  layer!: number;
  @IsOptional()
  @Parameter(LAST_LAYER)
  lastLayer?: number;
  @IsOptional()
  @Choice({
    label: 'Order',
    help: 'One feature after the other; all of them layer by layer, so that thin walls stay stiff; or each piece of the floor to its bottom first.',
    choices: POCKET_ORDERS,
    absent: 'feature by feature',
    ...whileClearing(),
  })
  order?: (typeof POCKET_ORDERS)[number];
  @Choice({
    label: 'Entry',
    help: 'How the cutter gets down into solid metal.',
    choices: ['helix', 'ramp', 'plunge'],
    ...whileClearing(),
  })
  entry!: 'helix' | 'ramp' | 'plunge';
  @Parameter({
    label: 'Entry angle',
    help: 'Slope of the helix or ramp.',
    unit: 'angle',
    min: 0.2,
    max: 30,
    step: 0.5,
    ...whileClearing((p: PocketParams) => p.entry !== 'plunge'),
  })
  entryAngle!: number;
  @Choice({
    label: 'Direction',
    help: 'Climb leaves the better wall; conventional suits machines with backlash.',
    choices: ['climb', 'conventional'],
  })
  direction!: 'climb' | 'conventional';
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
    label: 'Leave on the floor',
    help: 'Metal left on the floor.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.05,
  })
  floorAllowance!: number;
}
