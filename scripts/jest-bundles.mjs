import { bundleCli, bundleServer } from './lib.mjs';

/** Tests that start the server or the command line start them as they stand now. */
export default () => Promise.all([bundleServer(), bundleCli()]);
