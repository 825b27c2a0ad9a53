/** Everything that is known to speak against a program, or for a second look at it, before it is handed out. */
import { Finding, Level, finding, worded } from '../quantity/finding';
import { DOCUMENT } from '../quantity/findings/document';
import { HOLDING } from '../quantity/findings/holding';
import { LOAD } from '../quantity/findings/load';
import { PROGRAM } from '../quantity/findings/program';
import { PROOF } from '../quantity/findings/proof';
import { RELEASE } from '../quantity/findings/release';
import { SHOP } from '../quantity/findings/shop';
import type { Job, Setup } from '../document/job';
import type { Tool } from '../shop/tool';
import { Wear } from '../judge/wear';
import { clampsAfter, handOf } from '../operation/hand/by-hand';
import { kitOf } from '../plan/batch';
import { insightOf } from '../plan/insight';
import { leftOut } from '../plan/pipeline';
import { compensationsOf } from '../plan/setup-findings';
import type { PlanView, ProofView } from '../view/terms';
import { acceptedKey, rowOf } from './root';

export const TOPICS = ['part', 'hold', 'route', 'load', 'contacts', 'piece', 'program', 'tools', 'ready'] as const;
export type Topic = (typeof TOPICS)[number];

/** One thing that was looked at, with what was found; nothing found is good. */
export interface Check {
  topic: Topic;
  findings: Finding[];
}

const TABLES: [Topic, object][] = [
  ['part', DOCUMENT],
  ['hold', HOLDING],
  ['load', LOAD],
  ['program', PROGRAM],
  ['piece', PROOF],
  ['tools', SHOP],
  ['ready', RELEASE],
];
const DRAWN = new Set(['drawing', 'feature', 'part', 'solid', 'model']);
/** Of what a proof finds, what touches or does not reach. */
const TOUCHES = /^(fixture-hit|table-hit|holder-hit|nose-hit|shank-rub|beyond-travel|change-|rapid-through)/;

function topicOf({ code, place }: Finding): Topic {
  if (TOUCHES.test(code)) return 'contacts';
  const known = TABLES.find(([, table]) => code in table)?.[0];
  return known ?? (DRAWN.has(place.field?.split('.')[0] ?? '') ? 'part' : 'route');
}

/** What of a proof is looked at. */
export type ProofToCheck = Pick<ProofView, 'findings' | 'called' | 'wear'>;

function pocketFindings(job: Job, setup: Setup, { called, wear }: ProofToCheck): Finding[] {
  const { name: machine, toolPockets: pockets } = job.machine;
  const kit = kitOf(
    job,
    setup,
    called.map((c) => c.number),
    wear,
  );
  const named = (some: typeof kit) => rowOf(some.map(({ tool }) => `T${tool.number}`));
  const beyond = kit.filter((k) => k.stands === 'nowhere');
  const unknown = kit.filter((k) => k.stands === 'to load' && !k.out);
  const others = kit.filter((k) => k.stands === 'to load' && k.out);
  return [
    ...(beyond.length > 0 ? [finding('beyond-pockets', { tools: named(beyond), pockets, machine })] : []),
    ...others.map(({ tool, out = '' }) =>
      finding('pocket-other', { tool: tool.name, number: tool.number, now: out }, { tool: tool.id }),
    ),
    ...(unknown.length > 0 ? [finding('pockets-unknown', { tools: named(unknown) })] : []),
  ];
}

/** Tools whose edges end within a run. */
const worn = (tools: Tool[], wear: Wear[]): Finding[] =>
  wear
    .filter((w) => w.share > 1)
    .flatMap(({ tool: number, share }) => {
      const tool = tools.find((t) => t.number === number);
      return tool ? [finding('edge-ends', { tool: tool.name, number, share }, { tool: tool.id })] : [];
    });

/** Operations that run faster or slower than is suggested for them. */
function departures(job: Job, { operations }: Setup): Finding[] {
  return operations
    .filter((o) => o.on)
    .flatMap((operation) => {
      const found = insightOf(job, operation)?.departure;
      if (!found?.brief) return [];
      const isOver = (found.rpm > 1 || found.feed > 1) && found.governs !== undefined;
      const place = { operation: operation.id, field: 'speeds' };
      return [finding(isOver ? 'departs-over' : 'departs', { operation: operation.name, brief: found.brief }, place)];
    });
}

/** What somebody does by hand that no word at the machine, or no proof, stands for. */
const byHand = ({ operations }: Setup): Finding[] =>
  operations.flatMap((o) => {
    const hand = handOf(o);
    if (!hand) return [];
    const place = { operation: o.id };
    const found: Finding[] = [];
    if (!hand.note.trim()) found.push(finding('hand-without-word', { operation: o.name }, place));
    if (hand.what === 'grip anew' && !clampsAfter(o)?.length)
      found.push(finding('gripped-unseen', { operation: o.name }, place));
    return found;
  });

function switchedOff(setup: Setup): Finding[] {
  const names = leftOut(setup);
  const operations = names.map((n) => `“${n}”`).join(', ');
  return names.length > 0 ? [finding('switched-off', { operations, number: names.length })] : [];
}

const compensated = (setup: Setup, tools: Tool[]): Finding[] =>
  tools
    .filter((t) => compensationsOf(setup, t.id).size > 0)
    .map((t) => finding('compensated-unseen', { tool: t.name, number: t.number }, { tool: t.id }));

/**
 * What a setup's program is looked at for, topic by topic in a fixed order, each with what speaks against it.
 * @param plan of the setup
 * @param proof of its very program
 */
export function preflight(
  job: Job,
  setup: Setup,
  plan: Pick<PlanView, 'findings' | 'planned'>,
  proof: ProofToCheck,
): Check[] {
  const own = [
    ...pocketFindings(job, setup, proof),
    ...worn(job.tools, proof.wear),
    ...departures(job, setup),
    ...byHand(setup),
    ...switchedOff(setup),
    ...compensated(setup, job.tools),
  ].map((f) => worded(f, job.unit));
  const all = [...plan.findings, ...plan.planned.flatMap((p) => p.findings), ...proof.findings, ...own];
  return TOPICS.map((topic) => ({ topic, findings: all.filter((f) => topicOf(f) === topic) }));
}

export const findingsOf = (checks: Check[]): Finding[] => checks.flatMap((c) => c.findings);

/** What somebody has to take as it is before a release; nothing where something stops it. */
export const toAccept = (checks: Check[]): Finding[] => findingsOf(checks).filter((f) => f.level === 'care');

/** The gravest of what was found; undefined where nothing was. */
export const gravest = ({ findings }: Check): Level | undefined =>
  (['stop', 'care', 'note'] as const).find((level) => findings.some((f) => f.level === level));

/** What keeps a release back: what stops it, and what nobody has accepted yet. */
export function heldBack(checks: Check[], accepted: string[]): { stops: Finding[]; open: Finding[] } {
  const taken = new Set(accepted);
  return {
    stops: findingsOf(checks).filter((f) => f.level === 'stop'),
    open: toAccept(checks).filter((f) => !taken.has(acceptedKey(f))),
  };
}

/** How a topic is called on pages and sheets. */
export const TOPIC_WORDS: Record<Topic, string> = {
  part: 'The part as drawn',
  hold: 'How it is held',
  route: 'The route',
  load: 'Load on spindle, tool and grip',
  contacts: 'Holder, spindle, jaws and travel',
  piece: 'The piece that comes out',
  program: 'The program at its control',
  tools: 'The tools as entered',
  ready: 'Made ready and as suggested',
};
