/** What clamps that stand round the work have in common. */
import { Choice, Parameter } from '../quantity/parameter';
import { SIZES } from './holding';
import { WorkSide } from './towards';

const WHERE = ['left and right', 'front and back', 'all round'] as const;
export const SIDES_OF: Record<(typeof WHERE)[number], WorkSide[]> = {
  'left and right': ['left', 'right'],
  'front and back': ['front', 'back'],
  'all round': ['left', 'right', 'front', 'back'],
};

export class AroundParams {
  @Choice({ label: 'At its', help: 'Which sides they stand at.', choices: WHERE })
  where!: (typeof WHERE)[number];
  @Parameter({ label: 'On each side', help: 'How many, evenly spread.', unit: 'count', min: 1, max: 6, step: 1 })
  count!: number;
  @Parameter({ label: 'Width', group: SIZES, help: 'Of each clamp.', unit: 'length', min: 3, max: 200, step: 1 })
  width!: number;
}

/** Length of a clamp beside the work, mm. */
export const BESIDE = 40;

/** Evenly spread middles along a side. */
export const spread = (wide: number, count: number) =>
  Array.from({ length: count }, (_, i) => (wide * (2 * i + 1)) / (2 * count));
