/** What the apps, the command line and the tests may use of this floor. */
export { MotionList, type Motions, MOVE } from './motions';
export { type Path, PathBuilder, sweepOf } from './path';
