const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// The module build of class-validator leaves the exported page blank; its CommonJS build works.
const commonJs = {
  'class-validator': require.resolve('class-validator'),
  'class-transformer': require.resolve('class-transformer'),
};
/** Telephone numbers of the world, which nothing here reads: 150 kB in the page and in each worker. */
const LEFT_OUT = /^libphonenumber-js/;
const fallback = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  if (commonJs[name]) return { type: 'sourceFile', filePath: commonJs[name] };
  if (LEFT_OUT.test(name)) return { type: 'empty' };
  return (fallback ?? context.resolveRequest)(context, name, platform);
};
// A module is run when it is first needed: the list of jobs does not wait for what plans them. Where the page came from is known only
// while its script is read; the workers are found by it.
const atOnce = { [require.resolve('expo/src/winter/ImportMetaRegistry.ts')]: true };
config.transformer.getTransformOptions = async () => ({ transform: { inlineRequires: { blockList: atOnce } } });
config.maxWorkers = 2;

module.exports = config;
