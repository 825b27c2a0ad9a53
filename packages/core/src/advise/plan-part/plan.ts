/** A whole plan for a part: how it is gripped, from what stock, and a route for each grip, found by trying. */
import { LengthUnit, formatArea, formatLength } from '../../quantity/units';
import { Bar } from '../../shop/bar';
import { BARS, TOOLS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { upText } from '../../document/edit';
import { fewestGrips } from '../../document/grips';
import { Job, Setup } from '../../document/job';
import { LeftFace, Part } from '../../part/plate/feature';
import { leanText } from '../../part/plate/leaning';
import { partModel } from '../../part/plate/model';
import { Face } from '../../part/plate/turn';
import { LEFT_WORDS, leftOf } from '../../part/solid/left';
import type { BenchWork } from '../../plan/bench';
import { RunFigures, priceBreaks } from '../../plan/cost';
import { costSentences } from '../../plan/cost-words';
import { groundOf } from '../../plan/ground';
import { PlanCache } from '../../plan/pipeline';
import { ProvenRoute, provenSetup } from '../route/proven';
import { held, inOrder } from './grip';
import { ordersOf } from './orders';

/** A plan, told in sentences. */
export interface PlannedPart {
  job: Job;
  /** How and why, in the order of the work. */
  sentences: string[];
  /** What a run of each setup takes, by its id. */
  runs: Map<string, RunFigures>;
  /** What it found no way for. */
  missing: { feature: string; why: string }[];
}

/** What may be used. */
export interface Shop {
  bars?: Bar[];
  rack?: Tool[];
}

/**
 * Plans a part from nothing: the fewest grips, in the order in which jaws find most to press on, from the cheapest bar of the shelf; then
 * for each grip a route that is planned and proved before it is taken.
 * @param job its part, material and machine; its setups are replaced
 */
export function* planPart(job: Job, { bars = BARS, rack = TOOLS }: Shop = {}): BenchWork<PlannedPart> {
  const sides = fewestGrips(job.part)
    .filter((g) => !g.lean)
    .map((g) => g.face);
  const [order, ...others] = ordersOf(job.part, sides);
  const begun = inOrder(job, order, bars);
  const sentences = [gripsSentence(order, sides, others.length + 1), begun.said];
  const missing: Missing[] = [];
  const plans: PlanCache = new Map();
  let next = begun.job;
  const runs: PlannedPart['runs'] = new Map();
  let last: ProvenRoute | undefined;
  for (const { id } of begun.job.setups) {
    next = held(next, setupOf(next, id));
    const route = yield* provenSetup(next, id, rack, { plans, left: last?.leaves(setupOf(next, id)) });
    next = route.job;
    const setup = setupOf(next, id);
    const isEmpty = setup.operations.length === 0;
    missing.push(...route.missing.flatMap((m) => (isEmpty && m.feature === setup.name ? [] : { ...m, setup: id })));
    if (isEmpty) {
      sentences.push(`${setup.name}: nothing of the rack makes what it is for, so it is left out.`);
      next = { ...next, setups: next.setups.filter((s) => s.id !== id) };
      continue;
    }
    last = route;
    if (route.figures) runs.set(id, route.figures);
    sentences.push(routeSentence(next, setup));
  }
  sentences.push(...costSentences(priceBreaks(next, runs), next.batch));
  return { job: next, sentences, runs, missing: stillMissing(next, missing) };
}

const setupOf = (job: Job, id: string): Setup => job.setups.find((s) => s.id === id)!;

/** What the route of a setup has no way for. */
type Missing = PlannedPart['missing'][number] & { setup: string };

/** What no setup has a way for, each told once: what goes through can be made from its other side. */
function stillMissing({ part, setups, unit }: Job, missing: Missing[]): PlannedPart['missing'] {
  const isMissing = (id: string, name: string) => missing.some((m) => m.setup === id && m.feature === name);
  const isMadeElsewhere = ({ feature, setup }: Missing) =>
    part.features.some(
      (f) =>
        f.name === feature &&
        f.through &&
        setups.some(
          (s) => s.id !== setup && !isMissing(s.id, feature) && s.operations.some((o) => o.targets.includes(f.id)),
        ),
    );
  const told = new Map<string, PlannedPart['missing'][number]>();
  for (const m of missing) {
    const key = `${m.feature}: ${m.why.split(';')[0]}`;
    if (!told.has(key) && !isMadeElsewhere(m)) told.set(key, { feature: m.feature, why: m.why });
  }
  return [...told.values(), ...leaning(part), ...(part.kind === 'solid' ? leftSentences(leftOf(part), unit) : [])];
}

/** Grips that lean are somebody's own to make. */
const leaning = ({ features }: Part): PlannedPart['missing'] =>
  features.flatMap((f) =>
    f.lean
      ? [{ feature: f.name, why: `its axis leans ${leanText(f.lean)}; a setup on a sine plate would make it` }]
      : [],
  );

/** Faces left for one reason, told together. */
function leftSentences(left: LeftFace[], unit: LengthUnit): PlannedPart['missing'] {
  const whys = [...new Set(left.map((l) => l.why))];
  return whys.map((why) => {
    const its = left.filter((l) => l.why === why);
    const area = its.reduce((sum, l) => sum + l.area, 0);
    const { is, would } = LEFT_WORDS[why];
    const numbers = its.map((l) => l.face + 1).join(', ');
    const isOne = its.length === 1;
    return {
      feature: `${isOne ? 'Face' : 'Faces'} ${numbers}`,
      why: `${formatArea(area, unit)}${isOne ? '' : ' together'}, ${is}; ${would} would make ${isOne ? 'it' : 'them'}`,
    };
  });
}

function gripsSentence(order: Face[], sides: Face[], tried: number): string {
  const which = order.map((face) => upText({ face })).join(', then ');
  const [blank, off] = order;
  const bare = [blank, off].find((face) => !sides.includes(face));
  const why = bare
    ? ` With ${upText({ face: bare })} there is only the face itself to cut${bare === off ? `, which the blank was held by` : ''}.`
    : '';
  const from = tried > 1 ? ` Of ${tried} orders of ${order.length} grips jaws find most to press on in this one.` : '';
  return `${order.length} grips: ${which}.${why}${from}`;
}

function routeSentence(job: Job, setup: Setup): string {
  const tools = new Set(setup.operations.map((o) => o.toolId)).size;
  const { work, held } = groundOf(job, setup, partModel);
  const high = formatLength(work.stock.top - work.stock.bottom, job.unit);
  const ops = setup.operations.length;
  const names = held.map((h) => h.holding.name).join(', ');
  return `${setup.name}: ${ops} operation${ops === 1 ? '' : 's'} with ${tools} tool${tools === 1 ? '' : 's'}, the piece ${high} high (${names}).`;
}
