/** Sizes of a piece measured with a touch probe. */
import type { Job, Setup } from '../document/job';
import type { Point } from '../geometry/plane/point';
import type { Feature } from '../part/plate/feature';
import { partModel } from '../part/plate/model';
import { groundOf } from '../plan/ground';
import { BACK, Probe, ProbeFile, proberOf } from '../plan/probe';
import { ROUGH } from '../plan/touch';
import { SizeToMeasure, featureOf, sizesToMeasure } from './sizes';

/** A size between two walls that look at each other, work coordinates, mm. */
interface Across {
  name: string;
  middle: Point;
  axis: 'x' | 'y';
  half: number;
  /** Height of the lower end of what touches. */
  z: number;
}

/** How far below its mouth a wall is touched, mm, and no deeper than half of it. */
const DOWN = 4;

/** Which way a size lies; undefined where that is no axis, or no two walls. */
function axisOf({ size }: SizeToMeasure, { shape, turn }: Feature): 'x' | 'y' | undefined {
  if (shape.type === 'round') return size === 'diameter' ? 'x' : undefined;
  if (shape.type !== 'rectangle' || turn % 90 !== 0 || (size !== 'width' && size !== 'height')) return undefined;
  return (size === 'width') === (turn % 180 === 0) ? 'x' : 'y';
}

/** Sizes with limits a probe can measure: openings along an axis with room for the ball, in which nothing stands. */
function acrossOf(job: Job, setup: Setup, ball: number): Across[] {
  const { zero, work } = groundOf(job, setup, partModel);
  const { features } = work;
  if (features.some((f) => f.meaning === 'boss')) return [];
  return sizesToMeasure(job, setup).flatMap((size): Across[] => {
    const feature = features.find((f) => f.id === featureOf(size));
    const axis = feature && axisOf(size, feature);
    if (!axis || (feature.meaning !== 'hole' && feature.meaning !== 'pocket')) return [];
    if (size.mm < ball + 2 * (ROUGH + BACK)) return [];
    const deep = Math.min(DOWN + ball / 2, feature.through ? Infinity : feature.depth / 2);
    const middle = { x: feature.x - zero.x, y: feature.y - zero.y };
    return [{ name: `${size.feature}, ${size.size}`, middle, axis, half: size.mm / 2, z: -deep - zero.z }];
  });
}

/** Both walls, one after the other: it waits at each until somebody has noted where it stands. */
function across(probe: Probe, { name, middle, axis, half, z }: Across): void {
  probe.say(name);
  probe.over(middle);
  probe.to('z', z);
  for (const way of [-1, 1] as const) {
    probe.touch(axis, middle[axis] + way * (half - probe.r), way);
    probe.say(`Note ${axis.toUpperCase()}${way > 0 ? ': the size is the difference plus the ball' : ''}`);
    probe.wait();
    probe.to(axis, middle[axis]);
  }
  probe.up();
}

/** A program that measures what it can of the sizes of a setup; undefined where there is nothing, or nobody to do it. */
export function sizesProgram(job: Job, setup: Setup): ProbeFile | undefined {
  const controller = proberOf(job);
  const all = controller ? acrossOf(job, setup, job.machine.probeBall!) : [];
  if (!controller || all.length === 0) return undefined;
  const { clearance, zero } = groundOf(job, setup, partModel);
  const probe = new Probe(job, setup, controller, clearance - zero.z);
  const about = ['Measures: it waits at each wall, while the display says where the ball stands'];
  return probe.file('Sizes', about, all[0].middle, () => all.forEach((one) => across(probe, one)));
}
