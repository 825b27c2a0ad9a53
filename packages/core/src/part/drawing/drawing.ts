import Flatbush from 'flatbush';
import { Chain, asCircle, flatten, signedArea } from '../../geometry/plane/chain';
import { contains } from '../../geometry/plane/clip';
import { Gap, joinChains } from '../../geometry/plane/join';
import { Point, boundsOf } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { LengthUnit } from '../../quantity/units';
import { readDxf } from './dxf';
import { readSvg } from './svg';
import { Feature, MOST_VERTICES, Meaning, SINGLE } from '../plate/feature';

export interface ImportOptions {
  /** Unit to assume when the drawing names none. */
  unit: LengthUnit;
  /** Ends this near are one point, mm. */
  tolerance: number;
  /** Gaps up to this width are closed by a straight, mm; 0 leaves them. */
  bridge: number;
  thickness: number;
}

export interface Imported {
  features: Feature[];
  gaps: Gap[];
  unit?: LengthUnit;
  findings: Finding[];
}

export const IMPORT_DEFAULTS: ImportOptions = { unit: 'mm', tolerance: 0.01, bridge: 0, thickness: 10 };

interface Placed {
  chain: Chain;
  layer: string;
  /** How many other chains it lies inside. */
  level: number;
}

/** A round hole larger than this is more likely bored or milled than drilled, mm. */
const LARGEST_DRILLED = 16;

function byLayer(curves: { chain: Chain; layer: string }[]): Map<string, Chain[]> {
  const layers = new Map<string, Chain[]>();
  for (const { chain, layer } of curves) {
    const known = layers.get(layer);
    if (known) known.push(chain);
    else layers.set(layer, [chain]);
  }
  return layers;
}

/** A chain as text, the same whichever way round it is drawn and wherever a closed one begins. */
function sameness({ closed, vertices }: Chain, tolerance: number): string {
  const n = vertices.length;
  const at = (v: Point) => `${Math.round(v.x / tolerance)} ${Math.round(v.y / tolerance)}`;
  const bend = (bulge: number) => Math.round(bulge * 1e4) + 0;
  const forward = vertices.map((v) => ({ at: at(v), next: bend(v.bulge) }));
  const back = vertices.map((_, i) => {
    const v = vertices[n - 1 - i];
    const before = vertices[(2 * n - 2 - i) % n];
    return { at: at(v), next: !closed && i === n - 1 ? 0 : -bend(before.bulge) + 0 };
  });
  const text = (all: typeof forward) => {
    if (!closed) return all.map((v) => `${v.at} ${v.next}`).join();
    const first = all.reduce((best, v, i) => (v.at < all[best].at ? i : best), 0);
    return [...all.slice(first), ...all.slice(0, first)].map((v) => `${v.at} ${v.next}`).join();
  };
  const [a, b] = [text(forward), text(back)];
  return `${closed} ${a < b ? a : b}`;
}

/** The chains without those that lie where another does. */
function once(chains: Chain[], tolerance: number): { kept: Chain[]; twice: Chain[] } {
  const known = new Set<string>();
  const [kept, twice]: [Chain[], Chain[]] = [[], []];
  for (const chain of chains) {
    const key = sameness(chain, tolerance);
    (known.has(key) ? twice : kept).push(chain);
    known.add(key);
  }
  return { kept, twice };
}

/** How many rings each chain lies inside: one more than the smallest ring around it does. */
function levels(placed: { chain: Chain; layer: string }[]): Placed[] {
  const rings = placed.map((p) => (p.chain.closed ? flatten(p.chain, 0.05) : []));
  const areas = placed.map((p) => (p.chain.closed ? Math.abs(signedArea(p.chain)) : 0));
  const around = rings.flatMap((ring, i) => (ring.length > 2 ? [i] : []));
  if (around.length === 0) return placed.map((p) => ({ ...p, level: 0 }));
  const boxes = new Flatbush(around.length);
  for (const i of around) {
    const { minX, minY, maxX, maxY } = boundsOf(rings[i]);
    boxes.add(minX, minY, maxX, maxY);
  }
  boxes.finish();
  const parentOf = (i: number): number => {
    const [at] = placed[i].chain.vertices;
    let parent = -1;
    // Asked ring by ring and none kept: thousands may lie around one point.
    boxes.search(at.x, at.y, at.x, at.y, (k) => {
      const ring = around[k];
      const isCloser = areas[ring] > areas[i] && (parent < 0 || areas[ring] < areas[parent]);
      if (isCloser && ring !== i && contains([rings[ring]], at)) parent = ring;
      return false;
    });
    return parent;
  };
  const found = new Int32Array(placed.length);
  const largestFirst = placed.map((_, i) => i).sort((i, j) => areas[j] - areas[i]);
  for (const i of largestFirst) {
    const parent = parentOf(i);
    found[i] = parent < 0 ? 0 : found[parent] + 1;
  }
  return placed.map((p, i) => ({ ...p, level: found[i] }));
}

/** A first guess at what a chain means; people correct it. */
function guess(p: Placed, largest: Chain | undefined): Meaning {
  if (!p.chain.closed) return 'ignore';
  if (p.chain === largest) return 'outline';
  const round = asCircle(p.chain);
  if (round && 2 * round.radius <= LARGEST_DRILLED) return 'hole';
  return p.level % 2 === 1 ? 'pocket' : p.level === 0 ? 'ignore' : 'boss';
}

const NAMES: Record<Meaning, string> = {
  outline: 'Outside',
  notch: 'Notch',
  pocket: 'Pocket',
  boss: 'Boss',
  hole: 'Hole',
  edge: 'Edge',
  line: 'Line',
  ignore: 'Curve',
};

/**
 * Turns a DXF or SVG drawing into features: entities of one layer joined into chains, nesting found, a meaning proposed for each.
 * Gaps are listed with their place; they are closed only where `bridge` says so.
 */
export function importDrawing(text: string, options: ImportOptions = IMPORT_DEFAULTS): Imported {
  const read = /^\uFEFF?\s*</.test(text) ? readSvg : readDxf;
  const drawing = read(text, options.unit);
  const findings = [...drawing.findings];
  const gaps: Gap[] = [];
  const all: { chain: Chain; layer: string }[] = [];
  for (const [layer, chains] of byLayer(drawing.curves)) {
    const { kept, twice } = once(chains, options.tolerance);
    if (twice.length > 0) {
      const [{ x, y }] = twice[0].vertices;
      findings.push(finding('drawn-twice', { count: twice.length, near: { x, y }, layer }, { at: { x, y } }));
    }
    const joined = joinChains(kept, options.tolerance, options.bridge);
    for (const gap of joined.gaps) gaps.push(gap);
    if (joined.branches.length > 0) {
      const [near] = joined.branches;
      findings.push(finding('curves-branch', { count: joined.branches.length, near, layer }, { at: near }));
    }
    for (const chain of joined.chains) {
      const corners = chain.vertices.length;
      const near = { x: chain.vertices[0].x, y: chain.vertices[0].y };
      if (corners <= MOST_VERTICES) all.push({ chain, layer });
      else findings.push(finding('chain-too-long', { corners, most: MOST_VERTICES, near, layer }, { at: near }));
    }
  }
  for (const gap of gaps.slice(0, 50)) {
    findings.push(finding('gap', { width: gap.width, near: gap.from }, { at: gap.from }));
  }
  const placed = levels(all);
  const closed = placed.filter((p) => p.chain.closed);
  const largest = closed.sort((a, b) => Math.abs(signedArea(b.chain)) - Math.abs(signedArea(a.chain)))[0]?.chain;
  return { features: featuresFrom(placed, largest, options.thickness), gaps, unit: drawing.unit, findings };
}

function featuresFrom(placed: Placed[], largest: Chain | undefined, thickness: number): Feature[] {
  const counts = new Map<Meaning, number>();
  const order: Meaning[] = ['outline', 'notch', 'pocket', 'boss', 'hole', 'edge', 'ignore'];
  const guessed = placed.map((p) => ({ p, meaning: guess(p, largest) }));
  guessed.sort((a, b) => order.indexOf(a.meaning) - order.indexOf(b.meaning));
  return guessed.map(({ p, meaning }, i) => {
    const count = (counts.get(meaning) ?? 0) + 1;
    counts.set(meaning, count);
    const through = meaning === 'hole' || meaning === 'outline';
    return {
      id: `f${i + 1}`,
      name: count === 1 && meaning === 'outline' ? NAMES.outline : `${NAMES[meaning]} ${count}`,
      meaning,
      shape: { type: 'chain', vertices: p.chain.vertices, closed: p.chain.closed },
      x: 0,
      y: 0,
      turn: 0,
      pattern: { ...SINGLE },
      depth: meaning === 'pocket' ? Math.min(5, thickness / 2) : meaning === 'boss' ? 0 : thickness,
      through,
      layer: p.layer,
    };
  });
}
