import { clear } from './kinds/clear';
import { contour } from './kinds/contour';
import { drill } from './kinds/drill';
import { face } from './kinds/face';
import { helicalBore } from './kinds/helical-bore';
import { pocket } from './kinds/pocket';
import { OperationKind } from './operation';

/** Every kind of operation, in the order they are offered. */
export const KINDS: OperationKind[] = [face, clear, pocket, contour, drill, helicalBore] as unknown as OperationKind[];

export const kindOf = (kind: string): OperationKind | undefined => KINDS.find((k) => k.kind === kind);
