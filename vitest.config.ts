import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: { include: ['src/**/*.test.ts', 'demo/**/*.test.ts'], testTimeout: 30_000 },
})
