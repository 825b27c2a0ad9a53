/** Notches: what trims the outside of a part, the corners of its mouth rounded. */
import { Chain } from '../../geometry/plane/chain';
import { filleted, trimmed } from '../../geometry/plane/trim';
import { Finding, finding } from '../../quantity/finding';
import { Feature, Part, isBeside } from './feature';
import { instancesOf } from './shapes';

/** A part whose notches have trimmed its outside; those that cannot stay what they are, and are told. */
export interface TrimmedPart {
  part: Part;
  findings: Finding[];
}

const known = new WeakMap<Part, TrimmedPart>();

/** The outsides a notch may trim: those that stand alone. */
function outsidesOf(part: Part): Map<Feature, Chain> {
  const alone = part.features.filter((f) => f.meaning === 'outline' && f.shape.type !== 'text' && !isBeside(f));
  return new Map(
    alone.flatMap((f): [Feature, Chain][] => {
      const [chain, ...more] = instancesOf(f);
      return more.length === 0 && chain.closed ? [[f, chain]] : [];
    }),
  );
}

/** Trims the one outside a line crosses; why not, where it cannot be. */
function trim(outsides: Map<Feature, Chain>, cutter: Chain, { mouth = 0 }: Feature): 'across' | 'mouth' | undefined {
  for (const [feature, outside] of outsides) {
    const cut = trimmed(outside, cutter);
    if (!cut) continue;
    let { chain } = cut;
    for (const corner of mouth > 0 ? cut.corners : []) {
      const round = filleted(chain, corner, mouth);
      if (!round) return 'mouth';
      chain = round;
    }
    outsides.set(feature, chain);
    return undefined;
  }
  return 'across';
}

const CODES = { across: 'notch-not-across', mouth: 'notch-mouth' } as const;

/** The part as its notches leave it: they are gone, and its outside goes around them. */
export function trimmedPart(part: Part): TrimmedPart {
  const notches = part.features.filter((f) => f.meaning === 'notch' && !isBeside(f));
  if (notches.length === 0) return { part, findings: [] };
  const before = known.get(part);
  if (before) return before;
  const outsides = outsidesOf(part);
  const findings: Finding[] = [];
  const done = new Set<Feature>();
  for (const notch of notches) {
    const faults = instancesOf(notch).flatMap((cutter) => trim(outsides, cutter, notch) ?? []);
    if (faults.length === 0) done.add(notch);
    else
      findings.push(
        finding(
          CODES[faults[0]],
          { feature: notch.name },
          { feature: notch.id, field: faults[0] === 'mouth' ? 'mouth' : 'shape' },
        ),
      );
  }
  const features = part.features.map((f): Feature => {
    if (done.has(f)) return { ...f, meaning: 'ignore' };
    const chain = outsides.get(f);
    if (!chain || chain === instancesOf(f)[0]) return f;
    return { ...f, x: 0, y: 0, turn: 0, shape: { type: 'chain', ...chain } };
  });
  const found = { part: { ...part, features }, findings };
  known.set(part, found);
  return found;
}
