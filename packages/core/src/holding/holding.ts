import type { Lean } from '../part/plate/leaning';
import type { Body } from '../part/plate/turn';
import { Region } from '../geometry/plane/clip';
import { Bounds, Point } from '../geometry/plane/point';
import { FixtureBox } from '../geometry/space/box';
import { Feature } from '../part/plate/feature';
import { PartModel } from '../part/plate/model';
import { Finding } from '../quantity/finding';
import { StockModel } from '../stock/height/stock';

/** The group of values that are the thing’s own, and seldom change. */
export const SIZES = 'Its sizes';

/** What is to be held, as it lies; part coordinates, Z 0 at the part's top, mm. */
export interface Work {
  model: PartModel;
  /** The part's features as it lies. */
  features: Feature[];
  stock: StockModel;
  /** Outline of what can be gripped: of the stock, or of the part where it was cut round before. */
  outline: Region;
  /** How many parts it is cut into. */
  parts: number;
  /** How it leans on a sine plate: the box of the part, and the stock, as they were before. */
  leaning?: { lean: Lean; body: Body; flat: StockModel };
}

/** A stretch of the work something presses on, seen from above, and over which heights. */
export interface Contact {
  name: string;
  from: Point;
  to: Point;
  /** Into the work, of length 1. */
  into: Point;
  low: number;
  high: number;
}

/** What holding comes to; forces in N, moments in N·mm, before any safety. Estimates: friction is never sure. */
export interface Strength {
  /** Side force at which it slips. */
  slip: number;
  /** Force upwards at which it lifts off. */
  lift: number;
  /** Moment of a side force at which it tips, about `about` (Z). */
  tip: number;
  about: number;
  /** How each comes about, in words. */
  working: string[];
}

/** A thing that holds, put to the work. */
export interface Placed {
  /** What a tool may hit. */
  bodies: FixtureBox[];
  /** What stands still, and a zero can be set on. */
  fixed?: FixtureBox;
  /** What moves when the work is gripped: a zero does not belong there. */
  moves?: Bounds;
  contacts: Contact[];
  strength?: Strength;
  /** What is under the work: the parallels, a plate; in words with its size. */
  under?: { what: string; height: number };
  /** A feature that must be made before. */
  needs?: string;
  findings: Finding[];
}

export const NOTHING_PLACED: Placed = { bodies: [], contacts: [], findings: [] };

/** Everything one way of holding is: its values, what it starts with, and what it comes to on a piece of work. */
export interface HoldingKind<P extends object = object> {
  kind: string;
  title: string;
  /** What it is for, in a sentence. */
  help: string;
  Params: new () => P;
  /** What a new one starts with on this work. */
  starts(work: Work): P;
  place(params: P, work: Work, name: string): Placed;
}

/** A length to start with, in tenths of a mm and never less than may be asked. */
export const startAt = (mm: number, least = 0.5): number => Math.max(least, Math.round(mm * 10) / 10);

/** The box round what is gripped. */
export function boundsOfWork({ outline }: Work): Bounds {
  const points = outline.flat();
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return { minX: Math.min(...xs), maxX: Math.max(...xs), minY: Math.min(...ys), maxY: Math.max(...ys) };
}
