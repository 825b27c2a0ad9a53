/** A job with one thing in its place changed: operations and setups as data, whatever they mean. */
import { copy } from './new';
import { hashOf } from '../quantity/hash';
import { Controller } from '../shop/controller';
import { controllerById } from '../shop/controllers';
import { Feature, Part, sideOf } from '../part/plate/feature';
import { leaningPart } from '../part/plate/lean';
import { Lean, leanText, leansAlike } from '../part/plate/leaning';
import { seenFrom } from '../part/plate/side';
import { FACE_UPS, Face, Up, faceOf } from '../part/plate/turn';
import { freshId } from '../quantity/ids';
import { Job, Setup } from './job';
import { Operation } from './operation';

/** The job with one setup replaced. */
export const withSetup = (job: Job, setup: Setup): Job => ({
  ...job,
  setups: job.setups.map((s) => (s.id === setup.id ? setup : s)),
});

/** The part as somebody sees it who stands before a setup. */
export const partIn = (part: Part, { up = 'top', lean }: Pick<Setup, 'up' | 'lean'>): Part =>
  lean ? leaningPart(part, lean) : seenFrom(part, up);

/** Features no setup sees: the side they are cut from, or how they lean. */
export interface Unseen {
  face: Face;
  lean?: Lean;
  features: Feature[];
}

/** How somebody says which way up that is: "front up", "top up, leaning 30° to the right". */
export const upText = ({ face, lean }: Pick<Unseen, 'face' | 'lean'>): string =>
  lean ? `${face} up, leaning ${leanText(lean)}` : `${face} up`;

/** What no setup sees as the part lies in it, by the side it is cut from and how it leans. */
export function neverSeen({ part, setups }: Job): Unseen[] {
  const seen = new Set(setups.flatMap((s) => partIn(part, s).features.map((f) => f.id)));
  const unseen: Unseen[] = [];
  for (const feature of part.features.filter((f) => f.meaning !== 'ignore' && !seen.has(f.id))) {
    const [face, { lean }] = [sideOf(feature), feature];
    const alike = unseen.find((u) => u.face === face && leansAlike(u.lean, lean));
    if (alike) alike.features.push(feature);
    else unseen.push({ face, lean, features: [feature] });
  }
  return unseen;
}

/**
 * The job with one more setup: with a side up that something waits to be cut from, else turned over from how it lay in the last, which
 * leaves it its stock.
 */
export function addSetup(job: Job): Job {
  const last = job.setups[job.setups.length - 1];
  const [waiting] = neverSeen(job);
  const up: Up = waiting ? FACE_UPS[waiting.face] : faceOf(last.up ?? 'top') === 'top' ? FACE_UPS.underside : 'top';
  const id = freshId(
    's',
    job.setups.map((s) => s.id),
  );
  // What leans goes on from nothing, and nothing from it.
  const isFresh = !!(waiting?.lean ?? last.lean);
  const fresh = job.setups.find((s) => s.stock.shape !== 'as left') ?? last;
  const stock = isFresh ? fresh.stock : { ...last.stock, shape: 'as left' as const, bar: undefined };
  const setup: Setup = {
    ...last,
    id,
    name: `Setup ${job.setups.length + 1}`,
    up,
    stock,
    copies: undefined,
    lean: waiting?.lean,
    ...(isFresh && { holding: [] }),
    stations: undefined,
    onTable: undefined,
    programNumber: undefined,
    programTitle: undefined,
    setUpMinutes: undefined,
    reloadMinutes: undefined,
    fixtures: [],
    operations: [],
  };
  return { ...job, setups: [...job.setups, setup] };
}

/** The job without a setup; the first one cannot start from another's leavings. */
export function withoutSetup(job: Job, id: string): Job {
  const setups = job.setups.filter((s) => s.id !== id);
  if (setups.length === 0) return job;
  const [first, ...others] = setups;
  const stock = first.stock.shape === 'as left' ? { ...first.stock, shape: 'box' as const } : first.stock;
  return { ...job, setups: [{ ...first, stock }, ...others] };
}

/**
 * The job with features in the place of others. What worked on one of those works on all that take its place, but for the places of a pattern
 * it leaves alone.
 * @param out ids of those that go
 * @param into what comes, in the order of their places where one goes
 */
export function withInstead(job: Job, out: string[], into: Feature[]): Job {
  const at = job.part.features.findIndex((f) => out.includes(f.id));
  const kept = job.part.features.filter((f) => !out.includes(f.id));
  const features = [...kept.slice(0, at), ...into, ...kept.slice(at)];
  const ids = into.map((f) => f.id);
  const changed = (o: Operation): Operation => {
    if (!o.targets.some((id) => out.includes(id))) return o;
    const left = o.leaves?.filter((l) => out.includes(l.feature)).flatMap((l) => l.places) ?? [];
    const own = ids.filter((_, i) => out.length > 1 || !left.includes(i + 1));
    const targets = [...new Set(o.targets.flatMap((id) => (out.includes(id) ? own : [id])))];
    const leaves = o.leaves?.filter((l) => !out.includes(l.feature));
    return { ...o, targets, leaves: leaves?.length ? leaves : undefined };
  };
  const setups = job.setups.map((s) => ({ ...s, operations: s.operations.map(changed) }));
  return { ...job, part: { ...job.part, features }, setups };
}

/** The job with one operation changed. */
export function editOperation(job: Job, operationId: string, change: (o: Operation) => Operation): Job {
  return {
    ...job,
    setups: job.setups.map((s) => ({
      ...s,
      operations: s.operations.map((o) => (o.id === operationId ? change(o) : o)),
    })),
  };
}

/** The job with another controller: a shipped one by its id alone, the shop's own whole. */
export function withController(job: Job, controller: Controller): Job {
  const shipped = controllerById(controller.id);
  const own = shipped && hashOf(shipped) === hashOf(controller) ? undefined : copy(controller);
  const next: Job = { ...job, controllerId: controller.id };
  if (own) next.controller = own;
  else delete next.controller;
  return next;
}
