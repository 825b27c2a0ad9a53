const path = require('node:path');
const { node } = require('../../scripts/jest-node.cjs');

/** The real interface, in headless Chromium, against a real server. */
module.exports = {
  ...node,
  rootDir: path.resolve(__dirname, '..'),
  testMatch: ['<rootDir>/e2e/**/*.test.ts', '<rootDir>/safe/**/*.browser.ts'],
  testTimeout: 600_000,
  globalSetup: require.resolve('../../scripts/jest-bundles.mjs'),
  setupFiles: [require.resolve('reflect-metadata')],
};
