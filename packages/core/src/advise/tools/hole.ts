import { pointLength, reamAllowance } from '../../cutting/holes';
import { formingDrill, parseThread, threadSizes } from '../../cutting/threads';
import { Feature } from '../../part/plate/feature';
import { Hole, wallOf } from '../../part/plate/model';
import { offBy } from '../../operation/hole/holes';
import { nearestDrill } from '../../quantity/drill-sizes';
import { Tool, formOf, kindLabel, makesHoles, startsHoles } from '../../shop/tool';
import { Asked, buyMill, cutOf, Role, Advice, Advised } from './common';

/** The hole a drill has to leave: the drawn one, or the one its thread wants. */
function wantedHole(feature: Feature, hole: Hole, forming: boolean) {
  const read = feature.thread ? parseThread(feature.thread) : undefined;
  if (!read?.ok)
    return {
      least: hole.diameter - offBy(hole),
      most: hole.diameter + offBy(hole),
      aim: hole.diameter,
      thread: undefined,
    };
  const { thread } = read;
  const sizes = threadSizes(thread);
  const formed = formingDrill(thread.major, thread.pitch, 65);
  return forming
    ? { least: formed - 0.03 * thread.pitch, most: formed + 0.03 * thread.pitch, aim: formed, thread }
    : {
        least: sizes.internalMinor - 0.01,
        most: sizes.internalMinorMost,
        aim: (sizes.internalMinor + sizes.internalMinorMost) / 2,
        thread,
      };
}

function drillWords(a: Asked, tool: Tool, hole: Hole, reasons: string[], cautions: string[]): number {
  const ratio = hole.depth / tool.diameter;
  let rank = 1;
  if (tool.throughCoolant && a.job.machine.coolants.includes('through')) {
    reasons.push('coolant through it: straight down, no pecks');
    rank *= 0.7;
  } else if (tool.throughCoolant) cautions.push(`${a.job.machine.name} has no coolant through the spindle`);
  if (tool.kind === 'stub-drill') reasons.push('short and stiff: starts true without a spot');
  else if (tool.material === 'hss') cautions.push('HSS wanders: spot first');
  if (ratio > 4) reasons.push(`${Math.round(ratio * 10) / 10} diameters deep: it will peck`);
  if (tool.material === 'carbide') reasons.push('carbide: fast and stiff');
  else rank *= 1.3;
  return rank;
}

/** Drills of the right size (or the thread’s), what starts, opens and sizes the hole, and what threads it. */
export function holeAdvice(a: Asked, rack: Tool[]): Advised {
  const hole = a.model.holes.find((h) => h.feature === a.feature.id);
  const ranked: Advice[] = [];
  const unfit: Advised['unfit'] = [];
  if (!hole) return { ranked, unfit };
  const { thread } = wantedHole(a.feature, hole, false);
  const wall = wallOf(hole, a.model);
  const canDrill = (forming: boolean) => {
    const { least, most } = wantedHole(a.feature, hole, forming);
    return rack.some((t) => formOf(t) === 'drill' && !startsHoles(t) && t.diameter >= least && t.diameter <= most);
  };
  const drilled = { cutting: canDrill(false), forming: canDrill(true) };
  const threading = thread ? threadAdvice(a, hole, thread, rack, drilled) : [];
  const forming = threading[0]?.tool.kind === 'forming-tap';
  const wanted = wantedHole(a.feature, hole, forming);
  const push = (tool: Tool, role: Role, rank: number, reasons: string[], cautions: string[] = [], minutes?: number) => {
    const { bite, suggestion } = cutOf(a, { ae: tool.diameter, ap: tool.diameter }, tool);
    if (!suggestion.possible) unfit.push({ tool, why: suggestion.limitText });
    else
      ranked.push({
        tool,
        role,
        kind: formOf(tool) === 'drill' || makesHoles(tool) ? 'drill' : undefined,
        minutes,
        reasons,
        cautions,
        bite,
        suggestion,
        rank,
      });
  };
  for (const tool of rack) {
    const form = formOf(tool);
    const point = form === 'drill' ? pointLength(tool.diameter, tool.pointAngle) : 0;
    if (startsHoles(tool)) {
      if (tool.diameter >= wanted.aim * 0.9)
        push(tool, 'starts', 50 + tool.diameter, [`a ${kindLabel(tool)} gives the drill a true start`]);
    } else if (makesHoles(tool)) {
      if (tool.diameter > wanted.most) {
        if (form === 'drill' && tool.diameter < wanted.most * 1.3)
          unfit.push({ tool, why: `larger than ${a.long(wanted.aim)}` });
        continue;
      }
      if (form !== 'drill' && tool.diameter < wanted.least) continue;
      if (tool.fluteLength < wall + point) {
        unfit.push({
          tool,
          why: `flutes of ${a.long(tool.fluteLength)} for ${a.long(wall + point)} with its point`,
        });
        continue;
      }
      if (tool.stickOut < hole.depth + point + 1) {
        unfit.push({ tool, why: `sticks out ${a.long(tool.stickOut)}` });
        continue;
      }
      const reasons: string[] = [];
      const cautions: string[] = [];
      let rank = drillWords(a, tool, hole, reasons, cautions);
      const fits = tool.diameter >= wanted.least;
      if (fits)
        reasons.unshift(
          wanted.thread
            ? `leaves the right hole for ${wanted.thread.name}${forming ? ' by forming' : ''}`
            : 'the size of the hole',
        );
      else {
        cautions.unshift(`leaves ${a.long(Math.round((wanted.aim - tool.diameter) * 1000) / 1000)} on the diameter`);
        rank = 20 + (wanted.aim - tool.diameter);
      }
      if (form !== 'drill') {
        cautions.push('a mill plunges slowly and leaves a rougher hole than a drill');
        rank += 5;
      }
      push(
        tool,
        fits ? 'does it' : 'opens',
        rank,
        reasons,
        cautions,
        fits ? hole.depth / cutOf(a, { ae: tool.diameter, ap: tool.diameter }, tool).suggestion.feed : undefined,
      );
    } else if (tool.kind === 'reamer' && !thread && Math.abs(tool.diameter - hole.diameter) <= offBy(hole)) {
      push(tool, 'sizes', 30, [`reams to size; drill ${a.long(hole.diameter - reamAllowance(hole.diameter))} first`]);
    }
  }
  ranked.push(...threading);
  const done = ranked.some((r) => r.role === 'does it' && formOf(r.tool) === 'drill');
  const buy = wanted.aim > MOST_BOUGHT ? buyMill(a, BORED * wanted.aim, wall) : buyDrill(a, wanted.aim, wall, hole);
  return { ranked, unfit, buy: done ? undefined : buy };
}

/** Larger holes are bored on a helix, mm, with a mill of about so much of their size. */
const MOST_BOUGHT = 20;
const BORED = 0.6;

function buyDrill(a: Asked, aim: number, wall: number, { depth }: Hole): string {
  const { drill, error } = nearestDrill(aim, a.job.unit === 'mm' ? ['metric'] : ['number', 'letter', 'fraction']);
  const off = Math.abs(error) > 0.005 ? ` (${a.long(Math.abs(error))} ${error > 0 ? 'over' : 'under'})` : '';
  const out = depth > wall ? `, ${a.long(Math.ceil(depth + aim))} out of its holder` : '';
  return `${wall / aim > 4 ? 'Long drill' : 'Drill'} ${drill.name}${off}, flutes of ${a.long(Math.ceil(wall + aim))} or more${out}`;
}

/** How much worse a tap ranks for which nothing drills the hole. */
const NO_DRILL = 20;

/** Taps and thread mills for a hole: cutting taps for through holes, forming taps for blind ones in ductile metal, mills for the rest. */
function threadAdvice(
  a: Asked,
  hole: Hole,
  thread: { name: string; major: number; pitch: number },
  rack: Tool[],
  drilled: { cutting: boolean; forming: boolean },
): Advice[] {
  const { ductile, name } = a.job.material;
  const found: Advice[] = [];
  for (const tool of rack) {
    const form = formOf(tool);
    if (form !== 'tap' && form !== 'thread') continue;
    if (tool.kind !== 'thread-mill' && Math.abs(tool.pitch - thread.pitch) > 1e-3) continue;
    if (form === 'tap' && Math.abs(tool.diameter - thread.major) > 0.01) continue;
    if (form === 'thread' && tool.diameter > thread.major * 0.85) continue;
    if (tool.stickOut < hole.depth + 1) continue;
    const reasons: string[] = [`makes ${thread.name}`];
    const cautions: string[] = [];
    let rank = 10;
    if (tool.kind === 'forming-tap') {
      if (!ductile) continue;
      reasons.push(`presses the thread in ${name}: no chips${hole.through ? '' : ' to pack in a blind hole'}`);
      rank += hole.through ? 2 : 0;
    } else if (tool.kind === 'tap') {
      if (hole.through) reasons.push('through hole: the chips go out below');
      else cautions.push('blind hole: the chips stay in it');
      rank += hole.through ? 0 : 3;
    } else {
      reasons.push('any diameter of its pitch; a broken one falls out');
      rank += 6;
    }
    if (!(tool.kind === 'forming-tap' ? drilled.forming : drilled.cutting)) {
      cautions.push('no drill of the rack makes its hole');
      rank += NO_DRILL;
    }
    const { bite, suggestion } = cutOf(
      a,
      { ae: 0.6134 * thread.pitch, ap: Math.min(tool.fluteLength, hole.depth) },
      tool,
    );
    if (suggestion.possible) found.push({ tool, role: 'threads', reasons, cautions, bite, suggestion, rank });
  }
  return found.sort((x, y) => x.rank - y.rank);
}
