import type { Palette } from '../theme/theme';
import type { Vec3 } from '@tidypath/core';
import type { Scene } from './scene';
import type { MetFace, Size } from './terms';

/** What the page may tell its picture; nothing comes back. */
export type Told =
  | 'setStock'
  | 'setSolid'
  | 'setChosen'
  | 'setSection'
  | 'setAllowed'
  | 'setHeights'
  | 'setLines'
  | 'setPath'
  | 'setFixtures'
  | 'setZero'
  | 'setTool'
  | 'moveTool'
  | 'setPins'
  | 'setMarks'
  | 'fit'
  | 'resize'
  | 'touch';

export type Ask =
  | { type: 'open'; canvas: OffscreenCanvas; palette: Palette; size: Size }
  | { type: 'tell'; name: Told; about: unknown[] }
  | { type: 'tap'; x: number; y: number }
  | { type: 'picture' }
  | { type: 'close' };

/** What the page asks of one of its pictures. */
export type Request = { id: number } & Ask;

export type Answer = { id: number } &
  /** The picture shows the first so many things it was told. */
  (
    | { type: 'drawn'; heard: number }
    /** What was met there, the nearest first; the faces of a solid with it. */
    | { type: 'tapped'; at: Vec3; faces?: MetFace[] }
    | { type: 'picture'; file: Uint8Array }
    | { type: 'failed'; message: string }
  );

export type About<K extends Told> = Parameters<Scene[K]>;
