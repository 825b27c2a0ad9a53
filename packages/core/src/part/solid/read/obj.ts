import { joinedTriangles } from '../../../geometry/space/triangles';
import { finding } from '../../../quantity/finding';
import { MOST_TRIANGLES, ReadModel } from './model';

const EMPTY: ReadModel = { form: 'OBJ', bodies: [], findings: [] };

/** Whether text looks like OBJ: corners before faces. */
export const isObj = (head: string): boolean => /^\s*v\s+\S+\s+\S+\s+\S+/m.test(head);

/**
 * Reads OBJ: corners and faces, each face as a fan of triangles; whatever else it says is left out.
 * Findings: `mesh-large`, `obj-line`.
 */
export function readObj(text: string): ReadModel {
  const points: number[] = [];
  const index: number[] = [];
  let line = 0;
  const wrong = (said: string): ReadModel => ({
    ...EMPTY,
    findings: [finding('obj-line', { line, said: said.trim().slice(0, 60) }, { line })],
  });
  for (let from = 0; from < text.length;) {
    const found = text.indexOf('\n', from);
    const to = found < 0 ? text.length : found;
    const said = text.slice(from, to);
    from = to + 1;
    line++;
    if (said[0] !== 'v' && said[0] !== 'f') continue;
    const [word, ...parts] = said.trim().split(/\s+/);
    if (word === 'v') {
      const place = parts.slice(0, 3).map(Number);
      if (place.length < 3 || !place.every(Number.isFinite)) return wrong(said);
      points.push(...place);
    } else if (word === 'f') {
      const corners = parts.map((p) => parseInt(p, 10)).map((n) => (n < 0 ? points.length / 3 + n : n - 1));
      if (corners.length < 3 || !corners.every((n) => n >= 0 && n < points.length / 3)) return wrong(said);
      for (let k = 2; k < corners.length; k++) index.push(corners[0], corners[k - 1], corners[k]);
      if (index.length > 3 * MOST_TRIANGLES)
        return { ...EMPTY, findings: [finding('mesh-large', { most: MOST_TRIANGLES })] };
    }
  }
  return { ...EMPTY, bodies: [{ name: '', mesh: joinedTriangles(points, index) }] };
}
