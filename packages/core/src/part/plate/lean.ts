/** A part as it is seen when it leans on a sine plate. */
import { flatten } from '../../geometry/plane/chain';
import { Feature, Part, SINGLE, sideOf } from './feature';
import { Lean, leaningBody, leaningFaces, leaningPlace, leansAlike } from './leaning';
import { aimedPart } from './limits';
import { instancesOf } from './shapes';
import { bodyOf } from './side';

/** What goes through goes so far beyond the underside, mm. */
const THROUGH = 0.5;

/**
 * The part as a plate once it leans: as thick as the box round it is high then, its outside that box, with the features that lean
 * as it does. Their depths count along their own axes from where these meet the top; from the highest edge in the plate.
 */
export function leaningPart(drawn: Part, lean: Lean): Part {
  const seen = known.get(drawn) ?? new Map<string, Part>();
  known.set(drawn, seen);
  const key = `${lean.to} ${lean.degrees}`;
  if (!seen.has(key)) seen.set(key, lookLeaning(drawn, lean));
  return seen.get(key)!;
}

/** Parts as they were seen before: many ask, few change. */
const known = new WeakMap<Part, Map<string, Part>>();

function lookLeaning(drawn: Part, lean: Lean): Part {
  const body = bodyOf(drawn);
  const box = leaningBody(lean, body);
  const faces = leaningFaces(lean, body);
  const { features } = aimedPart(drawn);
  const leaning = features
    .filter((f) => f.lean && sideOf(f) === 'top' && leansAlike(f.lean, lean))
    .map((f): Feature => {
      const at = leaningPlace(lean, { x: f.x, y: f.y, z: 0 }, body);
      const placed: Feature = { ...f, x: at.x, y: at.y, lean: undefined, side: undefined };
      if (!f.through) return { ...placed, depth: f.depth - at.z };
      const under = instancesOf(placed)
        .flatMap((chain) => flatten(chain, 0.1))
        .map((p) => faces(p)?.bottom ?? 0);
      return { ...placed, through: false, depth: THROUGH - Math.min(-box.size[2] / 2, ...under) };
    });
  const outside = features.find((f) => f.meaning === 'outline' && !f.side && !f.lean);
  const [width, height] = box.size;
  const outline: Feature[] = outside
    ? [
        {
          ...{ id: outside.id, name: outside.name, meaning: 'outline', layer: outside.layer },
          shape: { type: 'rectangle', width, height, radius: 0 },
          ...{ x: box.x, y: box.y, turn: 0, pattern: SINGLE, depth: 0, through: true },
        },
      ]
    : [];
  return { ...drawn, thickness: box.size[2] || drawn.thickness, features: [...outline, ...leaning] };
}
