// The terminal program and the server as plain JavaScript, so that they start at once.
import { defineConfig } from 'vite'

export default defineConfig({
  publicDir: false,
  // What loads native code, or modules from beside itself, stays where it is; the rest is bundled, since many small files are slow to open.
  ssr: { noExternal: true, external: ['@napi-rs/canvas', 'node-av', 'harfbuzzjs'] },
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'build/node',
    rolldownOptions: {
      input: {
        ghost: 'src/cli/main.ts',
        server: 'src/server/main.ts',
        converter: 'src/server/converter.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js' },
    },
  },
})
