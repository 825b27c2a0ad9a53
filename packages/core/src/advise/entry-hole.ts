import { modelOf } from '../part/plate/model';
import { formatLength } from '../quantity/units';
import { Tool, formOf, startsHoles } from '../shop/tool';
import { openingsOf } from '../operation/hole/openings';
import { editOperation, withSetup } from '../document/edit';
import { addOperation } from './edit';
import { Job } from '../document/job';
import { asSeen } from '../plan/ground';

/** An entry hole is wider than the cutter by this share of it: room for its first turn. */
const WIDER = 1.2;

/** A job with an entry hole drilled before an operation, or why that cannot be. */
export type EntryHole = { ok: true; job: Job } | { ok: false; why: string };

/**
 * Lets a clearing operation start from a drilled hole: a drill opens its pockets where they are widest, before it.
 * @param rack where the drill comes from: the smallest that is wider than the cutter
 */
export function withEntryHole(job: Job, operationId: string, rack: Tool[]): EntryHole {
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operationId));
  const operation = setup?.operations.find((o) => o.id === operationId);
  const cutter = job.tools.find((t) => t.id === operation?.toolId);
  const seen = setup ? asSeen(job, setup) : job;
  const pockets = seen.part.features.filter((f) => operation?.targets.includes(f.id) && f.meaning === 'pocket');
  if (!setup || !operation || !cutter || pockets.length === 0)
    return { ok: false, why: 'Only a pocket is entered by a drilled hole.' };
  const deepest = Math.max(...pockets.map((p) => (p.through ? job.part.thickness : p.depth)));
  const drill = [...job.tools, ...rack]
    .filter(
      (t) =>
        formOf(t) === 'drill' && !startsHoles(t) && t.diameter >= WIDER * cutter.diameter && t.fluteLength >= deepest,
    )
    .sort((a, b) => a.diameter - b.diameter)[0];
  const wide = formatLength(WIDER * cutter.diameter, job.unit);
  if (!drill) return { ok: false, why: `No drill of the rack is wide enough for ${cutter.name}: ${wide} or more.` };
  const model = modelOf(seen.part);
  for (const pocket of pockets)
    for (const { diameter, depth } of openingsOf(pocket, model, drill)) {
      if (diameter < drill.diameter) return { ok: false, why: `${drill.name} has no room in “${pocket.name}”.` };
      if (depth <= 0) return { ok: false, why: `“${pocket.name}” is too shallow for the point of ${drill.name}.` };
    }
  const drilled = addOperation(
    job,
    setup.id,
    'drill',
    pockets.map((p) => p.id),
    drill,
    rack,
  );
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
