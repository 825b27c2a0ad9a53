import 'reflect-metadata';
import { atGentleSpeeds, prove, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { solidFile } from '../../testing/solids';
import { newJob } from '../document/new';
import { filesOf, missingFiles } from '../document/files';
import { Job } from '../document/job';
import { Solid } from '../part/plate/feature';
import { facesOfSolid } from '../part/solid/faces/faces';
import { readModel } from '../part/solid/read/read';
import { takenSolid } from '../part/solid/take';
import { putAtHand } from '../quantity/files';
import { Judged } from '../stock/height/judged';
import { readJob } from './documents';
import { groundOf } from './ground';
import { setupFindings } from './setup-findings';

const NAME = 'drain-step.stl';
const file = solidFile(NAME);
const { part, surface } = takenSolid(
  facesOfSolid(readModel(file).bodies[0].mesh),
  { body: 0, unit: 'mm', up: 'top' },
  { name: NAME, sha256: putAtHand(file) },
);
/** Cells of the proof, mm. */
const CELL = 0.5;
const named = (name: string) => part.features.find((f) => f.name === name)!.id;

/** The block with its steps and its slot cut, as they were found. */
function job(changed: Partial<Solid> = {}): Job {
  putAtHand(surface);
  const blank = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 6 };
  const empty = withStock({ ...newJob('Steps', 'mm'), part: { ...part, ...changed } }, blank);
  const mill = { ...tool(4), fluteLength: 46, stickOut: 60 };
  const steps = ['Step, 2', 'Step, 3'].map(named);
  const cleared = withOperation(empty, 'pocket', steps, mill, { finish: true, wallAllowance: 0, floorAllowance: 0 });
  return atGentleSpeeds(cleared);
}

const deeper = (name: string, by: number) => ({
  features: part.features.map((f) => (f.name === name ? { ...f, depth: f.depth + by } : f)),
});

describe('a solid as the part', () => {
  test('is stored and read like any part, with the files it names', () => {
    const read = readJob(JSON.parse(JSON.stringify(job())));
    expect(read.findings).toEqual([]);
    expect(filesOf(read.job!).map((f) => f.name)).toEqual(['drain-step.ply', NAME]);
    expect(missingFiles(read.job!)).toEqual([]);
    const other = { ...part, surface: { name: 'x.ply', sha256: 'ab'.repeat(32) } };
    expect(missingFiles({ ...job(), part: other }).map((f) => f.name)).toEqual(['x.ply']);
  });

  test('a surface that is not here, or is none, stops the program', () => {
    const code = (file: { name: string; sha256: string }) => {
      const lost = job({ surface: file });
      return setupFindings(lost, lost.setups[0], groundOf(lost, lost.setups[0])).map((f) => f.code);
    };
    expect(code({ name: 'x.ply', sha256: 'ab'.repeat(32) })).toContain('file-missing');
    expect(code({ name: 'x.ply', sha256: putAtHand(new Uint8Array([1, 2, 3])) })).toContain('solid-surface');
    expect(code(part.surface)).not.toContain('file-missing');
  });

  /** How far the piece is off at a place, mm. */
  const offAt = ({ grid, off }: Judged, x: number, y: number) =>
    off[Math.floor((y - grid.y0) / grid.cell) * grid.nx + Math.floor((x - grid.x0) / grid.cell)];

  test('what was cut is compared with its own surface', () => {
    const { codes, judged } = prove(job(), CELL);
    expect(codes).not.toContain('gouge');
    expect(judged!.off.every((v) => v >= 0)).toBe(true);
    expect(offAt(judged!, 38, 20)).toBe(0);
    // The slot has no operation yet: it stands 6 mm high.
    expect(offAt(judged!, 70, 30)).toBeCloseTo(6, 2);
  });

  test('a feature that was made deeper than the solid has it is a gouge, however the feature says it', () => {
    const { codes, judged } = prove(job(deeper('Step, 2', 0.2)), CELL);
    expect(codes).toContain('gouge');
    expect(offAt(judged!, 38, 20)).toBeCloseTo(-0.2, 2);
  });

  test('a feature that is too shallow leaves metal', () => {
    const { judged } = prove(job(deeper('Step, 2', -0.2)), CELL);
    expect(offAt(judged!, 38, 20)).toBeCloseTo(0.2, 2);
  });

  test('what no feature has is asked for all the same', () => {
    const without = { features: part.features.filter((f) => f.name !== 'Slot') };
    const { judged } = prove(job(without), CELL);
    expect(offAt(judged!, 70, 30)).toBeCloseTo(6, 2);
  });
});
