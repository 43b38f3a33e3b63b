/** Plain modern code, as the workers run it: the preset of the app would rewrite what is slow when rewritten, and take its time for it. */
const PLAIN = [
  'babel-jest',
  {
    configFile: false,
    babelrc: false,
    presets: ['@babel/preset-typescript'],
    plugins: ['@babel/plugin-transform-modules-commonjs'],
  },
];

/** Two projects: the core in plain Node, the interface's logic with jest-expo. */
module.exports = {
  testSequencer: '<rootDir>/jest.sequencer.js',
  // What waits for nothing but the machine is given the time that a slow one takes.
  testTimeout: 120_000,
  projects: [
    {
      displayName: 'core',
      testEnvironment: 'node',
      setupFiles: ['<rootDir>/jest.setup.core.js'],
      testMatch: ['<rootDir>/{src/core,cli,demo,server,reference,scripts}/**/*.test.ts'],
      transform: { '^.+\\.[jt]sx?$': PLAIN },
      moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
      transformIgnorePatterns: [
        'node_modules/(?!(@noble|svg-pathdata|image-size|immer|yerror|flatbush|flatqueue|clipper2-ts)/)',
      ],
      // Looked up in the sandbox these cost more than what they compute.
      sandboxInjectedGlobals: [
        'Math',
        'Number',
        'Array',
        'Float64Array',
        'Float32Array',
        'Uint8Array',
        'Int32Array',
        'Int16Array',
        'Map',
        'Set',
        'Object',
      ],
    },
    {
      displayName: 'app',
      preset: 'jest-expo',
      transform: { '/src/core/.+\\.ts$': PLAIN },
      transformIgnorePatterns: [
        'node_modules/(?!((jest-)?react-native|@react-native|expo|@expo|immer|@noble|svg-pathdata|yerror|image-size|@tarikjabiri|flatbush|flatqueue))',
      ],
      testMatch: ['<rootDir>/src/{bench,store,ui,features,workers}/**/*.test.{ts,tsx}'],
      moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
    },
  ],
};
