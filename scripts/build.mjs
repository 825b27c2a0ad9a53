import { buildWeb } from './lib.mjs';

await buildWeb();
