/** Reader of SVG drawings: what of their paths and shapes is a flat curve, in mm with Y up. */
import { SaxesParser } from 'saxes';
import SvgPath from 'svgpath';
import { Chain, Vertex } from '../../geometry/plane/chain';
import { fitOpenArcs } from '../../geometry/plane/arcfit';
import { Point, distance } from '../../geometry/plane/point';
import { Budget, withinBudget } from '../../quantity/budget';
import { Finding, finding } from '../../quantity/finding';
import { LengthUnit, MM_PER_INCH } from '../../quantity/units';
import { maths } from '../../quantity/maths';
import type { DrawnCurve, Drawing } from './dxf';

const LARGEST = 64 * 1024 * 1024;
const DEEPEST_NESTING = 60;
/** Elements and corners that are read at most. */
const MOST_STEPS = 2_000_000;
/** Curves become arcs within this of the true curve, mm; true arcs stay as they are. */
const CURVE_TOLERANCE = 0.005;
/** Points along a curve for every corner of its control polygon. */
const POINTS = 32;
/** Radii that differ by less than this share are one. */
const ROUND = 1e-6;

/** What one unit of a length stands for, mm. */
const UNITS: Record<string, number> = {
  mm: 1,
  cm: 10,
  in: MM_PER_INCH,
  pt: MM_PER_INCH / 72,
  pc: MM_PER_INCH / 6,
  q: 0.25,
};

interface Element {
  name: string;
  attributes: Record<string, string>;
  children: Element[];
  line: number;
}

/** Elements that draw nothing where they stand. */
const NOT_DRAWN = new Set([
  'defs',
  'symbol',
  'clippath',
  'mask',
  'pattern',
  'marker',
  'metadata',
  'style',
  'title',
  'desc',
  'script',
  'lineargradient',
  'radialgradient',
  'filter',
  'namedview',
]);
const GROUPS = new Set(['svg', 'g', 'a', 'switch']);

/** The name of an element without its namespace. */
const plain = (name: string): string => name.replace(/^.*:/, '').toLowerCase();

/** The elements of a document as a tree; what stands before a fault is kept. */
function treeOf(text: string, findings: Finding[], budget: Budget): Element | undefined {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let root: Element | undefined;
  const open: Element[] = [];
  let failed = false;
  parser.on('error', (error) => {
    if (!failed)
      findings.push(
        finding(
          'svg-broken',
          { line: parser.line, why: error.message.replace(/^\d+:\d+: /, '') },
          { line: parser.line },
        ),
      );
    failed = true;
  });
  parser.on('opentag', ({ name, attributes }) => {
    if (failed) return;
    budget.spend();
    const element = {
      name: plain(name),
      attributes: attributes as Record<string, string>,
      children: [],
      line: parser.line,
    };
    root ??= element;
    open[open.length - 1]?.children.push(element);
    open.push(element);
  });
  parser.on('closetag', () => void open.pop());
  parser.write(text).close();
  return root;
}

/** A length with the mm it stands for; of other units, and of none, its number alone. */
function lengthOf(text: string | undefined): { number: number; mm?: number } | undefined {
  const found = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '');
  const number = Number(found?.[1]);
  if (!found || !Number.isFinite(number) || found[2] === '%') return undefined;
  const unit = UNITS[found[2].toLowerCase()];
  return { number, mm: unit === undefined ? undefined : number * unit };
}

const numbersIn = (text = ''): number[] => (text.match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi) ?? []).map(Number);

/** A number of an element; one with a unit in the drawing's own. */
const numberAt = ({ attributes }: Element, key: string, otherwise = 0): number =>
  lengthOf(attributes[key])?.number ?? otherwise;

/** An element that draws as a path; undefined where it does not. */
function pathOf(e: Element): string | undefined {
  const n = (key: string, otherwise?: number) => numberAt(e, key, otherwise);
  const ring = (x: number, y: number, rx: number, ry: number) =>
    rx > 0 && ry > 0 ? `M${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}Z` : '';
  switch (e.name) {
    case 'path':
      return e.attributes.d ?? '';
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'circle':
      return ring(n('cx'), n('cy'), n('r'), n('r'));
    case 'ellipse':
      return ring(n('cx'), n('cy'), n('rx'), n('ry'));
    case 'polyline':
    case 'polygon': {
      const points = numbersIn(e.attributes.points);
      return points.length < 4 ? '' : `M${points.join(' ')}${e.name === 'polygon' ? 'Z' : ''}`;
    }
    case 'rect':
      return rectangle(n('x'), n('y'), n('width'), n('height'), n('rx', n('ry')), n('ry', n('rx')));
    default:
      return undefined;
  }
}

function rectangle(x: number, y: number, width: number, height: number, rx: number, ry: number): string {
  if (!(width > 0 && height > 0)) return '';
  const [a, b] = [Math.min(rx, width / 2), Math.min(ry, height / 2)];
  if (!(a > 0 && b > 0)) return `M${x} ${y}h${width}v${height}h${-width}Z`;
  const [w, h] = [width - 2 * a, height - 2 * b];
  const corner = (dx: number, dy: number) => `a${a} ${b} 0 0 1 ${dx} ${dy}`;
  return `M${x + a} ${y}h${w}${corner(a, b)}v${h}${corner(-a, b)}h${-w}${corner(-a, -b)}v${-h}${corner(a, -b)}Z`;
}

/** Chains of a path that is absolute and in mm. */
class Chains {
  readonly chains: Chain[] = [];
  private vertices: Vertex[] = [];

  constructor(private readonly budget: Budget) {}

  private get last(): Vertex {
    return this.vertices[this.vertices.length - 1];
  }

  begin(x: number, y: number): void {
    this.end(false);
    this.vertices = [{ x, y, bulge: 0 }];
  }

  /** Goes on to a place, along an arc where it bulges. */
  to(x: number, y: number, bulge = 0): void {
    this.budget.spend();
    if (distance(this.last, { x, y }) < 1e-9) return;
    this.last.bulge = bulge;
    this.vertices.push({ x, y, bulge: 0 });
  }

  /** Goes on along a curve between its ends. */
  curve(at: (t: number) => Point): void {
    const points = Array.from({ length: POINTS + 1 }, (_, k) => at(k / POINTS));
    this.budget.spend(POINTS);
    const { vertices } = fitOpenArcs(points, CURVE_TOLERANCE);
    for (let i = 1; i < vertices.length; i++) this.to(vertices[i].x, vertices[i].y, vertices[i - 1].bulge);
  }

  end(closed: boolean): void {
    const { vertices } = this;
    const [first] = vertices;
    if (closed && vertices.length > 2 && distance(first, this.last) < 1e-6) vertices.pop();
    if (vertices.length > 1) this.chains.push({ vertices, closed });
    this.vertices = first ? [{ ...first, bulge: 0 }] : [];
  }
}

/** The bulge of a circular arc between two places; angles rise counterclockwise once Y is up. */
function bulgeBetween(a: Point, b: Point, radius: number, isLarge: boolean, rises: boolean): number {
  const half = maths.asin(Math.min(1, distance(a, b) / 2 / radius));
  const sweep = isLarge ? 2 * Math.PI - 2 * half : 2 * half;
  return (rises ? 1 : -1) * maths.tan(sweep / 4);
}

const cubic =
  (p: number[][]) =>
  (t: number): Point => {
    const u = 1 - t;
    const weights = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    const along = (k: number) => weights.reduce((sum, w, i) => sum + w * p[i][k], 0);
    return { x: along(0), y: along(1) };
  };

/** Writes one step of a path into chains. */
function follow([name, ...values]: readonly (string | number)[], x: number, y: number, chains: Chains): void {
  const v = values.map(Number);
  const from = { x, y };
  if (name === 'M') chains.begin(v[0], v[1]);
  else if (name === 'L') chains.to(v[0], v[1]);
  else if (name === 'H') chains.to(v[0], y);
  else if (name === 'V') chains.to(x, v[0]);
  else if (name === 'C') chains.curve(cubic([[x, y], v.slice(0, 2), v.slice(2, 4), v.slice(4)]));
  else if (name === 'Q') {
    const [cx, cy, ex, ey] = v;
    const towards = (a: number, b: number) => a + (2 / 3) * (b - a);
    chains.curve(
      cubic([
        [x, y],
        [towards(x, cx), towards(y, cy)],
        [towards(ex, cx), towards(ey, cy)],
        [ex, ey],
      ]),
    );
  } else if (name === 'A') {
    const [rx, ry, , isLarge, rises] = v;
    const to = { x: v[5], y: v[6] };
    if (Math.abs(rx - ry) < ROUND * rx) {
      const radius = Math.max(rx, distance(from, to) / 2);
      chains.to(to.x, to.y, bulgeBetween(from, to, radius, isLarge === 1, rises === 1));
    } else
      SvgPath(`M${x} ${y}A${v.join(' ')}`)
        .unarc()
        .iterate((segment, i, px, py) => {
          if (i > 0) follow(segment, px, py, chains);
        });
  } else chains.end(true);
}

/** How a drawing lies: mm for one of its units, and where its lower left corner is. */
function placed(root: Element): { scale?: number; named?: LengthUnit; place: number[] } {
  const [left = 0, top = 0, across, high] = numbersIn(root.attributes.viewBox);
  const [width, height] = [lengthOf(root.attributes.width), lengthOf(root.attributes.height)];
  const long = width?.mm ?? height?.mm;
  const units = width?.mm !== undefined ? (across ?? width.number) : (high ?? height?.number);
  const scale = long !== undefined && units ? long / units : undefined;
  const isInch = /in\s*$/i.test(root.attributes.width ?? root.attributes.height ?? '');
  const bottom = top + (high ?? height?.number ?? 0);
  return {
    scale,
    named: scale === undefined ? undefined : isInch ? 'inch' : 'mm',
    place: [1, 0, 0, -1, -left, bottom],
  };
}

/** What is read of a drawing. */
class Reading {
  readonly curves: DrawnCurve[] = [];
  readonly leftOut = new Map<string, { count: number; line: number }>();
  private readonly known = new Map<string, Element>();

  constructor(
    root: Element,
    private readonly toPart: number[],
    private readonly findings: Finding[],
    private readonly budget: Budget,
  ) {
    this.note(root);
  }

  private note(e: Element): void {
    if (e.attributes.id) this.known.set(e.attributes.id, e);
    e.children.forEach((child) => this.note(child));
  }

  /**
   * Takes what an element draws.
   * @param moved how what is round it moves it, innermost first
   */
  take(e: Element, layer: string, moved: string[], depth: number): void {
    const { name, attributes } = e;
    this.budget.spend();
    if (NOT_DRAWN.has(name) || isHidden(attributes)) return;
    if (depth > DEEPEST_NESTING) return this.leave('nest of groups', e.line);
    const within = attributes.transform ? [attributes.transform, ...moved] : moved;
    if (name === 'use') return this.takeUsed(e, layer, within, depth);
    if (GROUPS.has(name)) {
      const own = attributes['inkscape:label'] ?? attributes.id;
      for (const child of e.children)
        this.take(child, name === 'g' && own ? own.slice(0, 255) : layer, within, depth + 1);
      return;
    }
    const path = pathOf(e);
    if (path === undefined) return this.leave(name, e.line);
    this.draw(path, { layer, line: e.line }, within);
  }

  private takeUsed(e: Element, layer: string, within: string[], depth: number): void {
    const id = (e.attributes.href ?? e.attributes['xlink:href'] ?? '').replace(/^#/, '');
    const used = this.known.get(id);
    if (!used) return this.leave('use of something that is not there', e.line);
    const by = `translate(${numberAt(e, 'x')} ${numberAt(e, 'y')})`;
    if (used.name !== 'symbol') return this.take(used, layer, [by, ...within], depth + 1);
    for (const child of used.children) this.take(child, layer, [by, ...within], depth + 1);
  }

  private draw(d: string, { layer, line }: { layer: string; line: number }, within: string[]): void {
    const path = SvgPath(d);
    // What stands before a fault in a path is drawn, so it is here.
    const { err } = path as unknown as { err: string };
    if (err) this.findings.push(finding('svg-path', { line, why: err.replace(/^SvgPath: /, '') }, { line }));
    for (const transform of within) path.transform(transform);
    const chains = new Chains(this.budget);
    path
      .matrix(this.toPart)
      .abs()
      .unshort()
      .iterate((segment, _, x, y) => follow(segment, x, y, chains));
    chains.end(false);
    for (const chain of chains.chains) this.curves.push({ chain, layer, line });
  }

  private leave(what: string, line: number): void {
    const known = this.leftOut.get(what);
    if (known) known.count++;
    else this.leftOut.set(what, { count: 1, line });
  }
}

const isHidden = ({ display, visibility, style = '' }: Record<string, string>): boolean =>
  display === 'none' || visibility === 'hidden' || /(^|;)\s*(display\s*:\s*none|visibility\s*:\s*hidden)/.test(style);

/**
 * Reads an SVG drawing into curves in mm, Y up.
 * @param unit what one of its units is where its width is not given in mm or inches
 * @returns curves, the unit its width was given in, and findings; never throws for a bad file, and never takes more than a budget of steps
 */
export function readSvg(text: string, unit: LengthUnit = 'mm'): Drawing {
  if (text.length > LARGEST) return { curves: [], findings: [finding('dxf-too-large', {})] };
  const findings: Finding[] = [];
  const budget = new Budget(MOST_STEPS);
  let named: LengthUnit | undefined;
  const read = withinBudget<Reading | undefined>(
    () => {
      const root = treeOf(text, findings, budget);
      if (root?.name !== 'svg') return undefined;
      const { scale, named: own, place } = placed(root);
      named = own;
      const by = scale ?? (unit === 'inch' ? MM_PER_INCH : 1);
      const reading = new Reading(
        root,
        place.map((n) => n * by),
        findings,
        budget,
      );
      reading.take({ ...root, attributes: { ...root.attributes, transform: '' } }, '', [], 0);
      return reading;
    },
    () => {
      findings.push(finding('svg-too-many', { millions: MOST_STEPS / 1e6 }));
      return undefined;
    },
  );
  for (const [type, { count, line }] of read?.leftOut ?? [])
    findings.push(finding('svg-skipped', { type, count }, { line }));
  if (!read?.curves.length) findings.push(finding('svg-empty', {}, { line: 1 }));
  return { curves: read?.curves ?? [], unit: named, findings };
}
