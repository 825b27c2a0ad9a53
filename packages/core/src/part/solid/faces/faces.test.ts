import { TRUTH, bowl, solidOf } from '../../../../testing/solids';
import { understood } from '../sides';
import { onPlace } from '../lying';
import { Faces, facesOfSolid } from './faces';

function kinds({ faces }: Faces): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { fit } of faces) counts[fit.kind] = (counts[fit.kind] ?? 0) + 1;
  return counts;
}

const PLAIN = ['gauge-housing', 'probe-bracket', 'cover-plate', 'drain-step', 'hub-flange', 'thin-tray'];

describe('facesOfSolid', () => {
  test.each(PLAIN)('%s: the faces it was built with, from STEP and from its mesh alike', async (name) => {
    expect(kinds(await solidOf(name, 'step'))).toEqual(TRUTH[name].faces);
    expect(kinds(await solidOf(name, 'stl'))).toEqual(TRUTH[name].faces);
  });

  test('what is free stays one face, however finely it is cut up', () => {
    const faces = facesOfSolid(bowl(160));
    expect(faces.mesh.corners).toHaveLength(3 * 103_680);
    expect(kinds(faces)).toEqual({ free: 1, plane: 5 });
  });

  test('with 5 µm of noise its top is no hundred planes', () => {
    const faces = facesOfSolid(bowl(60, 0.005));
    expect(kinds(faces).free).toBe(1);
    expect(faces.faces.length).toBeLessThan(20);
    const free = faces.faces.find((f) => f.fit.kind === 'free')!;
    expect(free.area).toBeGreaterThan(3600);
    expect(understood(onPlace(faces)).features.map((f) => f.meaning)).toEqual(['outline']);
  });

  test('radii and heights are those of the model', async () => {
    const { faces } = await solidOf('hub-flange', 'step');
    const radii = faces.flatMap(({ fit }) => (fit.kind === 'cylinder' ? [fit.radius] : [])).sort((a, b) => a - b);
    [3, 4.5, 4.5, 4.5, 4.5, 4.5, 4.5, 15, 25, 55].forEach((r, i) => expect(radii[i]).toBeCloseTo(r, 6));
  });
});
