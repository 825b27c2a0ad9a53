import { readFileSync } from 'node:fs';
import { readModel } from '../packages/core/src/part/solid/read/read';
import { facesOfSolid } from '../packages/core/src/part/solid/faces/faces';
import { createRequire } from 'node:module';
const req = createRequire('/work/main/package.json');
(async () => {
for (const f of ['gauge-housing','probe-bracket','cover-plate','drain-step','hub-flange','thin-tray']) for (const ext of ['step','stl']) {
  const step = ext === 'step' ? await req('occt-import-js')() : undefined;
  const m = readModel(readFileSync(`demo/solids/${f}.${ext}`), { step });
  const t0 = process.cpuUsage().user;
  const { faces } = facesOfSolid(m.bodies[0].mesh);
  const n: any = {}; for (const x of faces) n[x.fit.kind] = (n[x.fit.kind] ?? 0) + 1;
  console.log(f, ext, faces.length, JSON.stringify(n), ((process.cpuUsage().user - t0) / 1000).toFixed(0) + ' ms');
  if (process.argv[2] === f) for (const x of faces) console.log('  ', x.triangles.length, x.area.toFixed(2), x.isHollow, x.turn.toFixed(1), JSON.stringify(x.fit, (k, v) => typeof v === 'number' ? +v.toFixed(6) : v));
}})();
