/** What the apps, the command line and the tests may use of this floor. */
export { Lines } from './read/lines';
export { wordsOf } from './read/words';
export { type ReadOptions, readProgram } from './read/reader';
export type { CalledTool } from './read/remarks';
export { type Program, safeName, type Section, sectionAt } from './write/step';
