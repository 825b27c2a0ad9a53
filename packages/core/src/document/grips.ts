/** How often a part has to be gripped. */
import { Feature, Part, isBeside, sideOf } from '../part/plate/feature';
import { Lean, leansAlike } from '../part/plate/leaning';
import { upText } from './edit';
import { seenFrom } from '../part/plate/side';
import { FACES, FACE_UPS, Face, isOnSide } from '../part/plate/turn';

/** A grip, by the face that is up in it, and what it reaches that none before it did. */
export interface NeededGrip {
  face: Face;
  lean?: Lean;
  features: Feature[];
}

/** What can be cut with a face up; from beside the outside only where it is drawn there: of another one sees the box round it. */
function reaches(part: Part, face: Face): Set<string> {
  const beside = new Set(part.features.filter(isBeside).map((f) => f.id));
  const isCut = (f: Feature) => f.meaning !== 'outline' || !isOnSide(FACE_UPS[face]) || beside.has(f.id);
  return new Set(seenFrom(part, FACE_UPS[face]).features.flatMap((f) => (isCut(f) ? [f.id] : [])));
}

/** All sets of faces, the smallest first, each as they are counted. */
const SETS: Face[][] = Array.from({ length: 1 << FACES.length }, (_, bits) =>
  FACES.filter((__, i) => bits & (1 << i)),
).sort((a, b) => a.length - b.length);

/** The fewest grips from which everything of a part can be cut, the top first where it is among them. What goes through is reached from both sides. */
export function fewestGrips(part: Part): NeededGrip[] {
  const all = part.features.filter((f) => f.meaning !== 'ignore');
  const wanted = all.filter((f) => !f.lean);
  const seen = new Map(FACES.map((face) => [face, reaches(part, face)]));
  const enough = SETS.find((faces) => wanted.every((f) => faces.some((face) => seen.get(face)!.has(f.id)))) ?? [];
  const left = new Set(wanted);
  const level = enough.map((face): NeededGrip => {
    const features = [...left].filter((f) => seen.get(face)!.has(f.id));
    for (const f of features) left.delete(f);
    return { face, features };
  });
  return [...level, ...leaningGrips(all)];
}

/** A grip for each way features lean. */
function leaningGrips(features: Feature[]): NeededGrip[] {
  const grips: NeededGrip[] = [];
  for (const feature of features.filter((f) => f.lean)) {
    const alike = grips.find((g) => leansAlike(g.lean, feature.lean));
    if (alike) alike.features.push(feature);
    else grips.push({ face: sideOf(feature), lean: feature.lean, features: [feature] });
  }
  return grips;
}

/** How many grips a part needs, in a sentence: "Two grips reach all of it: top up (Foot, Window), front up (Pin hole)." */
export function gripsText(part: Part, setups: number): string {
  const grips = fewestGrips(part);
  if (grips.length === 0) return '';
  const which = grips.map((grip) => `${upText(grip)} (${grip.features.map((f) => f.name).join(', ')})`).join(', ');
  const much =
    setups > grips.length ? ` There are ${setups} setups: what can be cut in one grip stays true to itself.` : '';
  return `${grips.length === 1 ? 'One grip reaches' : `${grips.length} grips reach`} all of it: ${which}.${much}`;
}
