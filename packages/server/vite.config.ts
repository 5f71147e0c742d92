import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** The server, its workers and its set-up, each as one file that needs nothing but node_modules. */
export default defineConfig({
  root: at('.'),
  build: {
    ssr: true,
    target: 'node20',
    outDir: at('./dist'),
    emptyOutDir: true,
    sourcemap: true,
    rollupOptions: {
      input: {
        main: at('./src/main.ts'),
        'set-up': at('./src/set-up.ts'),
        verify: at('./src/verify.ts'),
        worker: at('./src/worker.ts'),
      },
      output: { format: 'es', entryFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@tessellum\//] },
})
