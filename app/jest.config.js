const preset = require('jest-expo/web/jest-preset');

/** babel-jest of the preset, told where the configuration is: core/ lies outside this folder. */
const transform = Object.fromEntries(
  Object.entries(preset.transform).map(([pattern, use]) =>
    Array.isArray(use) && String(use[0]).includes('babel-jest')
      ? [pattern, [use[0], { ...use[1], configFile: require.resolve('./babel.config.js') }]]
      : [pattern, use],
  ),
);

module.exports = {
  ...preset,
  displayName: 'app',
  rootDir: __dirname,
  transform,
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
  transformIgnorePatterns: [
    'node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-native-svg|d3-.*|internmap|lucide-react-native|@noble/.*)/?)',
  ],
};
