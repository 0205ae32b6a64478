module.exports = (api) => {
  api.cache(true);
  return {
    presets: ['babel-preset-expo'],
    // Jest runs every module as CommonJS, also the scripts that are loaded later.
    env: { test: { plugins: ['dynamic-import-node'] } },
  };
};
