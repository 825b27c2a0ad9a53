const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// The module build of class-validator leaves the exported page blank; its CommonJS build works.
const commonJs = {
  'class-validator': require.resolve('class-validator'),
  'class-transformer': require.resolve('class-transformer'),
};
const fallback = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  if (commonJs[name]) return { type: 'sourceFile', filePath: commonJs[name] };
  return (fallback ?? context.resolveRequest)(context, name, platform);
};
config.maxWorkers = 2;

module.exports = config;
