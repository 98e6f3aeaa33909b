import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
    setupFiles: ['src/testing/seed.ts'],
    // Nobody sits at a machine that tests.
    maxWorkers: '100%',
    testTimeout: 120_000,
    hookTimeout: 120_000,
  },
})
