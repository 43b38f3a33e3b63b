const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

/** Messages of the schema library in fifty languages, of which none is ever shown: what is wrong with a file is said in the app's own words. They would be read by every window and every worker. */
const isMessages = (name, from) =>
  /^\.\.\/locales\/index\.c?js$/.test(name) && /[\\/]node_modules[\\/]zod[\\/]/.test(from);

config.resolver.resolveRequest = (context, name, platform) =>
  isMessages(name, context.originModulePath) ? { type: 'empty' } : context.resolveRequest(context, name, platform);

config.transformer.minifierPath = require.resolve('./scripts/minifier.cjs');

module.exports = config;
