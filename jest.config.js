const { bare, node, transformed } = require('./scripts/jest-node.cjs');

/** The one suite that wants modules of its own. */
const ALONE = 'src/alone.test.ts';

/** Who starts the server or the command line has them bundled first. */
const BUNDLES = require.resolve('./scripts/jest-bundles.mjs');

/** Core, command line and server run in plain Node; the app's components under jest-expo. */
module.exports = {
  // No figure: a machine that is busy with other things takes its time.
  testTimeout: 60_000,
  projects: [
    { ...bare, displayName: 'core', rootDir: 'packages/core', testPathIgnorePatterns: [ALONE] },
    { ...node, displayName: 'alone', rootDir: 'packages/core', testMatch: [`<rootDir>/${ALONE}`] },
    { ...bare, displayName: 'sheets', rootDir: 'packages/sheets' },
    { ...bare, displayName: 'controller', rootDir: 'packages/controller' },
    { ...bare, displayName: 'cli', rootDir: 'packages/cli', globalSetup: BUNDLES },
    { ...node, displayName: 'server', rootDir: 'apps/server' },
    {
      ...node,
      displayName: 'safe',
      rootDir: 'tests/safe',
      globalSetup: BUNDLES,
      setupFiles: [require.resolve('reflect-metadata')],
    },
    {
      displayName: 'web',
      preset: 'jest-expo/ios',
      rootDir: 'apps/web',
      testPathIgnorePatterns: ['/node_modules/', '/dist/'],
      setupFiles: ['<rootDir>/jest.setup.js'],
      setupFilesAfterEnv: ['<rootDir>/jest.patience.js'],
      // The build that is offered to bundlers is one the test runner does not read.
      moduleNameMapper: { '^d3-array$': require('node:path').join(require.resolve('d3-array'), '../d3-array.min.js') },
      transform: {
        '(/node_modules/(three|meshoptimizer)/.+|/packages/(core|controller|sheets)/.+)\\.[jt]s$': Object.values(
          node.transform,
        )[0],
      },
      transformIgnorePatterns: [
        `/node_modules/(?!(three|meshoptimizer|(jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-navigation|@react-navigation/.*|react-native-svg|react-native-paper|gifted-charts-core|date-fns|swr|${transformed}))`,
      ],
    },
  ],
};
