/**
 * `tessellum`: the core on files, for scripts and checks. Exit status 1 when the input is at fault, with the faults on standard error;
 * 2 when the command is not used as it should be.
 */

import { draw } from './draw'
import { fit } from './fit'
import { form } from './form'
import { format } from './format'
import { reconcile } from './reconcile'
import { report } from './report'
import { schema } from './schema'
import { InputFault, Misuse } from './trouble'
import { write } from './write'

const commands: Readonly<Record<string, (args: string[]) => string>> = {
  report,
  form,
  draw,
  fit,
  reconcile,
  format,
  write,
  schema,
}

const usage = `tessellum report FILE [--size NAME] [--option NAME=on|off] [--bead A="cylinder 11/0 L=1.35 d=1.65"] [--plain] [--json]
tessellum form FILE [--size NAME] [--json]
tessellum draw FILE [--view front|back|side] [--statement LINE] [-o out.svg] [--size NAME]
tessellum fit ring --stone "oval 13x18mm" --bead "cylinder 11/0" [--multiple 4] [--json]
tessellum fit stand --core 12mm --bead "round 11/0" [--rows 3] [--json]
tessellum fit length --target 180mm --pitch 8.4mm [--ends 25mm] [--multiple 2] [--json]
tessellum fit finger --us 7 --pitch 2.1mm [--top 24mm] [--thickness 2mm] [--json]
tessellum reconcile FILE LIST [--plain] [--json]
tessellum format FILE
tessellum write FILE --to md|html|json [--language en|de|fr|nl] [--size NAME] [--plain]
tessellum schema
report, write and reconcile count by the computed form; --plain counts by plain rules, which is quick.
FILE may be - for standard input.
`

function main(): number {
  const [name = '', ...args] = process.argv.slice(2)
  try {
    const command = Object.hasOwn(commands, name) ? commands[name] : undefined
    if (!command) throw new Misuse(name ? `There is no command "${name}".` : 'Say what to do.')
    process.stdout.write(command(args))
    return 0
  } catch (error) {
    if (error instanceof InputFault) {
      process.stdout.write(error.output)
      process.stderr.write(`${error.message}\n`)
      return 1
    }
    if (error instanceof Misuse) {
      process.stderr.write(`${error.message}\n\n${usage}`)
      return 2
    }
    throw error
  }
}

process.exitCode = main()
