import { bore } from './kinds/bore';
import { chamfer } from './kinds/chamfer';
import { clear } from './kinds/clear';
import { contour } from './kinds/contour';
import { counterbore } from './kinds/counterbore';
import { countersink } from './kinds/countersink';
import { cutOut } from './kinds/cut-out';
import { drill } from './kinds/drill';
import { engrave } from './kinds/engrave';
import { face } from './kinds/face';
import { helicalBore } from './kinds/helical-bore';
import { pocket } from './kinds/pocket';
import { ream } from './kinds/ream';
import { roundEdge } from './kinds/round-edge';
import { slot } from './kinds/slot';
import { tap } from './kinds/tap';
import { threadMill } from './kinds/thread-mill';
import { OperationKind } from './operation';

/** Every kind of operation, in the order they are offered. */
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

export const kindOf = (kind: string): OperationKind | undefined => KINDS.find((k) => k.kind === kind);
