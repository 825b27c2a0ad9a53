/** What speaks against a setup as a whole: its stock, its machine, its rack, how it lies and is held. */
import { JobFile, atHand } from '../quantity/files';
import { fileMissing } from '../document/files';
import { neverSeen, upText } from '../document/edit';
import { Job, Setup } from '../document/job';
import { abilities } from '../machine/abilities';
import { isByHand } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import { Finding, finding } from '../quantity/finding';
import { surfaceOf } from '../part/solid/surface-of';
import { Tool } from '../shop/tool';
import { StockModel } from '../stock/height/stock';
import type { Ground } from './ground';
import { holdFindings } from './holds';
import { reachFindings } from './reach';

/** Why a casting is not there: it was not chosen yet, its file is not at hand, or cannot be read. */
function castingFinding(casting?: JobFile): Finding {
  const place = { field: 'stock.casting' };
  if (!casting) return finding('casting-missing', {}, place);
  return atHand(casting.sha256)
    ? finding('casting-unreadable', { casting: casting.name }, place)
    : { ...fileMissing(casting), place };
}

/** What cannot be as the stock says: something else stands in for it. */
function stockFindings({ stock: spec }: Setup, stock: StockModel): Finding[] {
  if (spec.shape === 'casting' && !stock.casting) return [castingFinding(spec.casting)];
  if (spec.shape === 'tube' && (spec.bore ?? 0) >= spec.diameter)
    return [
      finding(
        'tube-bore',
        {},
        {
          field: 'stock.bore',
        },
      ),
    ];
  return [];
}

/** A solid whose surface is not here, or no surface: nothing could be compared with it. */
function solidFindings({ part }: Job): Finding[] {
  if (part.kind !== 'solid' || surfaceOf(part)) return [];
  const place = { field: 'part.surface' };
  return [
    atHand(part.surface.sha256)
      ? finding('solid-surface', { name: part.surface.name }, place)
      : { ...fileMissing(part.surface), place },
  ];
}

/** What cannot be of a setup that leans, or comes after one. */
function leanFindings({ setups }: Job, setup: Setup): Finding[] {
  const { lean, up = 'top', stock, copies, stations } = setup;
  const before = setups[setups.findIndex((s) => s.id === setup.id) - 1];
  const asLeft = stock.shape === 'as left';
  if (!lean)
    return asLeft && before?.lean ? [finding('after-leaning', { before: before.name }, { field: 'stock.shape' })] : [];
  const found: Finding[] = [];
  if (asLeft || stock.shape !== 'box')
    found.push(finding('leaning-needs-block', { shape: stock.shape }, { field: 'stock.shape' }));
  if (up !== 'top') found.push(finding('leaning-from-top', {}, { field: 'up' }));
  if (copies || stations) found.push(finding('leaning-alone', {}, { field: copies ? 'copies' : 'stations' }));
  return found;
}

/** What the machine cannot do of a route. */
function machineFindings({ machine }: Job, setup: Setup): Finding[] {
  const { processes, turnsWork } = abilities(machine);
  if (turnsWork) return [finding('lathe', { machine: machine.name }, { field: 'machine' })];
  if (processes.includes('milling')) return [];
  return setup.operations
    .filter((o) => o.on && !processes.includes(kindOf(o.kind)?.process ?? 'milling'))
    .map((o) =>
      finding('beam-only', { operation: o.name, machine: machine.name }, { operation: o.id, field: 'machine' }),
    );
}

/** What the control compensates of a tool in a setup. */
export const compensationsOf = (setup: Setup, toolId: string): Set<'wear' | 'radius'> =>
  new Set(
    setup.operations.flatMap((o) => (o.on && o.toolId === toolId && kindOf(o.kind)?.compensates?.(o.params)) || []),
  );

function jobFindings(job: Job, setup: Setup): Finding[] {
  const findings = machineFindings(job, setup);
  const seen = new Map<number, string>();
  for (const tool of job.tools) {
    const other = seen.get(tool.number);
    if (other)
      findings.push(
        finding(
          'same-number',
          { tool: tool.name, other, number: tool.number },
          {
            tool: tool.id,
          },
        ),
      );
    seen.set(tool.number, tool.name);
  }
  for (const { id, name } of job.tools)
    if (compensationsOf(setup, id).size > 1)
      findings.push(finding('compensation-mixed', { tool: name }, { tool: id, field: 'params.compensation' }));
  if (setup.operations.every((o) => !o.on || isByHand(o))) {
    findings.push(finding('no-operations', {}, { field: 'operations' }));
  }
  if (setup.id === job.setups[job.setups.length - 1].id)
    for (const unseen of neverSeen(job))
      findings.push(
        finding(
          'side-never-up',
          { side: upText(unseen), features: unseen.features.map((f) => `“${f.name}”`).join(', ') },
          { field: 'up' },
        ),
      );
  return findings;
}

/** Tools a setup runs. */
const usedTools = ({ tools }: Job, { operations }: Setup): Tool[] =>
  tools.filter((t) => operations.some((o) => o.on && o.toolId === t.id));

/** What speaks against a setup before anything of it is planned. */
export const setupFindings = (job: Job, setup: Setup, ground: Ground): Finding[] => [
  ...solidFindings(job),
  ...stockFindings(setup, ground.stock),
  ...leanFindings(job, setup),
  ...holdFindings(job, ground),
  ...reachFindings(job.machine, ground, usedTools(job, setup)),
  ...jobFindings(job, setup),
];
