/** A solid as it lies with one of its sides up: its faces turned, its box from 0 on, its top at Z 0. */
import { Box3, Triangles, boxRound, movedPoints } from '../../geometry/space/triangles';
import { Vec3, dot, vec } from '../../geometry/space/vec3';
import { Body, Turn, Up, turnBetween, turnPlace } from '../plate/turn';
import { Faces, ModelFace } from './faces/faces';
import { Fit } from './faces/fit';

/** How far a curved face reaches beyond its corners at most, mm. */
const SAG = 0.1;

/** The box round a solid; where it ends in a curved face, that face’s own end and not its corners’. */
export function boxOf({ mesh, faces }: Pick<Faces, 'mesh' | 'faces'>): Box3 {
  const box = boxRound(mesh);
  for (const k of ['x', 'y', 'z'] as const) {
    const direction = vec(Number(k === 'x'), Number(k === 'y'), Number(k === 'z'));
    for (const { fit, isHollow } of faces) {
      if (isHollow || fit.kind === 'plane' || fit.kind === 'free' || fit.kind === 'cone') continue;
      if (fit.kind !== 'ball' && Math.abs(dot(fit.axis, direction)) > 1e-6) continue;
      const reach = fit.radius + (fit.kind === 'ring' ? fit.ring : 0);
      const [low, high] = [fit.at[k] - reach, fit.at[k] + reach];
      if (low < box.min[k] && box.min[k] - low < SAG) box.min[k] = low;
      if (high > box.max[k] && high - box.max[k] < SAG) box.max[k] = high;
    }
  }
  return box;
}

/** The body a solid is as it is drawn. */
export const bodyIn = ({ min, max }: Box3): Body => ({
  x: (min.x + max.x) / 2,
  y: (min.y + max.y) / 2,
  size: [max.x - min.x, max.y - min.y, max.z - min.z],
});

function turnDirection({ takes, flips }: Turn, d: Vec3): Vec3 {
  const from = [d.x, d.y, d.z];
  const [x, y, z] = takes.map((k, to) => (flips[to] ? -from[k] : from[k]));
  return { x, y, z };
}

function turnedFit(fit: Fit, place: (p: Vec3) => Vec3, turn: Turn): Fit {
  if (fit.kind === 'free') return fit;
  const at = place(fit.at);
  if (fit.kind === 'plane') return { ...fit, at, normal: turnDirection(turn, fit.normal) };
  return fit.kind === 'ball' ? { ...fit, at } : { ...fit, at, axis: turnDirection(turn, fit.axis) };
}

/** The faces of a solid moved by a turn. */
function movedFaces(all: Faces, place: (p: Vec3) => Vec3, turn: Turn): Faces {
  const faces = all.faces.map((f): ModelFace => ({ ...f, fit: turnedFit(f.fit, place, turn) }));
  return { ...all, mesh: movedPoints(all.mesh, place), faces };
}

const SAME: Turn = turnBetween('top', 'top');

/** The solid moved so that its box begins at X 0 and Y 0 and ends at Z 0: where parts are drawn. */
export function onPlace(all: Faces): Faces {
  const { min, max } = boxOf(all);
  return movedFaces(all, (p) => vec(p.x - min.x, p.y - min.y, p.z - max.z), SAME);
}

/**
 * A solid in its place as it lies with another side up, as a part with its box does.
 * @param body its box as it is drawn
 */
export function lyingAs(all: Faces, body: Body, up: Up): Faces {
  const turn = turnBetween('top', up);
  return movedFaces(all, (p) => turnPlace(turn, p, body), turn);
}

/** A surface in its place as it lies with another side up. */
export const surfaceAs = (mesh: Triangles, body: Body, up: Up): Triangles => {
  const turn = turnBetween('top', up);
  return movedPoints(mesh, (p) => turnPlace(turn, p, body));
};
