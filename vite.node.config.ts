// The terminal program and the server as plain JavaScript, so that they start at once.
import { defineConfig, type UserConfig } from 'vite'

/** Programs that run in Node, each bundled into a file. */
export const programs = (outDir: string, input: Record<string, string>): UserConfig => ({
  publicDir: false,
  // What loads native code, or modules from beside itself, stays where it is; the rest is bundled, since many small files are slow to open.
  ssr: { noExternal: true, external: ['@napi-rs/canvas', 'node-av', 'harfbuzzjs', '@playwright/test'] },
  build: {
    ssr: true,
    target: 'node20',
    outDir,
    rolldownOptions: {
      input,
      output: { entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js' },
    },
  },
})

export default defineConfig(
  programs('build/node', {
    ghost: 'src/cli/main.ts',
    server: 'src/server/main.ts',
    converter: 'src/server/converter.ts',
  }),
)
