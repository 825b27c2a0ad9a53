/** Compiles TypeScript and modules for tests in plain Node: fast, and the code runs as fast as in use. */
const { transformSync } = require('esbuild');
const { compiled } = require('./jest-node.cjs');

/** Looking these up in the tests' sandbox is slow, up to half of all time; names of the module's own are not. */
const GLOBALS =
  'Math Number Infinity NaN isNaN isFinite parseFloat parseInt BigInt String Boolean Symbol Object Array Map Set ' +
  'WeakMap WeakSet Promise RegExp JSON Error TypeError RangeError ArrayBuffer DataView Int8Array Int16Array Int32Array ' +
  'Uint8Array Uint16Array Uint32Array Float32Array Float64Array';

module.exports = {
  process(source, path) {
    const { code, map } = transformSync(source, {
      ...compiled(path),
      sourcemap: true,
      // Within a function of its own a module may still name something of its own so.
      banner: `(({ ${GLOBALS.replaceAll(' ', ', ')} }, undefined) => { (() => {`,
      footer: '})(); })(globalThis);',
    });
    return { code, map };
  },
};
