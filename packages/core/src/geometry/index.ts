/** What the apps, the command line and the tests may use of this floor. */
export { type Chain, chainBounds, flatten, pointAtShare, shareNear } from './plane/chain';
export { boundsOf, EMPTY_BOUNDS, growBounds, isEmpty, joinBounds, type Point } from './plane/point';
export { type FixtureBox, outlineOf } from './space/box';
export { stlOf } from './space/stl';
export type { Vec3 } from './space/vec3';
export type { Triangles } from './space/triangles';
