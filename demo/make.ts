/** Makes the demo shop's drawings and jobs: `npx tsx demo/make.ts`. Same input, same files. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { floatPulleyBracket } from './jobs/float-pulley-bracket';
import { lensCellRing } from './jobs/lens-cell-ring';
import { soundingBracket, soundingJaws } from './jobs/sounding-bracket';
import { vaneHubDrawing, vaneHubPlate } from './jobs/vane-hub-plate';

const here = __dirname;
mkdirSync(join(here, 'drawings'), { recursive: true });
const save = (name: string, text: string) => writeFileSync(join(here, name), text);

const drawing = vaneHubDrawing();
save('drawings/vane-hub-plate.dxf', drawing);
save('jobs/vane-hub-plate.json', JSON.stringify(vaneHubPlate(drawing), null, 1) + '\n');
save('jobs/float-pulley-bracket.json', JSON.stringify(floatPulleyBracket(), null, 1) + '\n');
save('jobs/lens-cell-ring.json', JSON.stringify(lensCellRing(), null, 1) + '\n');
save('jobs/sounding-line-bracket.json', JSON.stringify(soundingBracket(), null, 1) + '\n');
save('jobs/sounding-line-jaws.json', JSON.stringify(soundingJaws(), null, 1) + '\n');
