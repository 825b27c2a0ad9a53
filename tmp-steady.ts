import 'reflect-metadata';
import { clearingShapes, measureSteady } from './packages/core/testing/steady-jobs';
const D = Number(process.argv[2] ?? 10), ae = Number(process.argv[3] ?? 1);
const only = process.argv[4];
for (const shape of clearingShapes(D)) {
  if (only && !shape.name.match(only)) continue;
  const { figures: f, seconds } = measureSteady(shape, D, ae, { direction: 'climb' });
  console.log(shape.name.padEnd(24), (f.steady*100).toFixed(2), f.peak.toFixed(2), f.mean.toFixed(2), f.length.toFixed(2), (f.idle*100).toFixed(1), (f.left*100).toFixed(3), f.widest.toFixed(2), f.gouge.toFixed(4), f.brushed.toFixed(3), seconds.toFixed(2)+'s');
}
