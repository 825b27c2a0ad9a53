import { Path } from '../../path/path';
import { joints } from './copies';
import { HandStep, Step, isHand } from './step';

type AnyStep = Step | HandStep;

/** Share of a program's room that a piece of a step is aimed at; the rest is its head and tool call. */
const AIM = 0.85;

function part(path: Path, from: number, to: number): Path {
  const cut = <T extends Float64Array | Uint8Array>(values: T) => values.slice(from, to) as T;
  const { kind, tag, x, y, z, cx, cy, feed } = path;
  return {
    count: to - from,
    ...{ kind: cut(kind), tag: cut(tag), x: cut(x), y: cut(y), z: cut(z), cx: cut(cx), cy: cut(cy), feed: cut(feed) },
    compensation: path.compensation
      .filter((c) => c.move >= from && c.move < to)
      .map((c) => ({ ...c, move: c.move - from })),
  };
}

/** A step in pieces that should fit; as few as its joints allow. */
function piecesOf(step: Step, bytes: number, most: number): Step[] {
  const { path } = step;
  const moves = Math.floor((path.count * most * AIM) / bytes);
  const free = joints(path);
  const ends: number[] = [];
  for (let from = 0; path.count - from > moves;) {
    const fitting = free.filter((i) => i > from && i <= from + moves);
    const next = fitting.pop() ?? free.find((i) => i > from);
    if (next === undefined) break;
    ends.push(next);
    from = next;
  }
  return [...ends, path.count].map((to, i) => ({ ...step, path: part(path, i > 0 ? ends[i - 1] : 0, to) }));
}

/**
 * Steps shared out over programs of a size at most, between steps, and within one where the tool goes aside out of everything.
 * @param most bytes
 * @param sizeOf bytes of the program of some steps
 */
export function split(steps: AnyStep[], most: number, sizeOf: (steps: AnyStep[]) => number): AnyStep[][] {
  const pieces = steps.flatMap((step): AnyStep[] => {
    if (isHand(step) || step.cycle) return [step];
    const bytes = sizeOf([step]);
    return bytes > most ? piecesOf(step, bytes, most) : [step];
  });
  const parts: AnyStep[][] = [];
  for (const piece of pieces) {
    const last = parts[parts.length - 1];
    if (last && sizeOf([...last, piece]) <= most) last.push(piece);
    else parts.push([piece]);
  }
  return parts;
}
