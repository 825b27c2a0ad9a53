/** Finding the zero of a setup, told for a hand with an edge finder, and as a program for a machine with a probe. */
import type { Job, Setup } from '../document/job';
import { partModel } from '../part/plate/model';
import { formatLength } from '../quantity/units';
import { groundOf } from './ground';
import { Probe, ProbeFile, proberOf } from './probe';
import { ROOM, ROUGH, Touch, touchesOf } from './touch';

/** An edge finder's ball where nothing is said of one, mm. */
const USUAL = 6;

/**
 * How the zero is found by hand, a line a face; empty where it is not found from the stock.
 */
export function zeroByHand(job: Job, setup: Setup): string[] {
  const found = touchesOf(groundOf(job, setup, partModel), job.machine.probeBall || USUAL);
  if (!found) return [];
  const mm = (v: number) => formatLength(v, job.unit);
  const of = setup.workOffset;
  const lines = found.touches.map(({ axis, face, at, way }) =>
    axis === 'z'
      ? `Z: the top of the stock is Z ${mm(at)} in ${of}: touch it with a tool whose length is set.`
      : `${axis.toUpperCase()}: the ${face} face of the stock is ${axis.toUpperCase()} ${mm(at)} in ${of}; with an edge finder against it the spindle stands its radius ${way > 0 ? 'less' : 'more'}.`,
  );
  const blocked = found.blocked.map((face) => `The ${face} face of the stock is not free to be touched.`);
  return [...lines, ...blocked];
}

/** Z from the top of the stock. */
function top(probe: Probe, { place, at, way }: Touch): void {
  probe.say('Z from the top');
  probe.over(place);
  probe.to('z', at + ROOM.before);
  probe.set('z', at, way);
  probe.up();
}

/** X or Y from a side: against the face the ball's middle stands its radius before it. */
function side(probe: Probe, { axis, at, way, place, face }: Touch): void {
  const start = at - way * (ROOM.before + probe.r);
  probe.say(`${axis.toUpperCase()} from the ${face}`);
  probe.over({ ...place, [axis]: start });
  probe.to('z', place.z);
  probe.set(axis, at - way * probe.r, way);
  probe.to(axis, start);
  probe.up();
}

/**
 * A program that sets the zero of a setup with a probe; undefined where it cannot be found so.
 * Its moves are told in the zero that was set by hand, which may be a little off; no proof sees what was set.
 */
export function zeroProgram(job: Job, setup: Setup): ProbeFile | undefined {
  const controller = proberOf(job);
  if (!controller) return undefined;
  const ground = groundOf(job, setup, partModel);
  const { touches = [] } = touchesOf(ground, job.machine.probeBall!) ?? {};
  if (touches.length === 0) return undefined;
  const probe = new Probe(job, setup, controller, ground.clearance - ground.zero.z);
  const about = [
    `Sets ${setup.workOffset} by touch: set it by hand within ${formatLength(ROUGH, job.unit)} first`,
    // What it measures of its own length is no length of a tool.
    ...(controller.lengthOffsets ? [] : ['Z is left as it is: set it with the probe before, with each tool after']),
  ];
  if (touches.some((t) => t.isRound)) about.push('Run it twice: on a round face the first touch is only near');
  return probe.file('Zero', about, touches[0].place, () => {
    for (const t of touches) {
      if (t.axis !== 'z') side(probe, t);
      else if (controller.lengthOffsets) top(probe, t);
    }
  });
}
