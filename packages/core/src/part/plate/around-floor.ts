import { Region, area, difference, intersection, offset, union } from '../../geometry/plane/clip';
import { PartModel } from './model';

/** What lies round the floor of a feature, as cutters see it. */
export interface AroundFloor {
  region: Region;
  /** Where a cutter may run at the height of the floor beside it: outside the part, and over what is deeper. */
  open: Region;
  /** Height of its highest wall, mm: from the floor to what stands beside it, which is cut before. */
  wall: number;
}

/** Room a cutter has beside the part, mm. */
const OUTSIDE = 60;
/** So near beside a floor lies what it borders on, mm; less of it than this is none, mm². */
const BESIDE = 0.1;
const NONE = 0.05;
const SAME = 1e-6;

/** What lies round the floor of a feature; nothing where it has none. */
export function aroundFloor({ outline, floors, thickness }: PartModel, feature: string): AroundFloor {
  const own = floors.filter((f) => f.feature === feature);
  const region = own.flatMap((f) => f.region);
  const z = Math.max(-thickness, ...own.map((f) => f.z));
  const others = floors.filter((f) => f.feature !== feature && f.region.length > 0);
  const round = difference(intersection(offset(region, BESIDE), outline), region);
  const meeting = others.filter((f) => area(intersection(f.region, round)) > NONE);
  const [deeper, higher] = [meeting.filter((f) => f.z <= z + SAME), meeting.filter((f) => f.z > z + SAME)];
  const below = deeper.flatMap((f) => f.region);
  const beside = difference(round, below);
  const isToTop = area(difference(beside, union(higher.flatMap((f) => f.region)))) > NONE;
  const walls = isToTop ? [-z] : higher.map((f) => f.z - z);
  const out = area(difference(region, outline)) > 0 ? difference(offset(outline, OUTSIDE), outline) : [];
  return { region, open: out.length + below.length > 0 ? union(out, below) : [], wall: Math.max(0, ...walls) };
}
