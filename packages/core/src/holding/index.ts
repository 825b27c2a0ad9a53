/** What the apps, the command line and the tests may use of this floor. */
export { type Work } from './holding';
export { covered, strengthOf } from './held';
export { SIZES } from './holding';
export { HOLDINGS } from './registry';
export { gripWords, holdingText, strengthWords } from './words';
