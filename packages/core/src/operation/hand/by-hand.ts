import { Fixture } from '../../document/job';
import type { Operation } from '../../document/operation';
import { PathBuilder } from '../../path/path';
import { ListOf } from '../../quantity/nested';
import { Choice, Parameter, Words } from '../../quantity/parameter';
import { IsOptional } from 'class-validator';
import { OperationKind } from '../operation';

export const BY_HAND = [
  'grip anew',
  'indicate anew',
  'blow out',
  'deburr',
  'measure',
  'glue',
  'press in',
  'drill on the press',
  'something else',
] as const;

/** Clamps and jaws of one grip at most. */
const MOST_CLAMPS = 50;

export class ByHandParams {
  @Choice({
    label: 'What is done',
    help: 'The program stops for it (M0), spindle and coolant off. Keep clear until the spindle stands still.',
    choices: BY_HAND,
  })
  what!: (typeof BY_HAND)[number];
  @Parameter({
    label: 'Takes',
    help: 'Counted in the time of the program.',
    unit: 'minutes',
    min: 0,
    max: 600,
    step: 0.5,
  })
  minutes!: number;
  @Words({
    label: 'Told at the machine',
    help: 'Shown where the control shows remarks, and in the report.',
    min: 0,
    max: 80,
  })
  note!: string;
  /** Clamps and jaws as they stand from here on, where it is gripped anew; as before where left out. */
  @IsOptional() @ListOf(() => Fixture, MOST_CLAMPS) clamps?: Fixture[];
}

/** Stands where others name their tool. */
export const NO_TOOL = 'by-hand';

/** Where a step by hand starts from. */
export const FIRST: ByHandParams = { what: 'grip anew', minutes: 2, note: '' };

/** What somebody does at the machine or beside it, while the program waits. */
export const byHand: OperationKind<ByHandParams> = {
  kind: 'by-hand',
  title: 'Something by hand',
  verb: ({ what }) => what,
  process: 'hand',
  stage: 'outside',
  leavesSizes: true,
  works: [],
  suits: () => false,
  Params: ByHandParams,
  defaults: () => FIRST,
  bite: (_, tool) => ({ ae: tool.diameter, ap: tool.diameter, peakAe: tool.diameter }),
  plan: () => ({ path: new PathBuilder().build(), findings: [] }),
};

export const isByHand = ({ kind }: Pick<Operation, 'kind'>): boolean => kind === byHand.kind;

/** The values of a step by hand that is switched on; undefined of anything else. */
export const handOf = (operation: Operation): ByHandParams | undefined =>
  operation.on && isByHand(operation) ? (operation.params as unknown as ByHandParams) : undefined;

/** Clamps and jaws from a step on, where it grips the work anew. */
export const clampsAfter = (operation: Operation): Fixture[] | undefined => {
  const hand = handOf(operation);
  return hand?.what === 'grip anew' ? hand.clamps : undefined;
};
