import { Region } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Profile } from '../../shop/tool';
import { Edge } from './edges';

/** A tool's own shape left along lines at one depth: what engraving makes. */
export interface Mark {
  lines: Point[][];
  /** Z of the tip. */
  z: number;
  profile: Profile;
}

/** An area carved by a cone that touches its edge at the surface. */
export interface Carving {
  region: Region;
  /** Z of the surface it is let into. */
  surface: number;
  /** How deep it goes at most, mm. */
  depth: number;
  profile: Profile;
}

/** Sheet that falls out once the line around it has been cut. */
export interface Freed {
  region: Region;
  /** Width of that cut, mm. */
  kerf: number;
}

/** What operations are asked to shape that the part itself does not say: edges broken by choice, engraved lines, pieces that fall out. */
export interface Added {
  edges: Edge[];
  marks: Mark[];
  carvings: Carving[];
  freed: Freed[];
}

export const NOTHING_ADDED: Added = { edges: [], marks: [], carvings: [], freed: [] };

export const joinAdded = (all: Added[]): Added => ({
  edges: all.flatMap((a) => a.edges),
  marks: all.flatMap((a) => a.marks),
  carvings: all.flatMap((a) => a.carvings),
  freed: all.flatMap((a) => a.freed),
});
