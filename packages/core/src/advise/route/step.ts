import { Heights } from '../../document/heights';
import { Job } from '../../document/job';
import { Feature } from '../../part/plate/feature';
import { PartModel } from '../../part/plate/model';
import { Tool } from '../../shop/tool';
import type { Advice, Advised } from '../tools';

/** An operation of a proposed route: what it works on, with what, other values than its own, and why. */
export interface RouteStep {
  kind: string;
  targets: Feature[];
  tool: Tool;
  params?: Record<string, unknown>;
  heights?: Heights;
  reason: string;
}

/** The tool that takes the bulk of a feature, and the kind of operation it does that with; nothing said: as it is done else. */
export interface Chosen {
  feature: string;
  tool: string;
  kind?: 'clear' | 'pocket';
}

/** So many other tools are worth a try for the bulk of a feature. */
export const MOST_TRIED = 2;

/** What a route is proposed from. */
export interface RouteAsked {
  job: Job;
  model: PartModel;
  rack: Tool[];
  /** The rack without what was tried on a feature and found wanting. */
  rackFor(feature: Feature): Tool[];
  /** What is to take the bulk of a feature, where that was tried. */
  chosenFor(feature: Pick<Feature, 'id'>): Chosen | undefined;
  /** @param depth how deep it is to be cut, mm; all of it where left out */
  advise(feature: Feature, depth?: number): Advised;
  long(mm: number): string;
}

/** A proposal, and what it could not find a way for. */
export interface Proposal {
  job: Job;
  missing: { feature: string; why: string }[];
}

/** What some features ask for, what of them nothing in the rack does, and what else would take their bulk, likeliest first. */
export interface RoutePart {
  steps: RouteStep[];
  missing: Proposal['missing'];
  others?: Chosen[];
}

/** The size to buy as the end of a sentence; nothing where none is known. */
export const would = (buy: string | undefined): string =>
  buy ? `; ${buy.charAt(0).toLowerCase()}${buy.slice(1)} would` : '';

/** A tool that is in the route already may be this much worse for a wall, rather than a change of tools. */
const FAMILIAR = 2;

/** The better advice first. */
export const byRank = (a: Advice, b: Advice) => a.rank - b.rank;

/** Of the tools that do all of it the best, or one that is in the route already where it is nearly as good. */
export function bestOf(ranked: Advice[], used: Set<string>): Advice | undefined {
  const able = ranked.filter((r) => r.role === 'does it').sort(byRank);
  return able.find((r) => used.has(r.tool.id) && r.rank <= FAMILIAR * able[0].rank) ?? able[0] ?? ranked[0];
}
