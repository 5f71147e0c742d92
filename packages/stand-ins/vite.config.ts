import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Each stand-in as one file of its own. */
export default defineConfig({
  root: at('.'),
  build: {
    ssr: true,
    target: 'node20',
    outDir: at('./dist'),
    emptyOutDir: true,
    rollupOptions: { input: { scale: at('./src/scale.ts') }, output: { format: 'es', entryFileNames: '[name].js' } },
  },
})
