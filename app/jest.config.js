module.exports = {
  displayName: 'app',
  preset: 'jest-expo/web',
  rootDir: __dirname,
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
  transformIgnorePatterns: [
    'node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-native-svg|d3-.*|internmap|lucide-react-native|@noble/.*)/?)',
  ],
};
