/** In which order the sides of a part are up, and how well each grip finds something to press on. */
import { Region, area, contains, difference } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { boxRound } from '../../geometry/space/triangles';
import { Part } from '../../part/plate/feature';
import { partModel } from '../../part/plate/model';
import { bodyOf, seenFrom } from '../../part/plate/side';
import { FACE_UPS, Face, isOnSide } from '../../part/plate/turn';
import { surfaceAs } from '../../part/solid/lying';
import { sectionAt } from '../../part/solid/section';
import { surfaceOf } from '../../part/solid/surface-of';

export const OPPOSITE: Record<Face, Face> = {
  top: 'underside',
  underside: 'top',
  front: 'back',
  back: 'front',
  left: 'right',
  right: 'left',
};

/** How much of a wall jaws find on both sides, the metal between them solid, mm. */
export interface Contact {
  /** Between jaws to the left and right, and in front and at the back. */
  x: number;
  y: number;
}

/** Lines looked along from jaw to jaw, and points on each. */
const LINES = 40;
/** So much of the way between the jaws has to be metal: less is walls that give. */
const SOLID = 0.35;
/** Just inside a wall, mm. */
const INSIDE = 0.1;
/** The height above the bed at which jaws are looked at, mm. */
const GRIPPED = 4;
/** Flats less deep than that leave their walls standing. */
const SHALLOW = 1;

/** What of a part is metal where jaws press on it, as it lies with a side up. */
function metalHeld(part: Part, up: Face): Region {
  if (part.kind === 'solid') {
    const surface = surfaceOf(part);
    const body = bodyOf(part);
    if (surface) {
      const laid = surfaceAs(surface, body, FACE_UPS[up]);
      return sectionAt(laid, boxRound(laid).min.z + GRIPPED);
    }
  }
  const { outline, floors } = partModel(seenFrom(part, FACE_UPS[OPPOSITE[up]]));
  return difference(
    outline,
    floors.filter((f) => f.z < -SHALLOW).flatMap((f) => f.region),
  );
}

/** What jaws find at the foot of a part with a side up. */
export function contactOn(part: Part, up: Face): Contact {
  const held = metalHeld(part, up);
  if (held.length === 0) return { x: 0, y: 0 };
  // Jaws close on the box round the part.
  const { minX, maxX, minY, maxY } = partModel(seenFrom(part, FACE_UPS[up])).bounds;
  const along = (from: (share: number) => Point, to: (share: number) => Point, long: number) => {
    let found = 0;
    for (let i = 0; i < LINES; i++) {
      const [a, b] = [from((i + 0.5) / LINES), to((i + 0.5) / LINES)];
      if (!contains(held, a) || !contains(held, b)) continue;
      let metal = 0;
      for (let k = 0; k < LINES; k++) {
        const t = (k + 0.5) / LINES;
        if (contains(held, { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t })) metal++;
      }
      if (metal >= SOLID * LINES) found += long / LINES;
    }
    return found;
  };
  const [width, height] = [maxX - minX, maxY - minY];
  return {
    x: along(
      (s) => ({ x: minX + INSIDE, y: minY + s * height }),
      (s) => ({ x: maxX - INSIDE, y: minY + s * height }),
      height,
    ),
    y: along(
      (s) => ({ x: minX + s * width, y: minY + INSIDE }),
      (s) => ({ x: minX + s * width, y: maxY - INSIDE }),
      width,
    ),
  };
}

/** Less than this is no grip between flat jaws; so much is a good one, mm. */
export const LEAST_CONTACT = 15;
const GOOD_CONTACT = 30;

/** Jaws cut to the outline hold what is that wide at its foot, as a share of it. */
const PRISM = 0.6;

/** What speaks against a grip: nothing, a short one, that it takes jaws cut to the part, or that they find it narrower than its outline. */
function against(part: Part, up: Face): number {
  const { x, y } = contactOn(part, up);
  const best = Math.max(x, y);
  if (best >= LEAST_CONTACT) return best >= GOOD_CONTACT ? 0 : 2;
  const { outline } = partModel(seenFrom(part, FACE_UPS[up]));
  return area(metalHeld(part, up)) >= PRISM * area(outline) ? 3 : 8;
}

/** What speaks against another side before the outside is cut: jaws find the blank then, not the part. */
const LATE = 4;

/** The sides that come with no outside: of a blank they are as it was sawn until they are up. */
const ENDS: Face[] = ['top', 'underside'];

/**
 * The orders in which the sides that are to be cut can be up. What holds the blank stands below the part in the first grip; it is taken off
 * from the other side, in the second. The four sides are made with the outside, top and underside only where they are up.
 * @returns of the fewest grips; the best first
 */
export function ordersOf(part: Part, sides: Face[]): Face[][] {
  const wanted: Face[] = sides.length > 0 ? sides : ['top'];
  const orders = wanted.flatMap((up) => {
    const rest = [...new Set([...ENDS, ...wanted])].filter((s) => s !== up && s !== OPPOSITE[up]);
    return [
      [up, OPPOSITE[up], ...rest],
      [OPPOSITE[up], up, ...rest],
    ];
  });
  const fewest = Math.min(...orders.map((o) => o.length));
  const different = [...new Map(orders.map((o) => [o.join(), o])).values()].filter((o) => o.length === fewest);
  const scores = new Map([...new Set(different.flat())].map((up) => [up, against(part, up)]));
  // The first grip is that of a sawn blank, which is whole; jaws find the sides of the part once its outside is cut.
  const outsideLate = (order: Face[]) =>
    order.slice(1).some((up) => !isOnSide(FACE_UPS[up])) && isOnSide(FACE_UPS[order[0]]) ? LATE : 0;
  const score = (order: Face[]) => order.slice(1).reduce((sum, up) => sum + scores.get(up)!, outsideLate(order));
  return different.sort((a, b) => score(a) - score(b));
}
