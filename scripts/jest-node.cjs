/** Packages that are written as modules only. */
const transformed =
  'clipper2-ts|d3-contour|d3-array|internmap|polylabel|tinyqueue|flatbush|flatqueue|murmurhash|delaunator|robust-predicates';

/** How tests run in plain Node. */
module.exports = {
  transformed,
  node: {
    testEnvironment: 'node',
    transform: { '\\.m?[jt]sx?$': require.resolve('./jest-esbuild.cjs') },
    transformIgnorePatterns: [`/node_modules/(?!(${transformed})/)`],
  },
};
