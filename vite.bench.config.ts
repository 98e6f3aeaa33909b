// What measures, built as what it measures is.
import { defineConfig } from 'vite'
import { programs } from './vite.node.config.ts'

export default defineConfig(programs('build/bench', { main: 'bench/main.ts' }))
