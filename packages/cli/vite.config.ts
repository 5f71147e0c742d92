import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  root: at('.'),
  logLevel: 'warn',
  build: {
    ssr: at('./src/main.ts'),
    target: 'node20',
    outDir: at('./dist'),
    emptyOutDir: true,
    rollupOptions: { output: { format: 'es', entryFileNames: 'tessellum.js' } },
  },
  ssr: { noExternal: true },
})
