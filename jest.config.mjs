/** Core, server and the reading of files in Node, the app with jest-expo. */
const node = {
  testEnvironment: 'node',
  transform: {
    '^.+\\.(ts|mjs|js)$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(better-sse|openid-client|oauth4webapi|jose|@noble|@scure|@otplib|@apidevtools|d3-[-a-z]+|internmap)/)',
  ],
  moduleFileExtensions: ['ts', 'mjs', 'js', 'json'],
  modulePathIgnorePatterns: ['<rootDir>/app/dist'],
};

export default {
  // Password hashes and whole days of samples take their time on a busy machine.
  testTimeout: 60_000,
  projects: [
    { ...node, displayName: 'core', testMatch: ['<rootDir>/core/src/**/*.test.ts'] },
    {
      ...node,
      displayName: 'server',
      testMatch: ['<rootDir>/server/src/**/*.test.ts', '<rootDir>/demo/src/**/*.test.ts'],
    },
    {
      ...node,
      displayName: 'intake',
      testMatch: ['<rootDir>/app/src/workers/**/*.test.ts'],
    },
    { ...node, displayName: 'scripts', testMatch: ['<rootDir>/scripts/**/*.test.mjs'] },
    '<rootDir>/app/jest.config.js',
  ],
};
