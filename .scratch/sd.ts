import 'reflect-metadata';
import { readFileSync } from 'node:fs';
import { readModel } from '../packages/core/src/part/solid/read/read';
import { facesOfSolid } from '../packages/core/src/part/solid/faces/faces';
import { understood, likeliestUp } from '../packages/core/src/part/solid/sides';
import { onPlace } from '../packages/core/src/part/solid/lying';
import { createRequire } from 'node:module';
const req = createRequire('/work/main/package.json');
(async () => {
for (const f of process.argv.slice(2)) for (const ext of ['step','stl']) {
  const step = ext === 'step' ? await req('occt-import-js')() : undefined;
  const m = readModel(readFileSync(`demo/solids/${f}.${ext}`), { step });
  const t0 = process.cpuUsage().user;
  const faces = onPlace(facesOfSolid(m.bodies[0].mesh));
  const t1 = process.cpuUsage().user;
  const u = understood(faces);
  const t2 = process.cpuUsage().user;
  console.log('==', f, ext, ((t1 - t0) / 1000).toFixed(0), 'ms faces', ((t2 - t1) / 1000).toFixed(0), 'ms understood, likeliest', likeliestUp(faces), ((process.cpuUsage().user - t2) / 1000).toFixed(0), Object.entries(u.reached).map(([k, v]) => k + ' ' + v.length).join(', '), 'of', faces.faces.length);
  for (const x of u.features) console.log('  ', x.side ?? 'top', '|', x.name, '|', x.meaning, JSON.stringify(x.shape).slice(0, 90), 'x', x.x, 'y', x.y, x.turn ? 'turn ' + x.turn : '', x.through ? 'through' : 'depth ' + x.depth, x.pattern.type !== 'single' ? JSON.stringify(x.pattern) : '', x.counterbore ? JSON.stringify(x.counterbore) : '', x.edge ? JSON.stringify(x.edge) : '', x.faces?.length);
  console.log('  left', JSON.stringify(u.left.map(l => ({ ...l, kind: faces.faces[l.face].fit.kind, area: +l.area.toFixed(1) }))));
}})();
