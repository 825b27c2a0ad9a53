/** How the work is held: in parallel view, from above with its zero, and from the front with what is measured. */
import { FixtureBox, Job, Setup, formatLength, groundOf, outlineOf, partModel } from '@tidypath/core';
import { Fit, Grey, Mark, Scene, Spot, fitted, line, polygon, shifted, words } from '../scene';

type Ground = ReturnType<typeof groundOf>;
interface Solid {
  ring: Spot[];
  low: number;
  high: number;
  fill: Grey;
}

const LETTERS = 2.6;

const partOf = (ground: Ground): Spot[][] => ground.model.outline;

/** Rings of everything the part has below its top. */
const insideOf = ({ model }: Ground): Spot[][] => [
  ...model.floors.flatMap((f) => f.region),
  ...model.holes.map(({ centre, diameter }) => circle(centre, diameter / 2)),
];

function circle({ x, y }: Spot, r: number): Spot[] {
  const turns = Array.from({ length: 24 }, (_, i) => (i * Math.PI) / 12);
  return turns.map((a) => ({ x: x + r * Math.cos(a), y: y + r * Math.sin(a) }));
}

const solidOf = (body: FixtureBox): Solid => ({
  ring: outlineOf(body),
  low: body.minZ,
  high: body.maxZ,
  fill: 'dark',
});

/** Stock, and what holds it. */
function solids({ stock, fixtures }: Ground): { stock: Solid[]; held: Solid[] } {
  return {
    stock: stock.region.map((ring): Solid => ({ ring, low: stock.bottom, high: stock.top, fill: 'light' })),
    held: fixtures.map(solidOf),
  };
}

/** Parallel view from the front right, from above: X to the right and down, Y to the right and up. */
const seen = ({ x, y }: Spot, z: number): Spot => ({ x: 0.87 * x + 0.5 * y, y: -0.3 * x + 0.52 * y + 0.8 * z });
/** How far something is from who looks. */
const away = ({ x, y }: Spot) => y * 0.87 - x * 0.5;

const middle = (ring: Spot[]): Spot => ({
  x: ring.reduce((s, p) => s + p.x, 0) / ring.length,
  y: ring.reduce((s, p) => s + p.y, 0) / ring.length,
});

/** A solid with upright walls, those that are seen first, its top last. */
function upright({ ring, low, high, fill }: Solid, at: (p: Spot, z: number) => Spot): Mark[] {
  const turn = ring.reduce((s, p, i) => {
    const q = ring[(i + 1) % ring.length];
    return s + p.x * q.y - q.x * p.y;
  }, 0);
  const round = turn < 0 ? [...ring].reverse() : ring;
  const isFine = round.length > 12;
  const walls = round
    .map((p, i): [Spot, Spot] => [p, round[(i + 1) % round.length]])
    // Its outside looks this way.
    .filter(([p, q]) => 0.87 * (q.x - p.x) + 0.5 * (q.y - p.y) > 0)
    .sort(([a], [b]) => away(b) - away(a));
  return [
    ...walls.map(([p, q]) =>
      polygon([[at(p, low), at(q, low), at(q, high), at(p, high)]], {
        weight: isFine ? undefined : 'thin',
        fill: fill === 'light' ? 'middle' : fill,
      }),
    ),
    polygon([round.map((p) => at(p, high))], { weight: 'thin', fill: fill === 'dark' ? 'middle' : fill }),
  ];
}

function axesAt(zero: Spot, at: (p: Spot) => Spot, long: number): Mark[] {
  const o = at(zero);
  const [x, y] = [at({ x: zero.x + long, y: zero.y }), at({ x: zero.x, y: zero.y + long })];
  return [
    line(o, x, 'bold'),
    line(o, y, 'bold'),
    words({ x: x.x + 1, y: x.y + 0.9 }, 'X', LETTERS, { bold: true }),
    words({ x: y.x - 0.8, y: y.y - 1.2 }, 'Y', LETTERS, { bold: true }),
    { kind: 'circle', at: o, radius: 1.3, weight: 'plain', fill: 'paper' },
    { kind: 'circle', at: o, radius: 0.45, fill: 'ink' },
  ];
}

/** In parallel view. */
function parallelView(ground: Ground, width: number, height: number): Mark[] {
  const { stock, held } = solids(ground);
  const all = [...stock, ...held];
  const corners = all.flatMap(({ ring, low, high }) => ring.flatMap((p) => [seen(p, low), seen(p, high)]));
  const fit = fitted(corners, width, height, 4);
  const at = (p: Spot, z: number) => fit.at(seen(p, z));
  const { top } = ground.stock;
  const inOrder = [...all].sort((a, b) => away(middle(b.ring)) - away(middle(a.ring)) || a.low - b.low);
  const onTop = partOf(ground).map((ring) => ring.map((p) => at(p, top)));
  const marks = inOrder.flatMap((solid) => [
    ...upright(solid, at),
    ...(solid === stock[0] ? [polygon(onTop, { weight: 'plain' })] : []),
  ]);
  return [...marks, ...axesAt(ground.zero, (p) => at(p, ground.zero.z), 9 / fit.scale)];
}

/** From above. */
function plan(ground: Ground, width: number, height: number): Mark[] {
  const { stock, held } = solids(ground);
  const fit = fitted(
    [...stock, ...held].flatMap((s) => s.ring),
    width,
    height,
    6,
  );
  const on = (ring: Spot[]) => ring.map(fit.at);
  return [
    polygon(
      stock.map((s) => on(s.ring)),
      { weight: 'thin', fill: 'light' },
    ),
    polygon(insideOf(ground).map(on), { weight: 'fine' }),
    polygon(partOf(ground).map(on), { weight: 'plain' }),
    ...held.map((h) => polygon([on(h.ring)], { weight: 'thin', fill: 'dark' })),
    ...axesAt(ground.zero, fit.at, 9 / fit.scale),
  ];
}

/** Lengths up and down at the side of a drawing: each in a column of its own, led there from what it measures. */
class Heights {
  readonly marks: Mark[] = [];
  private columns = 0;

  constructor(
    private readonly fit: Fit,
    /** Where what is drawn ends, and the first column stands. */
    private readonly from: number,
    private readonly job: Job,
  ) {}

  add(low: number, high: number, name: string): void {
    if (high - low < 0.005) return;
    const x = this.from + 5 + 27 * this.columns++;
    const [a, b] = [low, high].map((y) => this.fit.at({ x: 0, y }).y);
    const said = formatLength(Math.round((high - low) * 1000) / 1000, this.job.unit);
    for (const y of [a, b]) this.marks.push(line({ x: this.from - 3, y }, { x: x + 1.2, y }, 'fine', true));
    this.marks.push(
      line({ x, y: a }, { x, y: b }, 'plain'),
      words({ x: x + 1.8, y: (a + b) / 2 - 0.4 }, name, LETTERS),
      words({ x: x + 1.8, y: (a + b) / 2 + 2.7 }, said, LETTERS, { bold: true }),
    );
  }
}

/** Least and most of what bodies take along an axis. */
const spanOf = (points: Spot[], axis: 'x' | 'y'): [number, number] => {
  const all = points.map((p) => p[axis]);
  return [Math.min(...all), Math.max(...all)];
};

/** The axis along which what holds the work stands beside it: across that one sees how it grips. */
function gripAxis({ stock, fixtures }: Ground): 'x' | 'y' {
  const ring = stock.region.flat();
  const beyond = (axis: 'x' | 'y') => {
    const [low, high] = spanOf(ring, axis);
    const [least, most] = spanOf([...ring, ...fixtures.flatMap(outlineOf)], axis);
    return low - least + (most - high);
  };
  return beyond('y') > beyond('x') ? 'y' : 'x';
}

/** From the side where one sees how it is gripped, with the lengths whoever sets it up measures. */
function sideView(ground: Ground, job: Job, width: number, height: number): Mark[] {
  const { stock, fixtures, model, held } = ground;
  const axis = gripAxis(ground);
  const box = (points: Spot[], low: number, high: number): Spot[] => {
    const [from, to] = spanOf(points, axis);
    return [
      { x: from, y: low },
      { x: to, y: low },
      { x: to, y: high },
      { x: from, y: high },
    ];
  };
  const blank = box(stock.region.flat(), stock.bottom, stock.top);
  const bodies = fixtures.map((f) => box(outlineOf(f), f.minZ, f.maxZ));
  const room = 92;
  const fit = fitted([...blank, ...bodies.flat()], width - room, height - 4, 4);
  const on = (points: Spot[]) => points.map(fit.at);
  const outline = model.outline.flat();
  const zero = fit.at({ x: ground.zero[axis], y: ground.zero.z });
  const from = Math.max(...[...blank, ...bodies.flat()].map((p) => fit.at(p).x));
  const heights = new Heights(fit, from + 3, job);
  const above = Math.max(stock.bottom, ...held.flatMap((h) => h.placed.bodies).map((j) => j.maxZ));
  const isGripped = above > stock.bottom && above < stock.top;
  if (isGripped) {
    heights.add(above, stock.top, 'sticks up');
    heights.add(stock.bottom, above, 'gripped');
  }
  heights.add(0, stock.top, 'over the part');
  const fixed = held.flatMap((h) => h.placed.fixed ?? [])[0];
  return [
    ...bodies.map((b) => polygon([on(b)], { weight: 'thin', fill: 'dark' })),
    polygon([on(blank)], { weight: 'plain', fill: 'light' }),
    ...(outline.length > 0 ? [polygon([on(box(outline, -model.thickness, 0))], { weight: 'thin', dashed: true })] : []),
    { kind: 'circle', at: zero, radius: 1.3, weight: 'plain', fill: 'paper' },
    { kind: 'circle', at: zero, radius: 0.45, fill: 'ink' },
    ...heights.marks,
    words(
      { x: 1.5, y: height - 1.5 },
      `seen ${axis === 'y' ? 'from the side, along X' : 'from the front, along Y'}${fixed ? `; ${toJaw(ground.zero, fixed, job)}` : ''}`,
      LETTERS,
    ),
  ];
}

/** How far the zero is from the jaw that stands still, along X and Y. */
function toJaw(zero: Spot, jaw: FixtureBox, job: Job): string {
  const gap = (at: number, low: number, high: number) => (at < low ? low - at : at > high ? at - high : 0);
  const [dx, dy] = [gap(zero.x, jaw.minX, jaw.maxX), gap(zero.y, jaw.minY, jaw.maxY)];
  const say = (mm: number) => formatLength(Math.round(mm * 1000) / 1000, job.unit);
  return `zero to the fixed jaw: ${dx === 0 && dy === 0 ? 'at it' : dy >= dx ? `${say(dy)} in Y` : `${say(dx)} in X`}`;
}

const [WIDE, HALF, TALL, LOW] = [186, 91, 62, 46];

/** All three together, as wide as a sheet. */
export function heldPicture(job: Job, setup: Setup): Scene {
  const ground = groundOf(job, setup, partModel);
  const frame = (x: number, y: number, width: number, height: number): Mark => ({
    kind: 'rectangle',
    at: { x, y },
    ...{ width, height, weight: 'fine' },
  });
  return {
    width: WIDE,
    height: TALL + LOW + 4,
    marks: [
      frame(0, 0, HALF, TALL),
      ...parallelView(ground, HALF, TALL),
      frame(WIDE - HALF, 0, HALF, TALL),
      ...shifted(plan(ground, HALF, TALL), { x: WIDE - HALF, y: 0 }),
      frame(0, TALL + 4, WIDE, LOW),
      ...shifted(sideView(ground, job, WIDE, LOW), { x: 0, y: TALL + 4 }),
    ],
  };
}
