import { chuck } from './chuck';
import { HoldingKind } from './holding';
import { indexer } from './indexer';
import { leftOn } from './left-on';
import { pins } from './pins';
import { screws } from './screws';
import { sinePlate } from './sine-plate';
import { softJaws } from './soft-jaws';
import { straps } from './straps';
import { stuck } from './stuck';
import { toes } from './toes';
import { vBlock } from './v-block';
import { vise } from './vise';

/** Every way of holding, in the order they are offered. */
export const HOLDINGS: HoldingKind[] = [
  vise,
  softJaws,
  vBlock,
  straps,
  toes,
  screws,
  pins,
  stuck,
  leftOn,
  chuck,
  indexer,
  sinePlate,
] as unknown as HoldingKind[];

export const holdingOf = (kind: string): HoldingKind | undefined => HOLDINGS.find((k) => k.kind === kind);
