/** One runner for everything: the core by itself, the server over HTTP on a real PostgreSQL, the interface in a real browser. */
const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
      target: 'es2022',
    },
    module: { type: 'commonjs' },
  },
]
const project = (displayName, testMatch, more = {}) => ({
  displayName,
  testMatch,
  testEnvironment: 'node',
  transform: { '^.+\\.m?[tj]sx?$': swc },
  // In the tests' own context a look-up of a global is slow: arithmetic in a loop would take many times as long.
  sandboxInjectedGlobals: ['Math'],
  // Shipped as ES modules only.
  transformIgnorePatterns: ['/node_modules/(?!(tinyqueue|flatqueue|three|d3-[a-z-]+|@ant-design/[a-z-]+)/)'],
  ...more,
})

/** A class of a style sheet is told by its own name, and a worker by the address of its file. */
const asBuilt = {
  '\\.module\\.css$': '<rootDir>/packages/web/test/class-names.cjs',
  '\\?worker&url$': '<rootDir>/packages/web/test/worker-address.cjs',
}

export default {
  // Only what hangs runs into this, however slow the machine: a wait ends as soon as what it waits for is there. The reporter finds
  // sooner that nothing goes on any more.
  testTimeout: 900_000,
  testSequencer: '<rootDir>/scripts/testing/longest-first.cjs',
  reporters: ['default', '<rootDir>/scripts/testing/reporter.cjs'],
  projects: [
    project('core', ['<rootDir>/packages/core/test/**/*.test.ts'], {
      setupFiles: ['<rootDir>/packages/server/test/shared-forms.ts'],
    }),
    project('cli', ['<rootDir>/packages/cli/test/**/*.test.ts']),
    project('server', ['<rootDir>/packages/server/test/**/*.test.ts']),
    project('web', ['<rootDir>/packages/web/test/**/*.test.ts'], { moduleNameMapper: asBuilt }),
    project('components', ['<rootDir>/packages/web/test/**/*.test.tsx'], {
      moduleNameMapper: asBuilt,
      testEnvironment: '<rootDir>/packages/web/test/screen-environment.cjs',
    }),
    project('set-up', ['<rootDir>/scripts/test/**/*.test.ts']),
    project('browser', ['<rootDir>/e2e/**/*.test.ts'], { testEnvironment: '<rootDir>/e2e/environment.cjs' }),
  ],
}
