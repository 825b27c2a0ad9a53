import { Job, Operation, formatFeed, formatLength, formatNumber } from '@tidypath/core';
import { byHand } from './by-hand';
import { bore } from './bore';
import { chamfer } from './chamfer';
import { clear } from './clear';
import { contour } from './contour';
import { counterbore } from './counterbore';
import { countersink } from './countersink';
import { cutOut } from './cut-out';
import { drill } from './drill';
import { engrave } from './engrave';
import { face } from './face';
import { helicalBore } from './helical-bore';
import { pocket } from './pocket';
import { ream } from './ream';
import { roundEdge } from './round-edge';
import { slot } from './slot';
import { tap } from './tap';
import { threadMill } from './thread-mill';
import {
  Field,
  Piece,
  Sentence,
  Subject,
  begins,
  bounds,
  feeds,
  finishAlone,
  heights,
  isFinishAlone,
  pause,
  repeat,
} from './types';

const SENTENCES: Record<string, Sentence> = {
  face,
  clear,
  pocket,
  slot,
  contour,
  drill,
  'helical-bore': helicalBore,
  counterbore,
  countersink,
  ream,
  bore,
  tap,
  'thread-mill': threadMill,
  chamfer,
  'round-edge': roundEdge,
  engrave,
  'cut-out': cutOut,
  'by-hand': byHand,
};

/** What an operation's sentence says, with its tappable values. */
export function sentenceOf(job: Job, operation: Operation): Piece[] {
  const subject: Subject = {
    job,
    operation,
    tool: job.tools.find((t) => t.id === operation.toolId),
    targets: job.part.features.filter((f) => operation.targets.includes(f.id)),
    length: (mm) => formatLength(mm, job.unit),
    feed: (v) => formatFeed(v, job.unit),
    number: (v) => formatNumber(v, 2),
    percent: (share) => `${formatNumber(share * 100, 0)} %`,
    param: (key) => Number(operation.params[key] ?? 0),
    word: (key) => String(operation.params[key] ?? ''),
  };
  const own = isFinishAlone(subject) ? finishAlone : SENTENCES[operation.kind];
  const main = own?.(subject) ?? [operation.name];
  const isEndSaid = fieldsOf(main).some((f) => f.at === 'heights');
  return [
    ...main,
    ...feeds(subject),
    ...heights(subject, isEndSaid),
    ...begins(subject),
    ...bounds(subject),
    ...repeat(subject),
    ...pause(subject),
  ];
}

/** The sentence as plain words. */
export const plainSentence = (pieces: Piece[]) => pieces.map((p) => (typeof p === 'string' ? p : p.text)).join('');

/** Values of a sentence, so that the rest can stand under “more”. */
export const fieldsOf = (pieces: Piece[]): Field[] => pieces.flatMap((p) => (typeof p === 'string' ? [] : [p.field]));
