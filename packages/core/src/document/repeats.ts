import { chainBounds } from '../geometry/plane/chain';
import { Region, distanceToBoundary, contains } from '../geometry/plane/clip';
import { EMPTY_BOUNDS, distance, joinBounds } from '../geometry/plane/point';
import { Finding, finding } from '../quantity/finding';
import { Feature, Part } from '../part/plate/feature';
import { placesOf, repeated } from '../part/plate/repeat';
import { instancesOf } from '../part/plate/shapes';
import type { Operation } from './operation';
import type { Setup } from './job';

/** The features an operation works on, copies of its repeat included. */
export const targetsOf = (
  { targets, repeat, leaves }: Pick<Operation, 'targets' | 'repeat' | 'leaves'>,
  part: Part,
): Feature[] =>
  part.features
    .filter((f) => targets.includes(f.id))
    .flatMap((f) => keptOf(f, leaves))
    .flatMap((f) => (repeat ? repeated(f, repeat) : [f]));

/** A feature, or those places of its pattern that are not left alone. */
function keptOf(feature: Feature, leaves: Operation['leaves'] = []): Feature[] {
  const left = leaves.find((l) => l.feature === feature.id && l.places.length > 0);
  return left ? placesOf(feature).filter((_, i) => !left.places.includes(i + 1)) : [feature];
}

/** The part with what the repeats of a setup's operations add to it; the part itself where there are none. */
export function repeatedPart(part: Part, { operations }: Setup): Part {
  const known = new Set(part.features.map((f) => f.id));
  const copies = operations
    .filter((o) => o.on && (o.repeat || o.leaves))
    .flatMap((o) => targetsOf(o, part))
    .filter((f) => !known.has(f.id) && known.add(f.id));
  return copies.length ? { ...part, features: [...part.features, ...copies] } : part;
}

const middleOf = (feature: Feature) => {
  const b = instancesOf(feature).map(chainBounds).reduce(joinBounds, EMPTY_BOUNDS);
  return { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 };
};

const SAME = 1e-3;

/** Copies that miss the stock or fall on one another. */
export function copyFindings(operation: Operation, targets: Feature[], stock: Region): Finding[] {
  if (!operation.repeat) return [];
  const middles = targets.map(middleOf);
  const place = { operation: operation.id, field: 'repeat' };
  const off = middles.findIndex((m) => !contains(stock, m) && distanceToBoundary(stock, m) > SAME);
  const twice = middles.findIndex((m, i) => middles.findIndex((n) => distance(m, n) < SAME) < i);
  const told = (code: 'copy-off-stock' | 'copy-on-another', i: number) =>
    i > 0 ? [finding(code, { feature: targets[i].name, at: middles[i] }, { ...place, at: middles[i] })] : [];
  return [...told('copy-off-stock', off), ...told('copy-on-another', twice)];
}
