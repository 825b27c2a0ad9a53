import { expandCycle, isTapping } from '../../operation/cycle';
import { DrillCycle } from '../../operation/operation';
import { Blocks, numberText } from './blocks';
import { wordFor } from './capability';
import { Step, spindleWord } from './step';

/** A canned cycle, called anew after each stop; without one, its moves. */
export function writeCycle(out: Blocks, cycle: DrillCycle, step: Step): void {
  const code = wordFor(out.controller, cycle);
  const runs = cycle.stops === 'before each' ? cycle.holes.map((h) => [h]) : [cycle.holes];
  runs.forEach((holes, i) => {
    if (cycle.stops !== 'none') programStop(out, step, holes[0], i);
    const run = { ...cycle, holes };
    if (code) canned(out, run, code);
    else writtenOut(out, run);
  });
}

function canned(out: Blocks, cycle: DrillCycle, code: string): void {
  const [first] = cycle.holes;
  out.move('G0', first.x, first.y, cycle.clearance, []);
  const pecking = cycle.kind === 'peck' || cycle.kind === 'chip-break';
  const tail = [
    pecking ? `Q${out.length(cycle.peck)}` : '',
    cycle.dwell > 0 ? `P${Math.round(cycle.dwell * 1000)}` : '',
  ];
  const back = (hop: number) => (hop < cycle.clearance - 1e-6 ? 'G99' : 'G98');
  cycle.holes.forEach((hole, i) => {
    const z = out.length(hole.z);
    const xy = [`X${out.length(hole.x)}`, `Y${out.length(hole.y)}`];
    if (i === 0)
      out.join([
        `${back(hole.hop)} ${code}`,
        ...xy,
        `Z${z}`,
        `R${out.length(cycle.start)}`,
        ...tail,
        `F${out.feedText(cycle.feed)}`,
      ]);
    else {
      const before = cycle.holes[i - 1];
      const changed = back(hole.hop) === back(before.hop) ? '' : back(hole.hop);
      out.join([changed, ...xy, z === out.length(before.z) ? '' : `Z${z}`]);
    }
  });
  out.block('G80');
  const last = cycle.holes[cycle.holes.length - 1];
  out.forget();
  out.stands(last.x, last.y, last.hop);
}

function writtenOut(out: Blocks, cycle: DrillCycle): void {
  const bottoms = new Set(cycle.holes.map((h) => h.z));
  out.path(expandCycle(cycle), (z) => {
    if (cycle.dwell > 0 && bottoms.has(z)) out.block(`G4 P${numberText(cycle.dwell, 1)}`);
  });
}

/** The spindle and coolant stop and the program waits, above the hole, for someone's hand. */
function programStop(out: Blocks, step: Step, hole: { x: number; y: number }, index: number): void {
  const { clearance, kind } = step.cycle!;
  const { controller } = out;
  if (index > 0) out.move('G0', hole.x, hole.y, clearance, []);
  out.block('M9');
  out.block('M5');
  out.comment(isTapping(kind) ? 'Blow the hole out and lubricate' : 'Clear the chips');
  out.block('M0');
  out.block(`S${step.rpm} ${spindleWord(step)}`);
  if (controller.spindleDwell > 0) out.block(`G4 P${numberText(controller.spindleDwell, 1)}`);
  if (step.coolant !== 'off') out.block(controller.coolant[step.coolant]!);
  out.forget();
}
