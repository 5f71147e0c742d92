import { fileURLToPath } from 'node:url'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const server = process.env.API_PORT ?? '5080'

export default defineConfig({
  root: at('.'),
  plugins: [react()],
  build: { outDir: at('./dist'), emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 1200 },
  worker: { format: 'es' },
  server: { host: '127.0.0.1', proxy: { '/api': `http://127.0.0.1:${server}` } },
})
