import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Each stand-in as a program of its own. */
export default defineConfig({
  root: at('.'),
  build: {
    ssr: true,
    target: 'node20',
    outDir: at('./dist'),
    emptyOutDir: true,
    rollupOptions: {
      input: Object.fromEntries(
        ['scale', 'printer', 'scanner', 'supplier'].map((name) => [name, at(`./src/${name}.ts`)]),
      ),
      output: { format: 'es', entryFileNames: '[name].js' },
    },
  },
})
