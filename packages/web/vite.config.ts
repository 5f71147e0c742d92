import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync } from 'node:zlib'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const server = process.env.API_PORT ?? '5080'

/** Ant Design is written in parts that do nothing when they are loaded, which most do not say of themselves: a page brings those that it uses. */
const partsOfComponents = /node_modules\/(antd|@ant-design|@rc-component)\/.*\.js$/

/** With all that they rest on: one file instead of forty. */
const everyPage = /web\/src\/(routes|frame\/(page-head|row-link)|people\/me|stock\/(swatch|quantity-cell))\.tsx?$/

/** Each file once more as small as it gets: the server sends these as they are, and compresses nothing of the page itself. */
const compressed = (): Plugin => ({
  name: 'compressed',
  apply: 'build',
  closeBundle() {
    const folder = at('./dist/assets')
    for (const file of readdirSync(folder).filter((name) => /\.(js|css|svg)$/.test(name))) {
      const whole = path.join(folder, file)
      writeFileSync(`${whole}.br`, brotliCompressSync(readFileSync(whole)))
    }
  },
})

export default defineConfig({
  root: at('.'),
  plugins: [react(), compressed()],
  build: {
    outDir: at('./dist'),
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
    rolldownOptions: {
      treeshake: { moduleSideEffects: (file) => !partsOfComponents.test(file) },
      output: { codeSplitting: { groups: [{ name: 'every-page', test: everyPage }] } },
    },
  },
  worker: { format: 'es' },
  server: { host: '127.0.0.1', proxy: { '/api': `http://127.0.0.1:${server}` } },
})
