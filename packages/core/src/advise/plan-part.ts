/** A whole plan for a part: how it is gripped, from what stock, and a route for each grip, found by trying. */
import { Finding } from '../quantity/finding';
import { formatLength } from '../quantity/units';
import { Bar } from '../shop/bar';
import { BARS, TOOLS } from '../shop/library';
import { Tool } from '../shop/tool';
import { barWays } from '../document/bars';
import { addSetup, upText, withSetup } from '../document/edit';
import { fewestGrips } from '../document/grips';
import { Job, Setup } from '../document/job';
import { emptySetup } from '../document/new';
import { partModel } from '../part/plate/model';
import { FACE_UPS, Face } from '../part/plate/turn';
import type { BenchWork } from '../plan/bench';
import { groundOf } from '../plan/ground';
import { addHolding, holdFindings } from '../plan/holds';
import { provenRoute } from './route/proven';

/** A plan, told in sentences. */
export interface PlannedPart {
  job: Job;
  /** How and why, in the order of the work. */
  sentences: string[];
  /** What it found no way for. */
  missing: { feature: string; why: string }[];
}

/** What may be used. */
export interface Shop {
  bars?: Bar[];
  rack?: Tool[];
}

/** Below the part, so that jaws have something to hold, and round it, mm. */
const HELD_BY = 9;
const ROUND = 2;
const ABOVE = 1;
/** Orders of grips that are looked at. */
const MOST_ORDERS = 6;

/** All orders of some grips, those that begin with the top first. */
function ordersOf(faces: Face[]): Face[][] {
  if (faces.length <= 1) return [faces];
  return faces.flatMap((first) => ordersOf(faces.filter((f) => f !== first)).map((rest) => [first, ...rest]));
}

/** The stock of the first grip: sawn from the cheapest bar that gives it, else a plain block. */
function withStock(job: Job, setup: Setup, bars: Bar[]): { setup: Setup; said: string } {
  const asked = {
    ...setup.stock,
    ...{ shape: 'box' as const, left: ROUND, right: ROUND, front: ROUND, back: ROUND, top: ABOVE, bottom: HELD_BY },
  };
  const { model } = groundOf(job, { ...setup, stock: asked });
  const [way] = barWays(asked, model, bars, job.material).filter((w) => w.less === 0);
  if (!way)
    return { setup: { ...setup, stock: asked }, said: 'No bar on the shelf gives the blank: it is a plain block.' };
  const cost = way.price === undefined ? 'its price is not known' : `${way.price.toFixed(2)} of metal`;
  return { setup: { ...setup, stock: way.stock }, said: `The blank is sawn from ${way.bar.name}: ${cost}.` };
}

/** What the grip with a side up is called. */
const nameOf = (face: Face): string => {
  const text = upText({ face });
  return text[0].toUpperCase() + text.slice(1);
};

const stops = (findings: Finding[]) => findings.filter((f) => f.level === 'stop').length;
const cares = (findings: Finding[]) => findings.filter((f) => f.level === 'care').length;

/** The setup in a vise, its fixed jaw where least speaks against it. */
function inVise(job: Job, setup: Setup): { job: Job; against: number } {
  const tries = (['back', 'right'] as const).map((fixedJaw) => {
    const next = addHolding(job, setup, 'vise', { fixedJaw });
    const held = next.setups.find((s) => s.id === setup.id)!;
    const found = holdFindings(next, groundOf(next, held, partModel));
    return { job: next, against: 10 * stops(found) + cares(found) };
  });
  return tries[0].against <= tries[1].against ? tries[0] : tries[1];
}

/** A zero that stays where it is when the work is turned: the corner of the fixed jaw. */
function onFixedJaw(job: Job, id: string): Job {
  const setup = job.setups.find((s) => s.id === id)!;
  const [held] = setup.holding ?? [];
  if (!held) return job;
  const point = held.params.fixedJaw === 'right' ? 'back right' : 'back left';
  return withSetup(job, { ...setup, zero: { on: 'holding', of: held.id, point, height: 'top' } });
}

/** The grips of an order, each held, before any route. */
function gripped(job: Job, order: Face[], bars: Bar[]): { job: Job; against: number; said: string } {
  const first: Setup = {
    ...emptySetup(),
    name: nameOf(order[0]),
    ...(order[0] !== 'top' && { up: FACE_UPS[order[0]] }),
  };
  const { setup, said } = withStock({ ...job, setups: [first] }, first, bars);
  let next: Job = { ...job, setups: [setup] };
  let against = 0;
  order.forEach((face, i) => {
    if (i > 0) {
      next = addSetup(next);
      const last = next.setups[next.setups.length - 1];
      next = withSetup(next, {
        ...last,
        up: FACE_UPS[face],
        name: nameOf(face),
        holding: [],
        workOffset: `G5${Math.min(9, 4 + i)}`,
      });
    }
    const held = inVise(next, next.setups[i]);
    next = i > 0 ? onFixedJaw(held.job, held.job.setups[i].id) : held.job;
    against += held.against;
  });
  return { job: next, against, said };
}

/**
 * Plans a part from nothing: the fewest grips, in the order least speaks against, held in a vise, from the cheapest bar of the shelf; then
 * for each grip a route that is planned and cut on a coarse grid before it is taken.
 * @param job its part, material and machine; its setups are replaced
 */
export function* planPart(job: Job, { bars = BARS, rack = TOOLS }: Shop = {}): BenchWork<PlannedPart> {
  const grips = fewestGrips(job.part).filter((g) => !g.lean);
  const faces = grips.map((g) => g.face);
  const orders = ordersOf(faces.length > 0 ? faces : ['top']).slice(0, MOST_ORDERS);
  const tried = orders.map((order) => ({ order, ...gripped(job, order, bars) }));
  const best = tried.reduce((a, b) => (b.against < a.against ? b : a));
  let next = best.job;
  const missing: PlannedPart['missing'] = [];
  const sentences = [gripsSentence(best.order, tried.length), best.said];
  for (const { id } of best.job.setups) {
    const proposal = yield* provenRoute(next, id, rack);
    next = proposal.job;
    missing.push(...proposal.missing);
    sentences.push(
      routeSentence(
        next,
        next.setups.find((s) => s.id === id)!,
      ),
    );
  }
  return { job: next, sentences, missing };
}

function gripsSentence(order: Face[], tried: number): string {
  const which = order.map((face) => upText({ face })).join(', then ');
  const count = order.length === 1 ? 'One grip reaches all of it' : `${order.length} grips reach all of it`;
  return `${count}: ${which}.${tried > 1 ? ` Of ${tried} orders this one has least against it.` : ''}`;
}

function routeSentence(job: Job, setup: Setup): string {
  const tools = new Set(setup.operations.map((o) => o.toolId)).size;
  const { work } = groundOf(job, setup, partModel);
  const high = formatLength(work.stock.top - work.stock.bottom, job.unit);
  const ops = setup.operations.length;
  return `${setup.name}: ${ops} operation${ops === 1 ? '' : 's'} with ${tools} tool${tools === 1 ? '' : 's'}, the piece ${high} high in the vise.`;
}
