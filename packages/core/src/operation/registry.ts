import { byHand } from './hand/by-hand';
import { bore } from './hole/bore';
import { chamfer } from './milling/chamfer';
import { clear } from './milling/clear';
import { contour } from './milling/contour';
import { counterbore } from './hole/counterbore';
import { countersink } from './hole/countersink';
import { cutOut } from './beam/cut-out';
import { drill } from './hole/drill';
import { engrave } from './milling/engrave';
import { face } from './milling/face';
import { helicalBore } from './hole/helical-bore';
import { pocket } from './milling/pocket';
import { ream } from './hole/ream';
import { roundEdge } from './milling/round-edge';
import { slot } from './milling/slot';
import { tap } from './hole/tap';
import { threadMill } from './hole/thread-mill';
import { OperationKind } from './operation';

/** Every kind of operation that cuts, in the order they are offered. */
export const KINDS: OperationKind[] = [
  face,
  clear,
  pocket,
  slot,
  contour,
  drill,
  helicalBore,
  counterbore,
  countersink,
  ream,
  bore,
  tap,
  threadMill,
  chamfer,
  roundEdge,
  engrave,
  cutOut,
] as unknown as OperationKind[];

/** All a route may hold. */
export const ALL_KINDS: OperationKind[] = [...KINDS, byHand as unknown as OperationKind];

export const kindOf = (kind: string): OperationKind | undefined => ALL_KINDS.find((k) => k.kind === kind);
