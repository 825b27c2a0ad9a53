import 'reflect-metadata';
import { joinedTriangles } from '../packages/core/src/geometry/space/triangles';
import { facesOfSolid } from '../packages/core/src/part/solid/faces/faces';
import { understood, likeliestUp } from '../packages/core/src/part/solid/sides';
import { onPlace } from '../packages/core/src/part/solid/lying';
function bowl(n: number, noise = 0) {
  const loose: number[] = []; const S = 60;
  const z = (x: number, y: number) => -14 * Math.exp(-((x-30)**2 + 1.3*(y-30)**2) / 400) - 2 * Math.sin(x / 9) * Math.cos(y / 11) - 4;
  let s = 1; const r = () => { s = (s * 16807) % 2147483647; return (s / 2147483647 - 0.5) * 2 * noise; };
  const g: number[][] = [];
  for (let j = 0; j <= n; j++) { g.push([]); for (let i = 0; i <= n; i++) g[j].push(z(i*S/n, j*S/n) + r()); }
  const p = (i: number, j: number) => [i*S/n, j*S/n, g[j][i]], q = (i: number, j: number) => [i*S/n, j*S/n, -30];
  for (let j = 0; j < n; j++) for (let i = 0; i < n; i++) {
    loose.push(...p(i,j), ...p(i+1,j), ...p(i+1,j+1), ...p(i,j), ...p(i+1,j+1), ...p(i,j+1));
    loose.push(...q(i,j), ...q(i+1,j+1), ...q(i+1,j), ...q(i,j), ...q(i,j+1), ...q(i+1,j+1));
  }
  for (let i = 0; i < n; i++) {
    loose.push(...q(i,0), ...q(i+1,0), ...p(i+1,0), ...q(i,0), ...p(i+1,0), ...p(i,0));
    loose.push(...q(i,n), ...p(i+1,n), ...q(i+1,n), ...q(i,n), ...p(i,n), ...p(i+1,n));
    loose.push(...q(0,i), ...p(0,i+1), ...q(0,i+1), ...q(0,i), ...p(0,i), ...p(0,i+1));
    loose.push(...q(n,i), ...q(n,i+1), ...p(n,i+1), ...q(n,i), ...p(n,i+1), ...p(n,i));
  }
  return joinedTriangles(loose);
}
for (const [n, noise] of [[60, 0], [160, 0], [160, 0.005], [500, 0]]) {
  const t = process.cpuUsage().user;
  const mesh = bowl(n, noise);
  const t0 = process.cpuUsage().user;
  const f = facesOfSolid(mesh);
  const t1 = process.cpuUsage().user;
  const k: any = {}; f.faces.forEach(x => k[x.fit.kind] = (k[x.fit.kind] ?? 0) + 1);
  const u = understood(onPlace(f));
  console.log(n, noise, mesh.corners.length / 3, 'join', (t0-t)/1000, 'faces', (t1 - t0) / 1000, JSON.stringify(k), 'understood', (process.cpuUsage().user - t1) / 1000, u.features.map(x => x.name).join(), u.left.length);
}
