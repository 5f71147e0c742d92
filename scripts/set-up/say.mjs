/** What the commands print: short lines that say what is being done, and stops that say what to do. */

export const say = (text) => process.stdout.write(`${text}\n`)

/** Something only a person can mend. */
export class Stop extends Error {}

/** Runs a command's main function; a Stop is told plainly, anything else with its trace. */
export async function runMain(main) {
  try {
    await main()
  } catch (error) {
    process.stderr.write(error instanceof Stop ? `\n${error.message}\n` : `\n${error.stack}\n`)
    process.exitCode = 1
  }
}
