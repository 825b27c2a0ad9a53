import { Point } from '../geometry/point';
import { Profile } from '../shop/tool';
import { Edge } from './edges';

/** A tool's own shape left along lines at one depth: what engraving makes. */
export interface Mark {
  lines: Point[][];
  /** Z of the tip. */
  z: number;
  profile: Profile;
}

/** What operations are asked to shape that the part itself does not say: edges broken by choice, engraved lines. */
export interface Added {
  edges: Edge[];
  marks: Mark[];
}

export const NOTHING_ADDED: Added = { edges: [], marks: [] };

export const joinAdded = (all: Added[]): Added => ({
  edges: all.flatMap((a) => a.edges),
  marks: all.flatMap((a) => a.marks),
});
