/** Compiles TypeScript and modules for tests in plain Node: fast, and the code runs as fast as in use. */
const { transformSync } = require('esbuild');

const tsconfigRaw = {
  compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false, jsx: 'react-jsx' },
};

module.exports = {
  process(source, path) {
    const loader = path.endsWith('x') ? 'tsx' : /\.ts$/.test(path) ? 'ts' : 'js';
    const { code, map } = transformSync(source, {
      loader,
      format: 'cjs',
      target: 'node20',
      sourcefile: path,
      sourcemap: true,
      tsconfigRaw,
      // Looking a global up in the tests' sandbox is slow; a name of the module's own is not.
      banner: 'const Math = globalThis.Math;',
    });
    return { code, map };
  },
};
