import type { Sculpting, Finding, ModelForm, ModelUnit, Solid, Taken, WayUp } from '@tidypath/core';

/** A body of a file, as the page shows it. */
export interface BodySeen {
  name: string;
  size: [number, number, number];
  volume: number;
  findings: Finding[];
}

/** What a file holds. */
export interface ModelSeen {
  form: ModelForm;
  unit?: ModelUnit;
  bodies: BodySeen[];
  findings: Finding[];
}

/** One body looked at: the ways it may lie, the best first, each with its picture, and how many faces it has. */
export interface BodyLooked {
  body: number;
  faces: number;
  ways: (WayUp & { picture: Picture })[];
}

/** Lines seen from a corner above, as an SVG path in a box. */
export interface Picture {
  path: string;
  viewBox: string;
}

/** What is seen of a file before it is read finely: how its first body looks, its size, mm, and how many there are. */
export interface Glimpse {
  picture: Picture;
  size: [number, number, number];
  bodies: number;
}

export type ModelAsk =
  /** `origin`: where the page came from. */
  | { type: 'read'; bytes: Uint8Array; unit?: ModelUnit; origin: string }
  | { type: 'look'; body: number }
  /** A plate made a solid to look at. */
  | { type: 'sculpt'; sculpting: Sculpting; origin: string }
  | { type: 'take'; taken: Taken; name: string };

export type ModelAnswer =
  | { type: 'glimpsed'; glimpse: Glimpse }
  | { type: 'read'; model: ModelSeen }
  | { type: 'looked'; looked: BodyLooked }
  | { type: 'share'; share: number }
  | { type: 'taken'; part: Solid; surface: Uint8Array }
  | { type: 'failed'; message: string };

/** A plate sculpted: its surface, and which feature made each of its faces. */
export type SculptedAnswer =
  { type: 'sculpted'; surface: Uint8Array; made: (string | undefined)[] } | Extract<ModelAnswer, { type: 'failed' }>;
