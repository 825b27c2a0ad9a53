import { IsIn, IsInt, IsNumber, Max, Min } from 'class-validator';
import { Point } from '../geometry/plane/point';
import { Feature, Part } from '../part/plate/feature';
import { moved } from '../part/plate/placed';
import type { Operation, Spot } from './operation';

export const COPY_ORDERS = ['by tool', 'part by part'] as const;

/** Many parts from one blank: the part as it lies, over again in columns along X and rows along Y. */
export class Copies {
  @IsInt() @Min(1) @Max(100) columns!: number;
  @IsInt() @Min(1) @Max(100) rows!: number;
  /** From one part to the next, mm. */
  @IsNumber() @Min(0.1) @Max(5000) dx!: number;
  @IsNumber() @Min(0.1) @Max(5000) dy!: number;
  /** Whether each operation is done on all parts before the next, or all of them on one part before the next. */
  @IsIn([...COPY_ORDERS]) order!: (typeof COPY_ORDERS)[number];
}

type Laid = { copies?: Copies };

/** How far each part lies from the first, row by row. */
export const placesOfCopies = ({ copies }: Laid): Point[] =>
  Array.from({ length: copies?.rows ?? 1 }, (_, r) =>
    Array.from({ length: copies?.columns ?? 1 }, (__, c) => ({ x: c * (copies?.dx ?? 0), y: r * (copies?.dy ?? 0) })),
  ).flat();

/** The id of a feature of one of the parts; the first keeps its own. */
const idAt = (id: string, place: number) => (place ? `${id}~${place + 1}` : id);

const featureAt = (feature: Feature, place: number, by: Point): Feature =>
  place ? { ...moved(feature, by), id: idAt(feature.id, place), name: `${feature.name}, part ${place + 1}` } : feature;

const known = new WeakMap<Part, Map<string, Part>>();

/** A part as it lies with all that are cut from the same blank, as one. */
export function laidOut(part: Part, setup: Laid): Part {
  const places = placesOfCopies(setup);
  if (places.length === 1) return part;
  const laid = known.get(part) ?? new Map<string, Part>();
  known.set(part, laid);
  const key = JSON.stringify(places);
  const features = () => places.flatMap((by, k) => part.features.map((f) => featureAt(f, k, by)));
  if (!laid.has(key)) laid.set(key, { ...part, features: features() });
  return laid.get(key)!;
}

/** What an operation is told by places of the first part; each part needs it for itself. */
const isPlaced = (o: Operation) => !!(o.within || o.keepAway?.length || o.stretch || o.begins?.length || o.repeat);

const spotAt = ({ x, y }: Spot, by: Point): Spot => ({ x: x + by.x, y: y + by.y });

/** An operation as it is done on one of the parts. */
function operationAt(o: Operation, place: number, by: Point): Operation {
  if (place === 0) return o;
  const { within, keepAway, leaves, stretch, begins, repeat } = o;
  const own = <T extends { feature: string }>(named: T): T => ({ ...named, feature: idAt(named.feature, place) });
  return {
    ...o,
    targets: o.targets.map((id) => idAt(id, place)),
    ...(within && { within: own(within) }),
    ...(keepAway && { keepAway: keepAway.map(own) }),
    ...(leaves && { leaves: leaves.map(own) }),
    ...(stretch && { stretch: { ...stretch, from: spotAt(stretch.from, by), to: spotAt(stretch.to, by) } }),
    ...(begins && { begins: begins.map((b) => spotAt(b, by)) }),
    ...(repeat && {
      repeat: {
        ...repeat,
        at: repeat.at + (repeat.mirror === 'front and back' ? by.y : by.x),
        pattern: { ...repeat.pattern, centreX: repeat.pattern.centreX + by.x, centreY: repeat.pattern.centreY + by.y },
      },
    }),
  };
}

/** One operation on all parts at once. */
const onAll = (o: Operation, places: Point[]): Operation => ({
  ...o,
  targets: places.flatMap((_, k) => o.targets.map((id) => idAt(id, k))),
  ...(o.leaves && { leaves: places.flatMap((_, k) => o.leaves!.map((l) => ({ ...l, feature: idAt(l.feature, k) }))) }),
});

/**
 * A setup’s operations as they are done on all parts of its blank, in the order that was asked. What works on the whole stock, and what is
 * done by hand, is done once, before the first part.
 */
export function laidOperations<S extends Laid & { operations: Operation[] }>(setup: S): Operation[] {
  const { operations, copies } = setup;
  const places = placesOfCopies(setup);
  if (places.length === 1) return operations;
  const each = (o: Operation, k: number) => (o.targets.length === 0 ? (k ? [] : [o]) : [operationAt(o, k, places[k])]);
  if (copies?.order === 'part by part') return places.flatMap((_, k) => operations.flatMap((o) => each(o, k)));
  return operations.flatMap((o) =>
    o.targets.length && isPlaced(o) ? places.flatMap((_, k) => each(o, k)) : [onAll(o, places)],
  );
}
