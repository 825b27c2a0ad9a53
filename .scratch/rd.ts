import { readFileSync } from 'node:fs';
import { readModel } from '/work/main/packages/core/src/part/solid/read/read';
import { createRequire } from 'node:module';
const require = createRequire('/work/main/package.json');
(async () => {
for (const f of ['gauge-housing','probe-bracket','cover-plate','drain-step','hub-flange','thin-tray']) for (const ext of ['step','stl']) {
  const step = ext === 'step' ? await require('occt-import-js')() : undefined;
  const m = readModel(readFileSync(`/work/main/demo/solids/${f}.${ext}`), { step });
  console.log(f, ext, m.form, m.unit, m.bodies.map(b => [b.name, b.size.map(s=>s.toFixed(4)).join('x'), b.volume.toFixed(2), b.mesh.corners.length/3, b.mesh.points.length/3, new Set(b.mesh.face).size, b.findings.map(x=>x.message)]), m.findings.map(x => x.message));
}})();
