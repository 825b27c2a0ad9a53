import { Chain, arcOf, chainLength, pieceLength, pieces, pointAtShare, splitPiece } from '../../geometry/plane/chain';
import { Finding, finding } from '../../quantity/finding';
import type { PlanContext } from '../operation';
import { PathBuilder, Tag } from '../../path/path';
import { maths } from '../../quantity/maths';

/** Bridges that hold a part in its frame until it is broken out. */
export interface Tabs {
  /** Middle of each, as a share of the way round. */
  at: number[];
  /** Of the bridge itself, mm. */
  width: number;
  /** Z of the bridges' tops. */
  top: number;
  shape: 'rectangular' | 'ramped';
}

/** Heights along a lap: straight between them; two at one place are a step. */
export interface Station {
  /** mm from the lap's start. */
  s: number;
  z: number;
}

/** Length of a ramp on each side of a bridge for its height. */
const RUN = 2;

/**
 * Heights of a lap that falls evenly from `from` to `to`, lifted over the bridges; the cutter's width is added to theirs.
 * @param diameter of the cutter, mm
 */
export function stationsOver(
  length: number,
  from: number,
  to: number,
  tabs: Tabs | undefined,
  diameter: number,
): Station[] {
  const base = (s: number) => from + ((to - from) * s) / length;
  const stations: Station[] = [{ s: 0, z: from }];
  const spans = (tabs?.at ?? [])
    .map((share) => share * length)
    .flatMap((s) => [s - length, s, s + length])
    .map((s) => [s - (tabs!.width + diameter) / 2, s + (tabs!.width + diameter) / 2])
    .filter(([a, b]) => b > 0 && a < length)
    .sort((p, q) => p[0] - q[0]);
  const lift = (s: number) => Math.max(base(s), tabs!.top);
  for (const [a, b] of spans) {
    const run = tabs!.shape === 'ramped' ? RUN * Math.max(0, tabs!.top - base(Math.max(0, a))) : 0;
    const [left, right] = [Math.max(0, a), Math.min(length, b)];
    if (lift(left) <= base(left) && lift(right) <= base(right)) continue;
    const start = Math.max(stations[stations.length - 1].s, left - run);
    if (left > 0) stations.push({ s: start, z: base(start) });
    stations.push({ s: left, z: lift(left) }, { s: right, z: lift(right) });
    const end = Math.min(length, right + run);
    if (right < length) stations.push({ s: end, z: base(end) });
  }
  stations.push({ s: length, z: stations[stations.length - 1].s < length ? to : stations[stations.length - 1].z });
  return stations;
}

/** Feeds along a lap that goes up and down, mm/min: level and up, slanting down, straight down. */
export interface LapFeeds {
  feed: number;
  entryFeed: number;
  down: number;
}

/** Follows a chain at the heights of its stations. */
export function followStations(
  path: PathBuilder,
  chain: Chain,
  stations: Station[],
  { feed, entryFeed, down }: LapFeeds,
  tag: Tag,
): void {
  for (let k = 1; k < stations.length; k++) {
    const [p, q] = [stations[k - 1], stations[k]];
    const [along, drop] = [q.s - p.s, p.z - q.z];
    // The steeper it slants, the more of its end cuts.
    const slanting = Math.min(entryFeed, (down * maths.hypot(along, drop)) / Math.max(drop, 1e-9));
    if (along < 1e-9) path.line(path.x, path.y, q.z, drop > 0 ? down : feed, tag);
    else followBetween(path, chain, p, q, drop > 1e-9 ? slanting : feed, tag);
  }
}

/** The stretch of a chain between two stations, its height changing evenly. */
function followBetween(path: PathBuilder, chain: Chain, p: Station, q: Station, feed: number, tag: Tag): void {
  let gone = 0;
  for (const { a, b, bulge } of pieces(chain)) {
    const length = pieceLength(a, b, bulge);
    const [from, to] = [Math.max(p.s, gone), Math.min(q.s, gone + length)];
    if (to - from > 1e-9) {
      const end = to >= gone + length - 1e-9 ? b : splitPiece(a, b, bulge, (to - gone) / length).at;
      const z = p.z + ((q.z - p.z) * (to - p.s)) / (q.s - p.s);
      if (bulge === 0) path.line(end.x, end.y, z, feed, tag);
      else {
        const { centre } = arcOf(a, b, bulge);
        path.arc(centre.x, centre.y, end.x, end.y, z, bulge < 0, feed, tag);
      }
    }
    gone += length;
  }
}

/** Shares of the way round for evenly spread bridges. */
export const spread = (count: number): number[] => Array.from({ length: count }, (_, i) => (i + 0.5) / count);

/** Where bridges stand: places in percent of the way round, between spaces or commas; where none are given, spread evenly. */
export interface TabPlaces {
  tabCount: number;
  tabPlaces: string;
}

/** What is written as places: percents with spaces or commas between them. */
export const arePlaces = (text: string): boolean => /^[\d.,;\s]*$/.test(text) && numbersIn(text).every((n) => n <= 100);

const numbersIn = (text: string) => (text.match(/\d+(\.\d*)?/g) ?? []).map(Number);

/** Shares of the way round at which bridges stand. */
export function tabShares({ tabCount, tabPlaces }: TabPlaces): number[] {
  const given = numbersIn(tabPlaces);
  return given.length ? given.map((n) => (n / 100) % 1).sort((a, b) => a - b) : spread(tabCount);
}

/** The places with the bridge nearest to a share of the way round moved there. */
export function moveTab(places: TabPlaces, share: number): string {
  const shares = tabShares(places);
  const off = (s: number) => Math.abs(((s - share + 1.5) % 1) - 0.5);
  const nearest = shares.reduce((best, s) => (off(s) < off(best) ? s : best));
  const percent = (s: number) => String(Math.round(s * 1000) / 10);
  return shares.map((s) => percent(s === nearest ? share : s)).join(' ');
}

/** A straight or arc of a chain shorter than a bridge with the cutter beside it, where the bridge stands: its share of the way round. */
export function tabOnShortSide(chain: Chain, { at, width }: Tabs, diameter: number): number | undefined {
  const whole = chainLength(chain);
  return at.find((share) => {
    let s = 0;
    for (const { a, b, bulge } of pieces(chain)) {
      const length = pieceLength(a, b, bulge);
      if (share * whole <= s + length + 1e-9) return length < width + diameter;
      s += length;
    }
    return false;
  });
}

/** What is wrong with bridges on a lap: places nobody can read, more of them than the lap has room for, one that goes round a corner. */
export function tabFindings(
  lap: Chain,
  tabs: Tabs,
  places: string,
  { operation, tool }: Pick<PlanContext, 'operation' | 'tool'>,
): Finding[] {
  const place = { operation: operation.id, field: 'params.tabPlaces' };
  const findings: Finding[] = [];
  if (!arePlaces(places)) findings.push(finding('tab-places', { places }, place));
  const [width, length] = [tabs.width, chainLength(lap)];
  const short = tabOnShortSide(lap, tabs, tool.diameter);
  if (tabs.at.length * (tabs.width + tool.diameter) > chainLength(lap))
    findings.push(
      finding('tabs-too-wide', { count: tabs.at.length, width, length }, { ...place, field: 'params.tabWidth' }),
    );
  else if (short !== undefined)
    findings.push(finding('tab-round-corner', { width }, { ...place, at: pointAtShare(lap, short) }));
  return findings;
}
