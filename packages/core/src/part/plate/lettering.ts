import { Chain, Vertex, transform } from '../../geometry/plane/chain';
import { Point, distance } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';

/**
 * A lettering of single lines, drawn for engraving: capitals 9 units high, small letters 6, the baseline at 0. Strokes are separated
 * by semicolons; a corner with an `r` is rounded by 2 units, or by the number behind it; a `z` closes a stroke.
 */
const LETTERS: Record<string, string> = {
  A: '0,0 3,9 6,0; 1,3 5,3',
  B: '0,5 0,9 5,9r 5,5r 0,5 0,0 6,0r 6,5r 0,5',
  C: '6,7 6,9r 0,9r 0,0r 6,0r 6,2',
  D: '0,0r0 0,9 6,9r3 6,0r3 z',
  E: '6,0 0,0 0,9 6,9; 0,5 5,5',
  F: '0,0 0,9 6,9; 0,5 5,5',
  G: '6,7 6,9r 0,9r 0,0r 6,0r 6,4 3,4',
  H: '0,0 0,9; 6,9 6,0; 0,5 6,5',
  I: '0,0 0,9',
  J: '0,2 0,0r 5,0r 5,9',
  K: '0,0 0,9; 6,9 0,3; 2,5 6,0',
  L: '0,9 0,0 6,0',
  M: '0,0 0,9 3.5,3 7,9 7,0',
  N: '0,0 0,9 6,0 6,9',
  O: '0,0r3 6,0r3 6,9r3 0,9r3 z',
  P: '0,0 0,9 6,9r 6,4r 0,4',
  Q: '0,0r3 6,0r3 6,9r3 0,9r3 z; 4,2 7,-1',
  R: '0,0 0,9 6,9r 6,4r 0,4; 3,4 6,0',
  S: '6,7.5 6,9r 0,9r 0,5r 6,5r 6,0r 0,0r 0,1.5',
  T: '0,9 6,9; 3,9 3,0',
  U: '0,9 0,0r3 6,0r3 6,9',
  V: '0,9 3,0 6,9',
  W: '0,9 2,0 4,6 6,0 8,9',
  X: '0,0 6,9; 0,9 6,0',
  Y: '0,9 3,4 6,9; 3,4 3,0',
  Z: '0,9 6,9 0,0 6,0',
  a: '5,6 0,6r 0,0r 5,0 z',
  b: '0,9 0,0 5,0r 5,6r 0,6',
  c: '5,4.5 5,6r 0,6r 0,0r 5,0r 5,1.5',
  d: '5,9 5,0 0,0r 0,6r 5,6',
  e: '0,3 5,3 5,6r 0,6r 0,0r 5,0r1 5,1',
  f: '1,0 1,9r 4,9; 0,6 3,6',
  g: '5,0 0,0r 0,6r 5,6 5,-3r 0,-3r 0,-2',
  h: '0,9 0,0; 0,6 5,6r 5,0',
  i: '0,0 0,6; 0,8 0,9',
  j: '0,-3 2,-3r 2,6; 2,8 2,9',
  k: '0,9 0,0; 4,6 0,2; 1.5,3.5 5,0',
  l: '0,9 0,0r1 1.5,0',
  m: '0,0 0,6 8,6r 8,0; 4,6 4,0',
  n: '0,0 0,6 5,6r 5,0',
  o: '0,0r 5,0r 5,6r 0,6r z',
  p: '0,-3 0,6 5,6r 5,0r 0,0',
  q: '5,-3 5,6 0,6r 0,0r 5,0',
  r: '0,0 0,6r 3.5,6',
  s: '5,5 5,6r1 0,6r1.5 0,3r1.5 5,3r1.5 5,0r1.5 0,0r1 0,1',
  t: '1,9 1,0r 4,0; 0,6 4,6',
  u: '0,6 0,0r 5,0; 5,6 5,0',
  v: '0,6 2.5,0 5,6',
  w: '0,6 2,0 3.5,4 5,0 7,6',
  x: '0,0 5,6; 0,6 5,0',
  y: '0,6 0,0r 5,0; 5,6 5,-3r 0,-3',
  z: '0,6 5,6 0,0 5,0',
  ß: '0,-1 0,9r 4.5,9r 4.5,5 2,5; 2,5 5,5r 5,0r 1.5,0',
  0: '0,0r 5,0r 5,9r 0,9r z',
  1: '0,7 2,9 2,0',
  2: '0,7 0,9r 5,9r 5,5 0,0 5,0',
  3: '0,9 5,9 2,5.5 5,5.5r 5,0r 0,0r 0,1.5',
  4: '4,0 4,9 0,3 6,3',
  5: '5,9 0,9 0,5 5,5r 5,0r 0,0r 0,1.5',
  6: '5,8 5,9r1 0,9r 0,0r 5,0r 5,5r 0,5',
  7: '0,9 5,9 2,0',
  8: '0,9r 5,9r 5,5r 0,5r z; 0,0r 5,0r 5,5r 0,5r z',
  9: '0,1 0,0r1 5,0r 5,9r 0,9r 0,4r 5,4',
  '.': '0,0 0,0.6',
  ',': '0.6,0.6 0,-1.5',
  ':': '0,0.5 0,1.1; 0,4.4 0,5',
  ';': '0.6,1.1 0,-1; 0.6,4.4 0.6,5',
  '!': '0,9 0,2.5; 0,0 0,0.6',
  '?': '0,7 0,9r 5,9r 5,5r 2.5,5r1 2.5,2.5; 2.5,0 2.5,0.6',
  '-': '0,4 4,4',
  _: '0,-1 6,-1',
  '+': '0,4 5,4; 2.5,1.5 2.5,6.5',
  '±': '0,5 5,5; 2.5,2.5 2.5,7.5; 0,1 5,1',
  '×': '0,1.5 5,6.5; 0,6.5 5,1.5',
  '=': '0,3 5,3; 0,5.5 5,5.5',
  '*': '0,7 4,7; 1,5.3 3,8.7; 1,8.7 3,5.3',
  '/': '0,-1 4,10',
  '\\': '0,10 4,-1',
  '(': '2,10 0,8r4 0,1r4 2,-1',
  ')': '0,10 2,8r4 2,1r4 0,-1',
  '[': '2,10 0,10 0,-1 2,-1',
  ']': '0,10 2,10 2,-1 0,-1',
  '<': '4,1.5 0,4 4,6.5',
  '>': '0,1.5 4,4 0,6.5',
  '#': '1,1 2,8; 4,1 5,8; 0,3 5.5,3; 0.5,6 6,6',
  '%': '0,0 6,9; 0,6.5r 2.5,6.5r 2.5,9r 0,9r z; 3.5,0r 6,0r 6,2.5r 3.5,2.5r z',
  '°': '0,6.5r 2.5,6.5r 2.5,9r 0,9r z',
  "'": '0,7 0,9',
  '"': '0,7 0,9; 2,7 2,9',
  '&': '6,0 0,7r 2.5,10r 5,7r 0,3r 0,0r 4,0r 6,4',
  Ø: '0,0r3 6,0r3 6,9r3 0,9r3 z; 0,0 6,9',
  ø: '0,0r 5,0r 5,6r 0,6r z; 0,0 5,6',
  µ: '0,-3 0,6; 0,0 5,0; 5,6 5,0',
};

/** Marks over a letter, about its middle, from just above its top. */
const ACCENTS: Record<string, string> = {
  '\u0300': '-1.5,1.5 0,0',
  '\u0301': '0,0 1.5,1.5',
  '\u0302': '-1.5,0 0,1.5 1.5,0',
  '\u0303': '-2,0 -1,1 1,0 2,1',
  '\u0308': '-1.5,0 -1.5,0.8; 1.5,0 1.5,0.8',
  '\u030a': '-1,0r 1,0r 1,2r -1,2r z',
};

const CAPITAL = 9;
const SMALL = 6;
/** Room between letters, between a letter and its accent, and the width of a blank. */
const SPACING = 3;
const ABOVE = 1;
const BLANK = 4;
const ROUNDED = 2;

type Corner = Point & { round: number };

/** The vertices that stand for a corner: itself, or both ends of the arc that rounds it. */
function rounded(before: Corner | undefined, at: Corner, after: Corner | undefined): Vertex[] {
  if (!at.round || !before || !after) return [{ x: at.x, y: at.y, bulge: 0 }];
  const [a, b] = [distance(before, at), distance(at, after)];
  const [d, e] = [
    { x: (at.x - before.x) / a, y: (at.y - before.y) / a },
    { x: (after.x - at.x) / b, y: (after.y - at.y) / b },
  ];
  const turn = maths.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y);
  const room = Math.min(before.round ? a / 2 : a, after.round ? b / 2 : b);
  const t = Math.min(room, at.round * maths.tan(Math.abs(turn) / 2));
  return [
    { x: at.x - d.x * t, y: at.y - d.y * t, bulge: maths.tan(turn / 4) },
    { x: at.x + e.x * t, y: at.y + e.y * t, bulge: 0 },
  ];
}

function strokeOf(text: string): Chain {
  const words = text.trim().split(' ');
  const closed = words[words.length - 1] === 'z';
  const corners = (closed ? words.slice(0, -1) : words).map((word): Corner => {
    const [x, y, round] = word.split(/[,r]/);
    return { x: Number(x), y: Number(y), round: word.includes('r') ? Number(round || ROUNDED) : 0 };
  });
  const n = corners.length;
  const at = (i: number) => (closed ? corners[(i + n) % n] : corners[i]);
  const vertices = corners.flatMap((c, i) => rounded(at(i - 1), c, at(i + 1)));
  const apart = vertices.filter((v, i) => {
    const next = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    return v.bulge !== 0 || !next || distance(v, next) > 1e-9;
  });
  return { closed, vertices: apart };
}

const strokesOf = (text: string): Chain[] => text.split(';').map(strokeOf);

const widthOf = (strokes: Chain[]) => Math.max(0, ...strokes.flatMap((s) => s.vertices.map((v) => v.x)));

/** A letter with its accents, or nothing where the lettering does not have it. */
function letterOf(character: string): Chain[] | undefined {
  if (LETTERS[character]) return strokesOf(LETTERS[character]);
  const [base, ...marks] = character.normalize('NFD');
  if (!LETTERS[base] || marks.length === 0 || marks.some((m) => !ACCENTS[m])) return undefined;
  const strokes = strokesOf(LETTERS[base]);
  const shift = { dx: widthOf(strokes) / 2, dy: (/[a-z]/.test(base) ? SMALL : CAPITAL) + ABOVE };
  return [...strokes, ...marks.flatMap((m) => strokesOf(ACCENTS[m]).map((s) => transform(s, shift)))];
}

/** Characters of a text that the lettering does not have. */
export const unknownLetters = (text: string): string[] => [
  ...new Set([...text.normalize('NFC')].filter((c) => c !== ' ' && !letterOf(c))),
];

/**
 * Single lines of a text, its middle at the origin; letters it does not have are left out.
 * @param height of capitals, mm
 */
export function lettering(text: string, height: number): Chain[] {
  const scale = height / CAPITAL;
  const strokes: Chain[] = [];
  let x = 0;
  for (const character of text.normalize('NFC')) {
    const letter = character === ' ' ? [] : letterOf(character);
    if (!letter) continue;
    strokes.push(...letter.map((s) => transform(s, { dx: x })));
    x += (character === ' ' ? BLANK : widthOf(letter)) + SPACING;
  }
  const middle = { dx: (-Math.max(0, x - SPACING) / 2) * scale, dy: -height / 2, scale };
  return strokes.map((s) => transform(s, middle));
}
