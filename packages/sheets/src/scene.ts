/** Drawings as flat lists of marks, in mm from the top left, Y downwards: what every pen draws. No colour is needed to read them. */

export interface Spot {
  x: number;
  y: number;
}

/** Weights of lines, mm. */
export const WEIGHTS = { fine: 0.13, thin: 0.2, plain: 0.3, bold: 0.55 } as const;
export type Weight = keyof typeof WEIGHTS;

/** How an area is filled, as a grey between 0 (black) and 1. */
export const GREYS = { ink: 0.08, dark: 0.62, middle: 0.8, light: 0.93, paper: 1 } as const;
export type Grey = keyof typeof GREYS;

export interface Drawn {
  weight?: Weight;
  dashed?: boolean;
  fill?: Grey;
}

export type Mark =
  | ({ kind: 'line'; from: Spot; to: Spot } & Pick<Drawn, 'weight' | 'dashed'>)
  | ({ kind: 'polygon'; rings: Spot[][] } & Drawn)
  | ({ kind: 'circle'; at: Spot; radius: number } & Drawn)
  | ({ kind: 'rectangle'; at: Spot; width: number; height: number } & Drawn)
  | {
      kind: 'text';
      at: Spot;
      text: string;
      /** Height of the letters’ body, mm. */
      size: number;
      anchor?: 'start' | 'middle' | 'end';
      bold?: boolean;
    };

/** A drawing and the room it takes, mm. */
export interface Scene {
  width: number;
  height: number;
  marks: Mark[];
}

const moved = ({ x, y }: Spot, by: Spot): Spot => ({ x: x + by.x, y: y + by.y });

/** The same marks elsewhere. */
export const shifted = (marks: Mark[], by: Spot): Mark[] =>
  marks.map((m): Mark => {
    if (m.kind === 'line') return { ...m, from: moved(m.from, by), to: moved(m.to, by) };
    if (m.kind === 'polygon') return { ...m, rings: m.rings.map((ring) => ring.map((p) => moved(p, by))) };
    return { ...m, at: moved(m.at, by) };
  });

export const line = (from: Spot, to: Spot, weight: Weight = 'thin', dashed = false): Mark => ({
  kind: 'line',
  ...{ from, to, weight, dashed },
});

export const polygon = (rings: Spot[][], drawn: Drawn = {}): Mark => ({ kind: 'polygon', rings, ...drawn });

export const words = (
  at: Spot,
  text: string,
  size: number,
  more: { anchor?: 'start' | 'middle' | 'end'; bold?: boolean } = {},
): Mark => ({ kind: 'text', at, text, size, ...more });

/** How a drawing of things in space or on a plane comes onto paper: scaled, Y turned down, its corner at the origin. */
export interface Fit {
  scale: number;
  at: (p: Spot) => Spot;
  /** What is really drawn over, mm. */
  width: number;
  height: number;
}

/** Fits points into a width and height with a rim around them, in the middle of that room. */
export function fitted(points: Spot[], width: number, height: number, rim: number): Fit {
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const least = { x: Math.min(...xs), y: Math.min(...ys) };
  const [wide, high] = [Math.max(...xs) - least.x, Math.max(...ys) - least.y];
  const scale = Math.min((width - 2 * rim) / Math.max(wide, 1e-6), (height - 2 * rim) / Math.max(high, 1e-6));
  const [left, below] = [(width - wide * scale) / 2, (height - high * scale) / 2];
  return {
    scale,
    at: ({ x, y }) => ({ x: left + (x - least.x) * scale, y: height - below - (y - least.y) * scale }),
    width,
    height,
  };
}
