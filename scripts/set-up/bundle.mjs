import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'vite'
import { root } from './places.mjs'

/**
 * Builds parts of the server and its tests that a command runs outside of them.
 *
 * @param {string} outDir
 * @param {Record<string, string>} files by the name under which each is found, as seen from the root
 * @returns what loads one of them by its name
 */
export async function bundle(outDir, files) {
  await build({
    configFile: false,
    logLevel: 'error',
    ssr: { noExternal: [/^@tessellum\//] },
    build: {
      ssr: true,
      outDir,
      emptyOutDir: true,
      rollupOptions: {
        input: Object.fromEntries(Object.entries(files).map(([name, file]) => [name, path.join(root, file)])),
        output: { format: 'es', entryFileNames: '[name].mjs' },
      },
    },
  })
  return (name) => import(pathToFileURL(path.join(outDir, `${name}.mjs`)).href)
}
