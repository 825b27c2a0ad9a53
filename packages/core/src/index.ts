/** What is used outside the core, floor by floor; each floor says itself what that is. */
export * from './quantity';
export * from './geometry';
export * from './machine';
export * from './shop';
export * from './cutting';
export * from './part';
export * from './document';
export * from './stock';
export * from './holding';
export * from './path';
export * from './operation';
export * from './program';
export * from './simulate';
export * from './judge';
export * from './plan';
export * from './view';
export * from './advise';
