import 'reflect-metadata';
import { solidFile } from '../../../testing/solids';
import { facesOfSolid } from '../solid/faces/faces';
import { readModel } from '../solid/read/read';
import { takenSolid } from '../solid/take';
import { Feature, Part } from './feature';
import { newFeature } from './new';
import { revised } from './revised';
import { changeText } from './revised-words';

const solid = (name: string) =>
  takenSolid(
    facesOfSolid(readModel(solidFile(`${name}.stl`)).bodies[0].mesh),
    { body: 0, unit: 'mm', up: 'top' },
    undefined,
  ).part;

const before = solid('cover-plate');
const named = (part: Part, name: string) => part.features.find((f) => f.name === name)!;

/** The part as a newer file would be read: other ids, and some features changed. */
function newer(change: (f: Feature) => Feature | undefined): Part {
  const features = before.features.flatMap((f) => change(f) ?? []).reverse();
  return { ...before, features: features.map((f, i) => ({ ...f, id: `n${i}` })) };
}
const told = (next: Part, was: Part = before) => {
  const { part, changes } = revised(was, next);
  return { part, said: changes!.map((c) => changeText(c, 'mm')) };
};

describe('a newer revision of a part', () => {
  test('the same file once more changes nothing: every feature keeps its id and its name', () => {
    const { part, said } = told(newer((f) => f));
    expect(said).toEqual([]);
    for (const f of before.features) expect(named(part, f.name)).toEqual(f);
  });

  test('what moved, grew or went deeper is told, and keeps what hangs on it', () => {
    const threaded = {
      ...before,
      features: before.features.map((f) => (f.name === 'Hole 4.2' ? { ...f, thread: 'M5' } : f)),
    };
    const next = newer((f) => {
      if (f.name === 'Slot') return { ...f, x: f.x + 1.5, name: 'Slot, 7' };
      if (f.name === 'Hole 4.2') return { ...f, depth: f.depth + 2 };
      if (f.name === 'Hole 8' && f.shape.type === 'round') return { ...f, shape: { ...f.shape, diameter: 9 } };
      return f;
    });
    const { part, said } = told(next, threaded);
    expect(said.sort()).toEqual([
      'Hole 4.2: 10 mm deep, now 12 mm deep',
      'Hole 8: diameter 8 mm, now 9 mm',
      'Slot: moved by 1.5 mm',
    ]);
    expect(named(part, 'Slot').id).toBe(named(before, 'Slot').id);
    expect(named(part, 'Hole 4.2').thread).toBe('M5');
  });

  test('an edge of a solid is as the newer file has it: broken, wider, sharp again', () => {
    const chamfer = (size: number) => ({ form: 'chamfer' as const, size, angle: 90 });
    const broken = (name: string, edge: Feature['edge']) => (f: Feature) => (f.name === name ? { ...f, edge } : f);
    const first = told(newer(broken('Pocket', chamfer(0.5))));
    expect(first.said).toEqual(['Pocket: edge sharp, now chamfered 0.5 mm']);
    const wider = told(newer(broken('Pocket', chamfer(1))), first.part);
    expect(wider.said).toEqual(['Pocket: edge chamfered 0.5 mm, now chamfered 1 mm']);
    const sharp = told(
      newer((f) => f),
      wider.part,
    );
    expect(sharp.said).toEqual(['Pocket: edge chamfered 1 mm, now sharp']);
    expect(named(sharp.part, 'Pocket').edge).toBeUndefined();
  });

  test('what is new has an id of its own, what is gone is told', () => {
    const extra = newFeature([], 'hole', 'Hole 3', { type: 'round', diameter: 3 }, { x: 100, y: 40, faces: [90] });
    const next = newer((f) => (f.name === 'Slot' ? undefined : f));
    const { part, said } = told({ ...next, features: [extra, ...next.features] });
    expect(said).toEqual(['Hole 3: new', 'Slot: no longer there']);
    expect(new Set(part.features.map((f) => f.id)).size).toBe(part.features.length);
    expect(before.features.map((f) => f.id)).not.toContain(named(part, 'Hole 3').id);
  });

  test('what somebody drew by hand stays', () => {
    const mark = newFeature(before.features, 'line', 'Mark', { type: 'slot', length: 9, width: 2 }, { x: 9, y: 9 });
    const { part, said } = told(
      newer((f) => f),
      { ...before, features: [...before.features, mark] },
    );
    expect(named(part, 'Mark')).toEqual(mark);
    expect(said).toEqual([]);
  });

  test('another part is no revision: it is taken as it is', () => {
    const other = solid('drain-step');
    expect(revised(before, other)).toEqual({ part: other });
  });
});
