const path = require('node:path');

/** The real interface, in headless Chromium, against a real server. */
module.exports = {
  rootDir: path.resolve(__dirname, '..'),
  testMatch: ['<rootDir>/e2e/**/*.test.ts', '<rootDir>/safe/**/*.browser.ts'],
  testEnvironment: 'node',
  testTimeout: 600_000,
  setupFiles: [require.resolve('reflect-metadata')],
  transform: { '\\.[jt]sx?$': require.resolve('../../scripts/jest-esbuild.cjs') },
  transformIgnorePatterns: ['/node_modules/(?!(clipper2-ts|polylabel|tinyqueue|flatbush|flatqueue|murmurhash)/)'],
};
