import { Choice, Parameter } from '../../quantity/parameter';

/** Values every operation on holes has. */
export class HoleParams {
  @Choice({
    label: 'Between holes',
    help: 'Lifted just off the metal where no clamp is in the way, or always clear of everything.',
    choices: ['low where free', 'always clear'],
  })
  hop!: 'low where free' | 'always clear';
}

/** Values of operations that may go right through. */
export class ThroughParams extends HoleParams {
  @Parameter({
    label: 'Break through',
    help: 'How far the full diameter goes below the part in a through hole.',
    unit: 'length',
    min: 0,
    max: 20,
    step: 0.1,
  })
  breakthrough!: number;
}

export const HOP: HoleParams['hop'] = 'low where free';
