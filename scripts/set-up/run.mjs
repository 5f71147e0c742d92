import { spawn } from 'node:child_process'

/**
 * Runs a program to its end.
 * @param {object} options those of spawn; `input` is written to its standard input, and `show` lets it print to the screen
 * @returns {Promise<{code: number, output: string}>} its exit code and, unless shown, what it printed
 */
export function run(command, args, options = {}) {
  const { show = false, input, ...rest } = options
  return new Promise((resolve, reject) => {
    const from = input === undefined ? 'ignore' : 'pipe'
    const child = spawn(command, args, { ...rest, stdio: show ? 'inherit' : [from, 'pipe', 'pipe'] })
    child.stdin?.end(input)
    let output = ''
    child.stdout?.on('data', (data) => (output += data))
    child.stderr?.on('data', (data) => (output += data))
    child.on('error', reject)
    child.on('close', (code) => resolve({ code: code ?? 1, output }))
  })
}

/** Runs a program that must succeed. */
export async function must(command, args, options) {
  const { code, output } = await run(command, args, options)
  if (code !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${code}\n${output}`)
  return output
}
