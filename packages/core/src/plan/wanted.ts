/** What a setup is to make of its piece: the part as its features say, or the surface of the solid itself. */
import { placesOfCopies } from '../document/copies';
import { Job, Setup } from '../document/job';
import { placesOfStations } from '../document/stations';
import { Point } from '../geometry/plane/point';
import { Added } from '../part/plate/added';
import { Solid } from '../part/plate/feature';
import { HeightRule, besidesSurface, leaningRule, movedRule, wantedHeights } from '../part/plate/heights';
import { leaningPlace } from '../part/plate/leaning';
import { partModel } from '../part/plate/model';
import { bodyOf } from '../part/plate/side';
import { BrokenEdges, otherSides } from '../part/plate/other-sides';
import { faceOf, isOnSide } from '../part/plate/turn';
import { movedPoints } from '../geometry/space/triangles';
import { surfaceAs } from '../part/solid/lying';
import { askedFrom, surfaceOf, topsAs } from '../part/solid/surface-of';
import { Piece } from '../stock/height/height-stock';
import { SurfaceRule } from '../stock/height/surface';
import { Ground, asSeen, isFaced } from './ground';
import { addedOf } from './pipeline';

/** The edges the operations of a job break, setup by setup. */
const brokenIn = (job: Job): BrokenEdges[] =>
  job.setups.map((setup) => {
    const { part } = asSeen(job, setup);
    return { up: setup.up ?? 'top', edges: addedOf({ ...job, part }, setup, partModel(part)).edges };
  });

/** A face beside the part is as the stock left it, unless it is cut. */
const isTopJudged = ({ work }: Ground, setup: Setup): boolean =>
  !work.leaning && (!isOnSide(setup.up ?? 'top') || isFaced(setup));

/** All places the part stands in a setup: its copies in every station. */
const placesIn = (setup: Setup): Point[] =>
  placesOfStations(setup).flatMap((s) => placesOfCopies(setup).map((c) => ({ x: s.x + c.x, y: s.y + c.y })));

/** A solid as it is wanted; undefined where its surface is not at hand. */
function surfaceRule(part: Solid, setup: Setup, ground: Ground): SurfaceRule | undefined {
  const surface = surfaceOf(part);
  if (!surface) return undefined;
  const { up = 'top', lean } = setup;
  const body = bodyOf(part);
  const tops = topsAs(surface, lean ? `${lean.to} ${lean.degrees}` : up, () =>
    lean ? movedPoints(surface, (p) => leaningPlace(lean, p, body)) : surfaceAs(surface, body, up),
  );
  const asked = askedFrom(part, surface, faceOf(up));
  if (!isTopJudged(ground, setup)) leaveLevel(asked, tops);
  return { tops, asked, inside: ground.model.outline, floor: -ground.whole.thickness, places: placesIn(setup) };
}

/** Flats at the very top are as the stock left them. */
function leaveLevel(asked: Uint8Array, { mesh: { points, corners } }: SurfaceRule['tops']): void {
  for (let t = 0; t < asked.length; t++)
    if ([0, 1, 2].every((k) => points[3 * corners[3 * t + k] + 2] > -1e-3)) asked[t] = 0;
}

/**
 * What is right in a setup, in the order it is laid.
 * @param added what its operations are asked beyond the part
 * @param left what an earlier setup left
 */
export function wantedOf(
  job: Job,
  setup: Setup,
  ground: Ground,
  added: Added,
  left?: Piece,
): (HeightRule | SurfaceRule)[] {
  const { repeated, whole, work } = ground;
  const surface = job.part.kind === 'solid' ? surfaceRule(job.part, setup, ground) : undefined;
  const stations = placesOfStations(setup);
  const everywhere = (rules: HeightRule[]) => stations.flatMap((place) => rules.map((rule) => movedRule(rule, place)));
  if (surface) return [surface, ...everywhere(besidesSurface(repeated, whole, added))];
  const wanted = wantedHeights(repeated, whole, added, isTopJudged(ground, setup));
  const { leaning } = work;
  if (leaning) return everywhere(wanted.map((rule) => leaningRule(rule, leaning)));
  const sides = otherSides(job.part, setup.up ?? 'top', () => brokenIn(job), left?.upright?.within);
  const beside = placesOfCopies(setup).flatMap((place) => sides.map((rule) => movedRule(rule, place)));
  return everywhere([...wanted, ...beside]);
}
