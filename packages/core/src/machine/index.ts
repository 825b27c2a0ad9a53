/** What the apps, the command line and the tests may use of this floor. */
export { Axis, AXIS_NAMES, levelAcceleration, travelOf } from './axes';
export { type Coolant, COOLANTS, Machine, powerAt, ratedPower, torqueAt } from './machine';
