/* Sculpts a plate out of its blank beside the page, with the kernel of solids that stands beside this file; hands back triangles alone. */
import start from './manifold.js';

/** Corners so near each other become one, mm: where lines cross that lie in one another. */
const JOINED = 5e-4;

/** A prism of some rings between two heights. */
function prism({ CrossSection }, { region, from, to }) {
  const flat = new CrossSection(region.map((ring) => ring.map(({ x, y }) => [x, y])));
  return flat.extrude(to - from).translate(0, 0, from);
}

/** An edge whose profile is carried along its wall: a band of triangles, with two ends where it is open. */
function swept({ Manifold, Mesh }, { rows, isClosed }) {
  const wide = rows[0].length;
  const points = rows.flat().flatMap(({ x, y, z }) => [x, y, z]);
  const corners = [];
  const at = (row, k) => (row % rows.length) * wide + (k % wide);
  for (let row = 0; row < rows.length - (isClosed ? 0 : 1); row++)
    for (let k = 0; k < wide; k++) {
      const [a, b, c, d] = [at(row, k), at(row, k + 1), at(row + 1, k + 1), at(row + 1, k)];
      corners.push(a, b, c, a, c, d);
    }
  // All of a profile is seen from its last place.
  for (let k = 0; k < wide - 2 && !isClosed; k++) {
    corners.push(at(0, wide - 1), at(0, k + 1), at(0, k));
    corners.push(at(rows.length - 1, wide - 1), at(rows.length - 1, k), at(rows.length - 1, k + 1));
  }
  const mesh = (triVerts) => new Mesh({ numProp: 3, vertProperties: Float32Array.from(points), triVerts });
  const made = new Manifold(mesh(Uint32Array.from(corners)));
  return made.volume() > 0 ? made : new Manifold(mesh(Uint32Array.from(corners).reverse()));
}

function sculpted(kernel, { blank, sides }) {
  const names = new Map();
  let solid = prism(kernel, blank).asOriginal();
  if (blank.feature) names.set(solid.originalID(), blank.feature);
  for (const { steps, edges, columns } of sides) {
    let taken;
    for (const step of steps) {
      const made = prism(kernel, step).asOriginal();
      if (step.feature) names.set(made.originalID(), step.feature);
      if (step.takes) taken = taken ? taken.add(made) : made;
      else if (taken) taken = taken.subtract(made);
    }
    for (const edge of edges) {
      const made = swept(kernel, edge).asOriginal();
      names.set(made.originalID(), edge.feature);
      taken = taken ? taken.add(made) : made;
    }
    const matrix = columns.flatMap(({ x, y, z }, k) => [x, y, z, k === 3 ? 1 : 0]);
    if (taken) solid = solid.subtract(taken.transform(matrix));
  }
  return { mesh: solid.simplify(JOINED).getMesh(), names };
}

self.onmessage = async ({ data }) => {
  try {
    const kernel = await start({ locateFile: (name) => `/sculpt/${name}` });
    kernel.setup();
    const { mesh, names } = sculpted(kernel, data);
    const { vertProperties: points, triVerts: corners, runIndex, runOriginalID } = mesh;
    const features = Array.from({ length: corners.length / 3 }, () => undefined);
    for (let run = 0; run < runOriginalID.length; run++)
      for (let t = runIndex[run] / 3; t < runIndex[run + 1] / 3; t++) features[t] = names.get(runOriginalID[run]);
    self.postMessage({ points, corners, features });
  } catch (error) {
    self.postMessage({ failed: String(error) });
  }
};
