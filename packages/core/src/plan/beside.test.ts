import fc from 'fast-check';
import { fourSides, onSide } from '../../testing/side-jobs';
import { editOperation } from '../document/edit';
import { withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { addSetup } from '../document/edit';
import { Job, Setup } from '../document/job';
import { newFeature } from '../part/plate/new';
import { bodyOf, drawnFrom, partFindings, seenFrom } from '../part/plate/side';
import { FACE_UPS, UPS, isOnSide, turnBetween, turnPlace } from '../part/plate/turn';
import { pileOf, volumeOf } from '../stock/height/field';
import { Piece } from '../stock/height/height-stock';
import { readJob } from './documents';
import { joinPrograms } from './joined';
import { planFindings, planSetup, postSetup } from './pipeline';
import { leavings } from './leavings';
import { Proof, proveProgram } from './prove';
import { groundOf } from './ground';

const CELL = 0.25;

/** Proves setups one after another, each on what the one before left. */
function proveAll(job: Job): (Proof & { codes: string[] })[] {
  let left: Piece | undefined;
  return job.setups.map((setup, i) => {
    const plan = planSetup(job, setup);
    const { programs, findings } = postSetup(job, setup, plan);
    const text = programs.length ? joinPrograms(programs).text : '';
    const proof = proveProgram(job, setup, text, left ? undefined : CELL, { left });
    const next = job.setups[i + 1];
    if (next?.stock.shape === 'as left') left = leavings(job, groundOf(job, setup), next, proof);
    else left = undefined;
    const codes = new Set([...planFindings(plan), ...findings, ...proof.findings].map((f) => f.code));
    return { ...proof, codes: [...codes] };
  });
}

/** Whether a proved setup leaves metal at a place of the part as it is drawn. */
function metalAt(job: Job, { up = 'top' }: Setup, { field }: Proof) {
  const turn = turnBetween('top', up);
  return (x: number, y: number, z: number) => {
    const p = turnPlace(turn, { x, y, z }, bodyOf(job.part));
    const [i, j] = [Math.floor((p.x - field.x0) / field.cell), Math.floor((p.y - field.y0) / field.cell)];
    const pile = pileOf(field, j * field.nx + i, NaN);
    return pile.some((top, k) => k % 2 === 0 && top > p.z && pile[k + 1] < p.z);
  };
}

describe('a block with something in each of its sides', () => {
  const job = fourSides();
  const proofs = proveAll(job);

  test('is a job file anybody can read, and nothing is said of it but how well its walls are known', () => {
    expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
    expect(proofs.map((p) => p.codes)).toEqual([[], [], ...Array(4).fill(['set-upright'])]);
    for (const { findings } of proofs.slice(2))
      expect(findings[0].message).toContain('its walls are known to 0.25 mm, its volume changed by 0 %');
  });

  test('what is left is the part: each thing at its own place, nothing where a mirror would have it', () => {
    const last = job.setups.length - 1;
    const isMetal = metalAt(job, job.setups[last], proofs[last]);
    // Front port: 12 from the left, 8 up, 9 deep. Back port: 14 from the right, 13 up, 7 deep.
    expect([isMetal(12, 8.4, -12), isMetal(12, 11.5, -12), isMetal(48, 4, -12), isMetal(12, 4, -8)]).toEqual([
      false,
      true,
      true,
      true,
    ]);
    expect([isMetal(46, 33.6, -7), isMetal(46, 30, -7), isMetal(14, 36, -7), isMetal(46, 36, -13)]).toEqual([
      false,
      true,
      true,
      true,
    ]);
    // Cable hole: 9 from the back, 11 up, 8 deep. Clip slot: its middle 22 from the front, 9 up, 3 deep.
    expect([isMetal(7.4, 31, -9), isMetal(11, 31, -9), isMetal(4, 9, -9)]).toEqual([false, true, true]);
    expect([isMetal(57.4, 22, -11), isMetal(56.5, 22, -11), isMetal(57.4, 30.4, -11), isMetal(57.4, 32, -11)]).toEqual([
      false,
      true,
      false,
      true,
    ]);
    expect([isMetal(24, 22, -5.7), isMetal(24, 22, -6.4)]).toEqual([false, true]);
    const cone = (d: number, angle: number) => (Math.PI * d * d * d) / (24 * Math.tan((angle * Math.PI) / 360));
    const bored = [
      [5, 9, 140],
      [6, 7, 140],
      [4.2, 8, 140],
    ].reduce((sum, [d, deep, angle]) => sum + (Math.PI / 4) * d * d * deep + cone(d, angle), 0);
    const wanted = 60 * 40 * 20 - (280 - (4 - Math.PI) * 16) * 6 - bored - (10 * 8 + Math.PI * 16) * 3;
    expect(Math.abs(volumeOf(proofs[last].field, NaN) / wanted - 1)).toBeLessThan(0.002);
  });

  test('a hole drilled too deep, or beside its place, is told as a cut into the part; one left out as metal left', () => {
    const [front] = job.setups.slice(2);
    const at = (change: (j: Job) => Job) => {
      const next = change({ ...job, setups: [job.setups[0], job.setups[1], front] });
      return proveAll(next)[2].codes.filter((code) => code !== 'side-never-up');
    };
    const operation = front.operations[0].id;
    expect(at((j) => j)).toEqual(['set-upright']);
    const { programs } = postSetup(job, front, planSetup(job, front));
    const left = leavings(job, groundOf(job, job.setups[1]), front, proofs[1]);
    const codes = (change: (text: string) => string) =>
      proveProgram(job, front, change(joinPrograms(programs).text), undefined, { left }).findings.map((f) => f.code);
    expect(codes((t) => t)).toEqual(['set-upright']);
    expect(codes((t) => t.replace(/X12\b/g, 'X13'))).toContain('gouge');
    expect(at((j) => editOperation(j, operation, (o) => ({ ...o, on: false })))).toContain('metal-left');
  });
});

test('a step cut from the front into the solid block is no want of metal from above', () => {
  const base = fourSides();
  const step = newFeature(
    base.part.features,
    'pocket',
    'Step',
    { type: 'rectangle', width: 70, height: 10, radius: 0 },
    { x: 30, y: 20, depth: 5, side: 'front' },
  );
  const part = { ...base.part, features: [base.part.features[0], step] };
  const [first] = base.setups;
  const solid: Setup = { ...first, up: 'front', stock: { ...first.stock, top: 0 }, operations: [] };
  const cut = withOperation({ ...base, part, setups: [solid] }, 'clear', [step.id], tool(3));
  const above = onSide(cut, 'top', [
    ['face', '', 1],
    ['contour', 'f1', 3],
  ]);
  const proofs = proveAll(above);
  expect(proofs[0].codes).toEqual([]);
  expect(proofs[1].codes).toEqual(['set-upright']);
  // The same without the step in the drawing: what it took is missed.
  const plain = { ...above, part: { ...part, features: [part.features[0]] } };
  const left = leavings(above, groundOf(above, above.setups[0]), above.setups[1], proofs[0]);
  const { programs } = postSetup(plain, plain.setups[1], planSetup(plain, plain.setups[1]));
  const missed = proveProgram(plain, plain.setups[1], joinPrograms(programs).text, undefined, { left });
  expect(missed.findings.map((f) => f.code)).toContain('stock-short');
});

test('an outside drawn on a side trims the part there', () => {
  const { part } = fourSides();
  const hood = newFeature(
    part.features,
    'outline',
    'Hood',
    { type: 'rectangle', width: 60, height: 20, radius: 6 },
    { x: 30, y: 10, side: 'front' },
  );
  const seen = seenFrom({ ...part, features: [...part.features, hood] }, 'front');
  expect(seen.features.filter((f) => f.meaning === 'outline').map((f) => f.name)).toEqual(['Hood']);
  expect(seen.thickness).toBe(40);
  expect(seenFrom(part, 'front').features[0]).toMatchObject({ id: 'f1', shape: { width: 60, height: 20 } });
});

test('what is placed on a face as it lies is drawn there, whichever way it is turned round', () => {
  const mm = fc.double({ min: 1, max: 19, noNaN: true });
  fc.assert(
    fc.property(
      fc.constantFrom(...UPS.filter(isOnSide)),
      mm,
      mm,
      fc.integer({ min: -90, max: 90 }),
      (up, x, y, turn) => {
        const { part } = fourSides();
        const side = UPS.find((u) => up.startsWith(u) && u in FACE_UPS) as 'front';
        const slot = newFeature(
          part.features,
          'pocket',
          'Slot',
          { type: 'slot', length: 5, width: 3 },
          { x, y, turn, side },
        );
        const whole = { ...part, features: [...part.features, slot] };
        const seen = seenFrom(whole, up).features.find((f) => f.id === slot.id)!;
        const drawn = drawnFrom(seen, whole, up);
        expect(drawn.side).toBe(side);
        expect([drawn.x, drawn.y].map((v) => Math.round(v * 1e6))).toEqual([x, y].map((v) => Math.round(v * 1e6)));
        expect(Math.cos(((drawn.turn - turn) * Math.PI) / 90)).toBeCloseTo(1, 9);
      },
    ),
    { numRuns: 100, seed: 8 },
  );
});

test('what no setup has up is told once, with what waits there; an operation on what its setup does not see is refused', () => {
  const job = fourSides();
  const [first, below, front] = job.setups;
  const codes = (next: Job, index: number) =>
    planFindings(planSetup(next, next.setups[index])).map((f) => [f.code, f.message] as const);
  const some = { ...job, setups: [first, below, front] };
  expect(codes(some, 0)).toEqual([]);
  expect(codes(some, 2).map(([code]) => code)).toEqual(Array(3).fill('side-never-up'));
  expect(codes(some, 2)[0][1]).toBe('No setup has the back up: “Back port” cannot be cut');
  expect(addSetup(some).setups[3].up).toBe('back');
  const [drill] = front.operations;
  const astray = { ...job, setups: job.setups.map((s) => (s === front ? { ...s, up: 'left' as const } : s)) };
  const [, , turned] = astray.setups;
  const told = planFindings(planSetup(astray, turned)).find((f) => f.code === 'feature-unseen')!;
  expect(told.place).toMatchObject({ operation: drill.id, field: 'targets' });
  expect(told.remedy).toContain('front up');
});

test('what is wrong with a feature beside the part is told as of its own face', () => {
  const { part } = fourSides();
  expect(partFindings(part)).toEqual([]);
  const deep = { ...part, features: part.features.map((f) => (f.name === 'Front port' ? { ...f, depth: 41 } : f)) };
  expect(partFindings(deep).map((f) => [f.code, f.place.feature])).toEqual([['deeper-than-part', 'f3']]);
});
