import { readFileSync } from 'node:fs';
import { readModel } from '../packages/core/src/part/solid/read/read';
import { facesOfSolid } from '../packages/core/src/part/solid/faces/faces';
import { recognised } from '../packages/core/src/part/solid/recognise';
import { onPlace, lyingAs, bodyIn, boxOf } from '../packages/core/src/part/solid/lying';
import { createRequire } from 'node:module';
const req = createRequire('/work/main/package.json');
(async () => {
for (const f of process.argv.slice(2)) for (const ext of ['step','stl']) {
  const step = ext === 'step' ? await req('occt-import-js')() : undefined;
  const m = readModel(readFileSync(`demo/solids/${f}.${ext}`), { step });
  const t0 = process.cpuUsage().user;
  const faces = onPlace(facesOfSolid(m.bodies[0].mesh));
  const t1 = process.cpuUsage().user;
  const body = bodyIn(boxOf(faces));
  for (const up of ['top', 'underside, turned sideways', 'front'] as const) {
  const found = recognised(lyingAs(faces, body, up));
  console.log('==', f, ext, up, ((t1 - t0) / 1000).toFixed(0) + ' ms faces', ((process.cpuUsage().user - t1) / 1000).toFixed(0) + ' ms');
  for (const x of found) console.log('  ', x.meaning, JSON.stringify(x.shape).slice(0, 120), 'x', x.x, 'y', x.y, x.turn ? 'turn ' + x.turn : '', x.through ? 'through' : 'depth ' + x.depth, x.foot ? 'foot ' + x.foot : '', x.isOpen ? 'open' : '', x.point ? 'point ' + x.point : '', x.counterbore ? JSON.stringify(x.counterbore) : '', x.edge ? JSON.stringify(x.edge) : '', x.faces.length);
  }
}})();
