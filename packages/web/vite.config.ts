import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync } from 'node:zlib'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin, type Rolldown } from 'vite'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const server = process.env.API_PORT ?? '5080'

/** Ant Design is written in parts that do nothing when they are loaded, which most do not say of themselves: a page brings those that it uses. */
const partsOfComponents = /node_modules\/(antd|@ant-design|@rc-component)\/.*\.js$/

/** Of nearly every page. */
const ofEveryPage = [
  'routes.tsx',
  'frame/page-head.tsx',
  'frame/row-link.tsx',
  'people/me.ts',
  'stock/swatch.tsx',
  'stock/quantity-cell.tsx',
].map((file) => at(`./src/${file}`))
const theWorker = at('./src/worker/core.worker.ts')

/** The modules that some rest on, themselves included. */
function below(roots: readonly string[], importsOf: (id: string) => readonly string[]): Set<string> {
  const found = new Set(roots)
  for (const id of found) for (const each of importsOf(id)) found.add(each)
  return found
}

/** Of what every page rests on, that which the worker loads too: it has no use for React. */
function ofPageAndWorker(): Rolldown.CodeSplittingNameFunction {
  let known: { readonly page: Set<string>; readonly worker: Set<string> } | undefined
  return (id, build) => {
    const imports = (each: string) => build.getModuleInfo(each)?.importedIds ?? []
    const later = (each: string) => build.getModuleInfo(each)?.dynamicallyImportedIds ?? []
    known ??= {
      page: below(ofEveryPage, imports),
      worker: below([theWorker], (each) => [...imports(each), ...later(each)]),
    }
    return known.page.has(id) && known.worker.has(id) ? 'page-and-worker' : null
  }
}

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

const workerOf = /^(.*)\?worker&url$/

/** The worker is built with the pages, not by itself: what both rest on, as the notation's parser, is loaded once. */
const workerAmongPages = (): Plugin => ({
  name: 'worker-among-pages',
  apply: 'build',
  enforce: 'pre',
  load: {
    filter: { id: workerOf },
    handler(id) {
      const file = workerOf.exec(id)?.[1]
      if (!file) return
      return `export default import.meta.ROLLUP_FILE_URL_${this.emitFile({ type: 'chunk', id: file, name: 'core.worker' })}`
    },
  },
})

export default defineConfig({
  root: at('.'),
  plugins: [react(), workerAmongPages(), compressed()],
  build: {
    outDir: at('./dist'),
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
    // A worker has no document to put links into.
    modulePreload: { resolveDependencies: (_, files, { hostId }) => (/\.worker-|-tasks-/.test(hostId) ? [] : files) },
    rolldownOptions: {
      treeshake: { moduleSideEffects: (file) => !partsOfComponents.test(file) },
      output: {
        codeSplitting: {
          // With all that these rest on: two files instead of forty.
          groups: [
            { name: ofPageAndWorker(), debugName: 'page-and-worker', priority: 1 },
            { name: 'every-page', test: (id) => ofEveryPage.includes(id) },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
  server: { host: '127.0.0.1', proxy: { '/api': `http://127.0.0.1:${server}` } },
})
