const preset = require('jest-expo/web/jest-preset');

// Only the whole run may watch files, not one project of it.
const withoutWatch = { ...preset };
delete withoutWatch.watchPlugins;

/** babel-jest of the preset, told where the configuration is: core/ lies outside this folder. */
const transform = Object.fromEntries(
  Object.entries(preset.transform).map(([pattern, use]) =>
    Array.isArray(use) && String(use[0]).includes('babel-jest')
      ? [pattern, [use[0], { ...use[1], configFile: require.resolve('./babel.config.js') }]]
      : [pattern, use],
  ),
);

const babel = Object.values(transform).find(
  (use) => Array.isArray(use) && String(use[0]).includes('babel-jest'),
);

module.exports = {
  ...withoutWatch,
  displayName: 'app',
  rootDir: __dirname,
  setupFiles: [...(preset.setupFiles ?? []), '<rootDir>/src/testing/quickStyles.ts'],
  transform: { ...transform, '\\.mjs$': babel },
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
  // Files are read in a worker, without a page: the project "intake" tests that in Node.
  testPathIgnorePatterns: ['/node_modules/', '<rootDir>/src/workers/'],
  transformIgnorePatterns: [
    'node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-native-svg|d3-.*|internmap|lucide-react-native|marked|@noble/.*)/?)',
  ],
};
