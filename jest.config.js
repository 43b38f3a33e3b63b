/** Two projects: the core in plain Node, the interface's logic with jest-expo. */
module.exports = {
  projects: [
    {
      displayName: 'core',
      testEnvironment: 'node',
      setupFiles: ['<rootDir>/jest.setup.core.js'],
      testMatch: ['<rootDir>/{src/core,cli,demo,server,reference}/**/*.test.ts'],
      transform: { '^.+\\.[jt]sx?$': ['babel-jest', { configFile: './babel.config.js' }] },
      transformIgnorePatterns: ['node_modules/(?!(@noble|svg-pathdata|image-size|immer|yerror)/)'],
    },
    {
      displayName: 'app',
      preset: 'jest-expo',
      transformIgnorePatterns: ['node_modules/(?!((jest-)?react-native|@react-native|expo|@expo|immer|@noble|svg-pathdata|yerror|image-size|@tarikjabiri))'],
      testMatch: ['<rootDir>/src/{bench,store,ui,features,workers}/**/*.test.{ts,tsx}'],
      moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
    },
  ],
};
