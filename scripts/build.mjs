import { build } from './lib.mjs';

await build();
