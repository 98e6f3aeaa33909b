import { defineConfig } from 'vitest/config'

/** Tests of the page's own state, which each need it as it is at first. */
const WITH_STATE = ['src/app/**/*.test.ts']

export default defineConfig({
  test: {
    setupFiles: ['src/testing/seed.ts'],
    // Nobody sits at a machine that tests.
    maxWorkers: '100%',
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // As in the browser: elsewhere the processors may be shared with others who need them at the same moment.
    retry: process.env.CI ? 1 : 0,
    projects: [
      { extends: true, test: { name: 'app', include: WITH_STATE } },
      {
        extends: true,
        test: {
          name: 'computed',
          include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
          exclude: WITH_STATE,
          // What only computes need not be read anew for every file.
          isolate: false,
        },
      },
    ],
  },
})
