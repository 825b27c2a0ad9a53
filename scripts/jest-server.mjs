import { bundleServer } from './lib.mjs';

/** Tests that start the server start it as it stands now. */
export default bundleServer;
