import { Feature, isBeside, sideOf } from '../../part/plate/feature';
import { PartModel, modelOf } from '../../part/plate/model';
import { FACE_UPS } from '../../part/plate/turn';
import { asSeen } from '../../plan/ground';
import { formatLength } from '../../quantity/units';
import { Tool } from '../../shop/tool';
import { Job } from '../../document/job';
import { Asked, Role, Advised } from './common';
import { pocketAdvice } from './pocket';
import { outlineAdvice } from './outline';
import { holeAdvice } from './hole';
import { edgeAdvice } from './edge';

export type { Advice, Advised, Role } from './common';

const ADVISERS: Partial<Record<Feature['meaning'], (a: Asked, rack: Tool[]) => Advised>> = {
  pocket: pocketAdvice,
  outline: outlineAdvice,
  boss: outlineAdvice,
  hole: holeAdvice,
  edge: edgeAdvice,
};

const ORDER: Role[] = ['does it', 'roughs', 'opens', 'starts', 'sizes', 'threads', 'breaks the edge'];

/**
 * Which tools of the rack can make a feature, best first, each with its reasons; what cannot and why; and what size to buy where none
 * can. Judged by geometry and by the speeds and feeds each would run at on the job's machine.
 * @param depth how deep an outline is to be cut, mm; through where left out
 */
export function adviseTools(drawn: Job, featureId: string, rack: Tool[], model?: PartModel, depth?: number): Advised {
  const asked = drawn.part.features.find((f) => f.id === featureId);
  if (asked && isBeside(asked)) return adviseTools(asSeen(drawn, { up: FACE_UPS[sideOf(asked)] }), featureId, rack);
  return adviseSeen(drawn, featureId, rack, model ?? modelOf(drawn.part), depth);
}

/** The same for a feature as it is seen. */
function adviseSeen(job: Job, featureId: string, rack: Tool[], model: PartModel, depth?: number): Advised {
  const feature = job.part.features.find((f) => f.id === featureId);
  const adviser = feature && ADVISERS[feature.meaning];
  if (!adviser) return { ranked: [], unfit: [] };
  const found = adviser({ job, feature, model, depth, long: (mm) => formatLength(mm, job.unit) }, rack);
  found.ranked.sort((x, y) => ORDER.indexOf(x.role) - ORDER.indexOf(y.role) || x.rank - y.rank);
  return found;
}

/** What the advice ranks for one kind of operation; all of it where it names none for that kind. */
export function rankedFor(kind: string, { ranked }: Advised): Advised['ranked'] {
  const same = ranked.filter((r) => r.kind === kind);
  return same.length ? same : ranked;
}
