/** The starting library: general handbook ranges and an invented shop. All of it is a start, marked so. */
export * from './materials';
export * from './machines';
export * from './holders';
export * from './tools';
export * from './bars';
export * from './origin';
