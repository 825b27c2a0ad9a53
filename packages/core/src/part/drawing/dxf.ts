/** Reader of ASCII DXF drawings, R12 to current. Our own because a reader must name the line of a fault and never hang. */
import { Chain, Vertex, circle, transform } from '../../geometry/plane/chain';
import { Budget, withinBudget } from '../../quantity/budget';
import { Finding, finding } from '../../quantity/finding';
import { LengthUnit, MM_PER_INCH } from '../../quantity/units';
import { maths } from '../../quantity/maths';

interface Tag {
  code: number;
  value: string;
  line: number;
}

/** An entity: its name, where it stands, and its tags in order. */
interface Entity {
  type: string;
  line: number;
  tags: Tag[];
  /** Vertices of an old-style POLYLINE. */
  vertices: Entity[];
}

interface Block {
  x: number;
  y: number;
  entities: Entity[];
}

/** A curve of the drawing in mm, with its layer. */
export interface DrawnCurve {
  chain: Chain;
  layer: string;
  line: number;
}

export interface Drawing {
  curves: DrawnCurve[];
  /** Unit the header names; undefined when it names none. */
  unit?: LengthUnit;
  findings: Finding[];
}

const LARGEST = 64 * 1024 * 1024;
const DEEPEST_NESTING = 12;
/** Steps of reading: one for every entity and every corner, as often as blocks repeat them. */
const MOST_STEPS = 2_000_000;
/** Splines and ellipses become chords within this of the true curve, mm. */
const CURVE_TOLERANCE = 0.005;

/** $INSUNITS codes and the mm they stand for. */
const UNIT_CODES: Record<number, number> = {
  1: MM_PER_INCH,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: MM_PER_INCH / 1e6,
  9: MM_PER_INCH / 1000,
  13: 0.001,
  14: 100,
};

function* tagsOf(text: string, findings: Finding[]): Generator<Tag> {
  const lines = text.split(/\r\n|\r|\n/);
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = Number(lines[i].trim());
    if (lines[i].trim() === '' || !Number.isInteger(code)) {
      if (lines.slice(i).every((l) => l.trim() === '')) return;
      findings.push(finding('dxf-broken', { line: i + 1, text: lines[i].trim().slice(0, 30) }, { line: i + 1 }));
      return;
    }
    yield { code, value: lines[i + 1].trim(), line: i + 2 };
    if (code === 0 && lines[i + 1].trim() === 'EOF') return;
  }
  findings.push(finding('dxf-no-end', {}, { line: lines.length }));
}

/** A number of an entity; NaN where it is none, or is not given and nothing stands in for it. */
const numberAt = (e: Entity, code: number, otherwise = NaN): number => {
  const tag = e.tags.find((t) => t.code === code);
  if (!tag) return otherwise;
  const value = tag.value === '' ? NaN : Number(tag.value);
  return Number.isFinite(value) ? value : NaN;
};
const radiusOf = (e: Entity): number => {
  const radius = numberAt(e, 40);
  return radius > 0 ? radius : NaN;
};
const numbersAt = (e: Entity, code: number) => e.tags.filter((t) => t.code === code).map((t) => Number(t.value));
const textAt = (e: Entity, code: number, otherwise = '') => e.tags.find((t) => t.code === code)?.value ?? otherwise;

const bulgeOf = (sweepDegrees: number) => maths.tan((sweepDegrees * Math.PI) / 720);

function line(e: Entity): Chain {
  return {
    closed: false,
    vertices: [
      { x: numberAt(e, 10), y: numberAt(e, 20), bulge: 0 },
      { x: numberAt(e, 11), y: numberAt(e, 21), bulge: 0 },
    ],
  };
}

function arc(e: Entity): Chain {
  const [x, y, r] = [numberAt(e, 10), numberAt(e, 20), radiusOf(e)];
  const from = numberAt(e, 50);
  const sweep = (((numberAt(e, 51) - from) % 360) + 360) % 360 || 360;
  const at = (degrees: number): Vertex => {
    const a = (degrees * Math.PI) / 180;
    return { x: x + r * maths.cos(a), y: y + r * maths.sin(a), bulge: bulgeOf(sweep / 2) };
  };
  return { closed: false, vertices: [at(from), at(from + sweep / 2), { ...at(from + sweep), bulge: 0 }] };
}

/** Chains from corner points that may repeat; a repeated point is dropped. */
function polyline(points: Vertex[], closed: boolean): Chain {
  const vertices = points.filter((v, i) => {
    const next = points[i + 1] ?? (closed ? points[0] : undefined);
    return !next || points.length < 2 || maths.hypot(next.x - v.x, next.y - v.y) > 1e-9;
  });
  if (!closed && vertices.length) vertices[vertices.length - 1] = { ...vertices[vertices.length - 1], bulge: 0 };
  return { closed, vertices };
}

function lightPolyline(e: Entity): Chain {
  const points: Vertex[] = [];
  for (const tag of e.tags) {
    const value = Number(tag.value);
    const last = points[points.length - 1];
    if (tag.code === 10) points.push({ x: value, y: NaN, bulge: 0 });
    else if (tag.code === 20 && last) last.y = value;
    else if (tag.code === 42 && last) last.bulge = value;
  }
  return polyline(points, (numberAt(e, 70, 0) & 1) === 1);
}

function heavyPolyline(e: Entity): Chain {
  const points = e.vertices
    .filter((v) => (numberAt(v, 70, 0) & 16) === 0)
    .map((v) => ({ x: numberAt(v, 10), y: numberAt(v, 20), bulge: numberAt(v, 42, 0) }));
  return polyline(points, (numberAt(e, 70, 0) & 1) === 1);
}

function ellipse(e: Entity, scale: number): Chain {
  const [cx, cy] = [numberAt(e, 10), numberAt(e, 20)];
  const [mx, my] = [numberAt(e, 11), numberAt(e, 21)];
  const ratio = radiusOf(e);
  const from = numberAt(e, 41, 0);
  let to = numberAt(e, 42, 2 * Math.PI);
  if (to <= from) to += 2 * Math.PI;
  const major = maths.hypot(mx, my);
  const closed = to - from > 2 * Math.PI - 1e-6;
  const step = 2 * maths.acos(1 - Math.min(0.5, CURVE_TOLERANCE / Math.max(major * scale, CURVE_TOLERANCE)));
  const n = Math.min(2000, Math.max(16, Math.ceil((to - from) / step)));
  const points = Array.from({ length: closed ? n : n + 1 }, (_, i) => {
    const t = from + ((to - from) * i) / n;
    const c = maths.cos(t);
    const s = maths.sin(t) * ratio;
    return { x: cx + mx * c - my * s, y: cy + my * c + mx * s, bulge: 0 };
  });
  return { closed, vertices: points };
}

/** A point of a (rational) B-spline by de Boor's algorithm, and the span it lies in, looked for from `from` on. */
function deBoor(
  degree: number,
  knots: number[],
  control: number[][],
  t: number,
  from: number,
): Vertex & { span: number } {
  let k = from;
  while (k < control.length - 1 && knots[k + 1] <= t) k++;
  const d = Array.from({ length: degree + 1 }, (_, j) => [...control[j + k - degree]]);
  for (let r = 1; r <= degree; r++) {
    for (let j = degree; j >= r; j--) {
      const low = knots[j + k - degree];
      const span = knots[j + 1 + k - r] - low;
      const a = span === 0 ? 0 : (t - low) / span;
      for (let c = 0; c < 3; c++) d[j][c] = (1 - a) * d[j - 1][c] + a * d[j][c];
    }
  }
  const [x, y, w] = d[degree];
  return { x: x / w, y: y / w, bulge: 0, span: k };
}

function spline(e: Entity): Chain | string {
  const flags = numberAt(e, 70, 0);
  const degree = numberAt(e, 71, 3);
  const knots = numbersAt(e, 40);
  const xs = numbersAt(e, 10);
  const ys = numbersAt(e, 20);
  const weights = numbersAt(e, 41);
  if (xs.length === 0) {
    const fx = numbersAt(e, 11);
    const fy = numbersAt(e, 21);
    if (fx.length < 2 || fx.length !== fy.length) return 'it has neither control points nor fit points';
    return polyline(
      fx.map((x, i) => ({ x, y: fy[i], bulge: 0 })),
      (flags & 1) === 1,
    );
  }
  if (
    degree < 1 ||
    degree > 10 ||
    xs.length !== ys.length ||
    xs.length <= degree ||
    knots.length !== xs.length + degree + 1
  ) {
    return `it has ${xs.length} control points and ${knots.length} knots, which do not go together for degree ${degree}`;
  }
  if (xs.length > 20_000) return 'it has more than 20 000 control points';
  const control = xs.map((x, i) => {
    const w = weights[i] || 1;
    return [x * w, ys[i] * w, w];
  });
  const [from, to] = [knots[degree], knots[xs.length]];
  const n = Math.min(20_000, xs.length * 24);
  let at = degree;
  const points = Array.from({ length: n + 1 }, (_, i): Vertex => {
    const t = i === n ? to - (to - from) * 1e-12 : from + ((to - from) * i) / n;
    const { x, y, span } = deBoor(degree, knots, control, t, at);
    at = span;
    return { x, y, bulge: 0 };
  });
  const first = points[0];
  const last = points[n];
  const closed = maths.hypot(first.x - last.x, first.y - last.y) < 1e-6;
  return polyline(closed ? points.slice(0, -1) : points, closed);
}

const CURVES: Record<string, (e: Entity, scale: number) => Chain | string> = {
  LINE: line,
  ARC: arc,
  CIRCLE: (e) => circle(numberAt(e, 10), numberAt(e, 20), radiusOf(e)),
  LWPOLYLINE: lightPolyline,
  POLYLINE: heavyPolyline,
  ELLIPSE: ellipse,
  SPLINE: spline,
};
/** What stands in a file beside what is drawn. */
const SILENT = new Set(['VIEWPORT', 'ATTDEF', 'SEQEND', 'VERTEX', '']);

interface File {
  header: Map<string, string>;
  blocks: Map<string, Block>;
  entities: Entity[];
  budget: Budget;
  /** What was left out, by its sort, and blocks that cannot be placed, each told once. */
  leftOut: Map<string, { count: number; line: number }>;
  told: Set<string>;
  /** Whether a section was still open when the file ended. */
  isOpen: boolean;
  /** Line of the entity of the drawing itself that is being read. */
  line: number;
}

function readFile(text: string, findings: Finding[]): File {
  const file: File = {
    header: new Map(),
    blocks: new Map(),
    entities: [],
    budget: new Budget(MOST_STEPS),
    leftOut: new Map(),
    told: new Set(),
    isOpen: false,
    line: 1,
  };
  let section = '';
  let variable = '';
  let block: Block | undefined;
  let entity: Entity | undefined;
  let owner: Entity | undefined;
  for (const tag of tagsOf(text, findings)) {
    if (tag.code === 0) {
      const next: Entity = { type: tag.value.toUpperCase(), line: tag.line, tags: [], vertices: [] };
      if (next.type === 'SECTION' || next.type === 'ENDSEC') [section, file.isOpen] = ['', next.type === 'SECTION'];
      else if (next.type === 'BLOCK') block = { x: 0, y: 0, entities: [] };
      else if (next.type === 'ENDBLK') block = undefined;
      else if (next.type === 'VERTEX' && owner) owner.vertices.push(next);
      else if (section === 'ENTITIES') file.entities.push(next);
      else if (section === 'BLOCKS' && block) block.entities.push(next);
      if (next.type !== 'VERTEX') owner = next.type === 'POLYLINE' ? next : undefined;
      entity = next;
      continue;
    }
    if (entity?.type === 'SECTION' && tag.code === 2) section = tag.value.toUpperCase();
    else if (section === 'HEADER') {
      if (tag.code === 9) variable = tag.value;
      else if (!file.header.has(variable)) file.header.set(variable, tag.value);
    } else if (entity?.type === 'BLOCK' && block) {
      if (tag.code === 2) file.blocks.set(tag.value, block);
      if (tag.code === 10) block.x = Number(tag.value) || 0;
      if (tag.code === 20) block.y = Number(tag.value) || 0;
    } else entity?.tags.push(tag);
  }
  const last = findings.findIndex((f) => f.code === 'dxf-no-end');
  // Where a section is still open, something is missing; where none is, the mark alone.
  if (last >= 0 && file.isOpen) findings[last] = finding('dxf-cut-short', {}, findings[last].place);
  return file;
}

const isSound = (chain: Chain) =>
  chain.vertices.length > 1 &&
  chain.vertices.every((v) => [v.x, v.y, v.bulge].every((n) => Number.isFinite(n) && Math.abs(n) < 1e7));

/** Places a block: scaled (each axis), turned, moved. Uneven scale turns arcs into chords. */
function place(chain: Chain, insert: Entity, block: Block): Chain {
  const sx = numberAt(insert, 41, 1);
  const sy = numberAt(insert, 42, 1);
  const moved = transform(chain, { dx: -block.x, dy: -block.y });
  const even = Math.abs(Math.abs(sx) - Math.abs(sy)) < 1e-9;
  const scaled: Chain = {
    closed: moved.closed,
    vertices: moved.vertices.map((v) => ({
      x: v.x * sx,
      y: v.y * sy,
      bulge: even ? v.bulge * Math.sign(sx * sy) : v.bulge,
    })),
  };
  return transform(scaled, { turn: numberAt(insert, 50, 0), dx: numberAt(insert, 10, 0), dy: numberAt(insert, 20, 0) });
}

/** Arcs as short straights, for scales that would make them ellipses. */
function chords(chain: Chain): Chain {
  if (chain.vertices.every((v) => v.bulge === 0)) return chain;
  const out: Vertex[] = [];
  const n = chain.vertices.length;
  chain.vertices.forEach((a, i) => {
    out.push({ ...a, bulge: 0 });
    if (a.bulge === 0 || (!chain.closed && i === n - 1)) return;
    const b = chain.vertices[(i + 1) % n];
    const sweep = 4 * maths.atan(a.bulge);
    const off = (1 - a.bulge * a.bulge) / (4 * a.bulge);
    const c = { x: (a.x + b.x) / 2 - (b.y - a.y) * off, y: (a.y + b.y) / 2 + (b.x - a.x) * off };
    const steps = Math.ceil(Math.abs(sweep) / 0.05);
    for (let k = 1; k < steps; k++) {
      const t = (sweep * k) / steps;
      const [dx, dy] = [a.x - c.x, a.y - c.y];
      out.push({
        x: c.x + dx * maths.cos(t) - dy * maths.sin(t),
        y: c.y + dx * maths.sin(t) + dy * maths.cos(t),
        bulge: 0,
      });
    }
  });
  return { closed: chain.closed, vertices: out };
}

function leaveOut({ type, line: at }: Entity, { leftOut }: File): void {
  const known = leftOut.get(type);
  if (known) known.count++;
  else leftOut.set(type, { count: 1, line: at });
}

/** Tells once of a block, however often it is placed. */
function tellOnce(fault: Finding, { told }: File, findings: Finding[]): void {
  if (told.has(fault.message)) return;
  told.add(fault.message);
  findings.push(fault);
}

function curvesOf(entities: Entity[], file: File, scale: number, findings: Finding[], depth: number): DrawnCurve[] {
  const out: DrawnCurve[] = [];
  for (const e of entities) {
    if (depth === 0) file.line = e.line;
    file.budget.spend();
    const layer = textAt(e, 8, '0');
    if (e.type === 'INSERT') {
      for (const curve of inserted(e, layer, file, scale, findings, depth)) out.push(curve);
      continue;
    }
    const read = CURVES[e.type];
    if (!read) {
      if (!SILENT.has(e.type)) leaveOut(e, file);
      continue;
    }
    const mirrored = numberAt(e, 230, 1) < 0;
    const chain = read(e, scale);
    if (typeof chain === 'string') findings.push(finding('dxf-curve', { type: e.type, why: chain }, { line: e.line }));
    else if (!isSound(chain))
      findings.push(
        finding('dxf-curve', { type: e.type, why: 'its numbers are missing or impossible' }, { line: e.line }),
      );
    else {
      file.budget.spend(chain.vertices.length);
      out.push({ chain: mirrored ? transform(chain, { mirror: true, turn: 180 }) : chain, layer, line: e.line });
    }
  }
  return out;
}

function inserted(
  e: Entity,
  layer: string,
  file: File,
  scale: number,
  findings: Finding[],
  depth: number,
): DrawnCurve[] {
  const name = textAt(e, 2);
  const block = file.blocks.get(name);
  if (!block) {
    tellOnce(finding('dxf-block-missing', { block: name }, { line: e.line }), file, findings);
    return [];
  }
  if (depth >= DEEPEST_NESTING) {
    tellOnce(finding('dxf-blocks-nested', { deepest: DEEPEST_NESTING }, { line: e.line }), file, findings);
    return [];
  }
  const places = placesOf(e);
  if (typeof places === 'string') {
    tellOnce(finding('dxf-block-place', { block: name, why: places }, { line: e.line }), file, findings);
    return [];
  }
  file.budget.spend(places.length);
  file.budget.spend(places.length);
  const even = Math.abs(Math.abs(numberAt(e, 41, 1)) - Math.abs(numberAt(e, 42, 1))) < 1e-9;
  const inner = curvesOf(block.entities, file, scale, findings, depth + 1);
  return places.flatMap(([dx, dy]) =>
    inner.map((c) => {
      file.budget.spend(c.chain.vertices.length);
      const placed = place(even ? c.chain : chords(c.chain), e, block);
      return { ...c, chain: transform(placed, { dx, dy }), layer: c.layer === '0' ? layer : c.layer };
    }),
  );
}

/** Copies of a block in one INSERT at most. */
const MOST_COPIES = 10_000;

/** Where the copies of a block go, in rows and columns that turn with it; or why that cannot be. */
function placesOf(e: Entity): [number, number][] | string {
  const figures = [10, 20].map((code) => numberAt(e, code, 0));
  const more = [41, 42].map((code) => numberAt(e, code, 1));
  const [columns, rows] = [70, 71].map((code) => numberAt(e, code, 1));
  const [across, up, turn] = [44, 45, 50].map((code) => numberAt(e, code, 0));
  if (![...figures, ...more, columns, rows, across, up, turn].every((n) => Number.isFinite(n) && Math.abs(n) < 1e7))
    return 'its numbers are missing or impossible';
  if (columns < 0 || rows < 0 || columns * rows > MOST_COPIES) return `it asks for ${columns} x ${rows} copies`;
  const [cos, sin] = [maths.cos((turn * Math.PI) / 180), maths.sin((turn * Math.PI) / 180)];
  const places: [number, number][] = [];
  for (let j = 0; j < Math.max(1, rows); j++)
    for (let i = 0; i < Math.max(1, columns); i++)
      places.push([i * across * cos - j * up * sin, i * across * sin + j * up * cos]);
  return places;
}

/**
 * Reads an ASCII DXF drawing into curves in mm.
 * @param unit unit to assume when the header names none
 * @returns curves, the unit the header named, and findings; never throws for a bad file, and never takes more than a budget of steps
 */
export function readDxf(text: string, unit: LengthUnit = 'mm'): Drawing {
  const findings: Finding[] = [];
  if (text.length > LARGEST) {
    return { curves: [], findings: [finding('dxf-too-large', {})] };
  }
  if (text.includes('\u0000')) {
    return {
      curves: [],
      findings: [finding('dxf-binary', {}, { line: 1 })],
    };
  }
  const file = readFile(text, findings);
  const named = UNIT_CODES[Number(file.header.get('$INSUNITS'))];
  const scale = named ?? (unit === 'inch' ? MM_PER_INCH : 1);
  const tooMany = () => {
    findings.push(finding('dxf-too-many', { millions: MOST_STEPS / 1e6 }, { line: file.line }));
    return undefined;
  };
  const drawn = withinBudget(() => curvesOf(file.entities, file, scale, findings, 0), tooMany);
  for (const [type, { count, line: at }] of file.leftOut)
    findings.push(finding('dxf-skipped', { type, count }, { line: at }));
  const curves = (drawn ?? []).map((c) => ({ ...c, chain: transform(c.chain, { scale }) }));
  if (drawn?.length === 0) {
    findings.push(finding('dxf-empty', {}, { line: 1 }));
  }
  return { curves, unit: named === undefined ? undefined : named % MM_PER_INCH < 1e-9 ? 'inch' : 'mm', findings };
}
