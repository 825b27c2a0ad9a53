import { pointLength } from '../cutting/holes';
import { modelOf, solidAt, regionOf } from '../part/plate/model';
import { difference } from '../geometry/plane/clip';
import { drawnFrom } from '../part/plate/side';
import { formatLength } from '../quantity/units';
import { Tool, formOf, startsHoles } from '../shop/tool';
import { widest } from '../operation/milling/room';
import { newFeature } from '../part/plate/new';
import { editOperation, withSetup } from '../document/edit';
import { addOperation } from './edit';
import { Job } from '../document/job';
import { asSeen } from '../plan/ground';

/** An entry hole is wider than the cutter by this share of it: room for its first turn. */
const WIDER = 1.2;
/** Room around the hole, mm. */
const ROOM = 0.2;
/** Metal kept between the point of the drill and the floor, mm. */
const ABOVE_FLOOR = 0.3;

/** A job with an entry hole drilled before an operation, or why that cannot be. */
export type EntryHole = { ok: true; job: Job } | { ok: false; why: string };

/**
 * Lets a clearing operation start from a drilled hole: the hole is put where its pocket is widest, a drill operation stands before it.
 * @param rack where the drill comes from: the smallest that is wider than the cutter
 */
export function withEntryHole(job: Job, operationId: string, rack: Tool[]): EntryHole {
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operationId));
  const operation = setup?.operations.find((o) => o.id === operationId);
  const cutter = job.tools.find((t) => t.id === operation?.toolId);
  const seen = setup ? asSeen(job, setup) : job;
  const pocket = seen.part.features.find((f) => operation?.targets.includes(f.id) && f.meaning === 'pocket');
  if (!setup || !operation || !cutter || !pocket)
    return { ok: false, why: 'Only a pocket is entered by a drilled hole.' };
  const long = (mm: number) => formatLength(mm, job.unit);
  const model = modelOf(seen.part);
  const floor = pocket.through ? job.part.thickness : pocket.depth;
  const drill = [...job.tools, ...rack]
    .filter(
      (t) =>
        formOf(t) === 'drill' && !startsHoles(t) && t.diameter >= WIDER * cutter.diameter && t.fluteLength >= floor,
    )
    .sort((a, b) => a.diameter - b.diameter)[0];
  if (!drill)
    return {
      ok: false,
      why: `No drill of the rack is wide enough for ${cutter.name}: ${long(WIDER * cutter.diameter)} or more.`,
    };
  const { diameter, at } = widest(difference(regionOf(pocket), solidAt(model, -floor)));
  if (diameter < drill.diameter + 2 * ROOM) return { ok: false, why: `${drill.name} has no room in “${pocket.name}”.` };
  const depth = pocket.through ? floor : floor - pointLength(drill.diameter, drill.pointAngle) - ABOVE_FLOOR;
  if (depth <= 0) return { ok: false, why: `“${pocket.name}” is too shallow for the point of ${drill.name}.` };
  const shape = { type: 'round' as const, diameter: drill.diameter };
  const hole = newFeature(job.part.features, 'hole', `Entry to ${pocket.name}`.slice(0, 80), shape, {
    ...at,
    depth,
    through: pocket.through,
  });
  const drawnHole = drawnFrom(hole, job.part, setup.up ?? 'top');
  const drawn = { ...job, part: { ...job.part, features: [...job.part.features, drawnHole] } };
  const drilled = addOperation(drawn, setup.id, 'drill', [hole.id], drill, rack);
  const own = drilled.setups.find((s) => s.id === setup.id)!;
  const added = own.operations[own.operations.length - 1];
  const before = own.operations.findIndex((o) => o.id === operationId);
  const operations = own.operations.filter((o) => o !== added);
  operations.splice(before, 0, { ...added, reason: `${cutter.name} goes down through it instead of a helix.` });
  const placed = withSetup(drilled, { ...own, operations });
  return {
    ok: true,
    job: editOperation(placed, operationId, (o) => ({ ...o, params: { ...o.params, from: 'what is left' } })),
  };
}
