/** Packages that are written as modules only. */
const transformed =
  'clipper2-ts|d3-contour|d3-array|internmap|polylabel|tinyqueue|flatbush|flatqueue|murmurhash|delaunator|robust-predicates';

/** How esbuild compiles a file for tests. */
const compiled = (path) => ({
  loader: path.endsWith('x') ? 'tsx' : /\.ts$/.test(path) ? 'ts' : 'js',
  format: 'cjs',
  target: 'node20',
  sourcefile: path,
  tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false, jsx: 'react-jsx' } },
});

module.exports = {
  transformed,
  compiled,
  /** How tests of pure code run: in bare Node, one after the other with the same modules, as fast as in use. */
  bare: { runner: 'jest-light-runner', setupFiles: [require.resolve('./typescript.mjs')], transform: {} },
  /** How tests run in plain Node, each file with modules and time limits of its own. */
  node: {
    testEnvironment: 'node',
    transform: { '\\.m?[jt]sx?$': require.resolve('./jest-esbuild.cjs') },
    transformIgnorePatterns: [`/node_modules/(?!(${transformed})/)`],
  },
};
