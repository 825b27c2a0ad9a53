/** The part and its stock as files for others. */
import { stlOf } from '../geometry/space/stl';
import { Job } from '../document/job';
import { Across, drawnFeatures, drawnRegion, drawnSection } from '../part/drawing/drawn';
import { Drawn, dxfText, svgText } from '../part/drawing/written';
import { partModel } from '../part/plate/model';
import { Face } from '../part/plate/turn';
import { surfaceOf } from '../part/solid/surface-of';
import { groundOf } from './ground';

/** What is to be written: the features a side shows, the outside, what a plane cuts, the blank of a setup as it lies, or the solid itself. */
export type WriteAsk =
  | { what: 'features'; face: Face; form: 'dxf' | 'svg' }
  | { what: 'outside'; form: 'dxf' | 'svg' }
  | { what: 'section'; across: Across; form: 'dxf' | 'svg' }
  | { what: 'stock'; setupId: string; form: 'dxf' | 'svg' }
  | { what: 'solid'; form: 'stl' };

function drawn(job: Job, ask: Exclude<WriteAsk, { what: 'solid' }>): Drawn[] {
  if (ask.what === 'features') return drawnFeatures(job.part, ask.face);
  if (ask.what === 'outside') return drawnRegion(partModel(job.part).outline, 'outside');
  if (ask.what === 'section') return drawnSection(job.part, ask.across) ?? [];
  const setup = job.setups.find((s) => s.id === ask.setupId) ?? job.setups[0];
  return drawnRegion(groundOf(job, setup).stock.region, 'stock');
}

/**
 * A file of the part: DXF in the unit of the job, SVG in its true size, binary STL in mm.
 * @returns undefined where there is nothing to write
 */
export function written(job: Job, ask: WriteAsk): Uint8Array | undefined {
  if (ask.what === 'solid') {
    const surface = job.part.kind === 'solid' ? surfaceOf(job.part) : undefined;
    return surface && stlOf(surface);
  }
  const curves = drawn(job, ask);
  if (curves.length === 0) return undefined;
  return new TextEncoder().encode(ask.form === 'dxf' ? dxfText(curves, job.unit) : svgText(curves));
}
