/** Pieces of a path that are the same but for where they stand. */
import { Path, RAPID } from '../../path/path';

const SAME = 1e-6;
/** What copies may differ by, mm: less than a control tells apart. */
const ALIKE = 0.0006;
/** A piece of fewer moves is shorter as it is than called. */
const FEWEST = 6;

/** Moves from `head`, which goes aside to where it begins, to before `end`. */
export interface Passage {
  head: number;
  end: number;
  /** The first that is the same; it may be this one. Undefined where there is no other. */
  like?: number;
}

/** Moves from which a path can go on in another program: the tool goes aside at its highest, out of everything. */
export function joints({ kind, z, count }: Path): number[] {
  const top = z.reduce((a, b) => Math.max(a, b), -Infinity);
  return Array.from({ length: count }, (_, i) => i).filter(
    (i) => i > 0 && kind[i] === RAPID && z[i] > top - SAME && z[i - 1] > top - SAME,
  );
}

/** Whether two passages are the same but for where they begin. */
function isCopy(p: Path, a: Passage, b: Passage): boolean {
  if (a.end - a.head !== b.end - b.head || Math.abs(p.z[a.head] - p.z[b.head]) > SAME) return false;
  const [dx, dy] = [p.x[b.head] - p.x[a.head], p.y[b.head] - p.y[a.head]];
  const near = (u: number, v: number) => Math.abs(u - v) < ALIKE;
  for (let i = a.head + 1, j = b.head + 1; i < a.end; i++, j++) {
    if (p.kind[i] !== p.kind[j] || p.feed[i] !== p.feed[j] || !near(p.z[i], p.z[j])) return false;
    if (!near(p.x[i] + dx, p.x[j]) || !near(p.y[i] + dy, p.y[j])) return false;
    if (p.kind[i] > 1 && !(near(p.cx[i] + dx, p.cx[j]) && near(p.cy[i] + dy, p.cy[j]))) return false;
  }
  return true;
}

/** A path in passages from one way aside over everything to the next, each with the first that it is a copy of. */
export function passagesOf(path: Path): Passage[] {
  const ends = [...joints(path), path.count];
  const top = path.z[0];
  const all = ends.map((end, k): Passage => ({ head: k > 0 ? ends[k - 1] : 0, end }));
  const models: { passage: Passage; index: number }[] = [];
  all.forEach((passage, index) => {
    if (passage.end - passage.head <= FEWEST || Math.abs(path.z[passage.end - 1] - top) > SAME) return;
    const model = models.find((m) => isCopy(path, m.passage, passage));
    if (!model) models.push({ passage, index });
    else {
      passage.like = model.index;
      model.passage.like = model.index;
    }
  });
  return all;
}
