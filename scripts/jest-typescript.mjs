/** Lets tests that run in bare Node import TypeScript. */
import { register as required } from 'tsx/cjs/api';
import { register as imported } from 'tsx/esm/api';

required();
imported();
