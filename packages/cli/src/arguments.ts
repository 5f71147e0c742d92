import { readFileSync } from 'node:fs'
import { type ParseArgsConfig, parseArgs } from 'node:util'
import { Misuse } from './trouble'

/** Reads a command's arguments; anything that is not known is misuse. */
export function readArguments<Options extends NonNullable<ParseArgsConfig['options']>>(
  args: string[],
  options: Options,
) {
  try {
    return parseArgs({ args, options, allowPositionals: true, strict: true })
  } catch (error) {
    throw new Misuse((error as Error).message)
  }
}

export function readText(file: string | undefined, what = 'a pattern file'): string {
  if (file === undefined) throw new Misuse(`Name ${what}.`)
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8')
  } catch (error) {
    throw new Misuse(`${file} cannot be read: ${(error as Error).message}`)
  }
}

/** "8.4mm", "1 in", "24": a length above 0, in mm. */
export function readLength(text: string | undefined, name: string, otherwise?: number): number {
  if (text === undefined) {
    if (otherwise !== undefined) return otherwise
    throw new Misuse(`--${name} is needed.`)
  }
  const found = /^\s*(\d+(?:\.\d+)?)\s*(mm|cm|in)?\s*$/.exec(text)
  const amount = Number(found?.[1])
  if (!found || !(amount >= 0)) throw new Misuse(`--${name} is "${text}"; give a length such as 8.4mm.`)
  return amount * (found[2] === 'cm' ? 10 : found[2] === 'in' ? 25.4 : 1)
}

export function readWhole(text: string | undefined, name: string, otherwise: number): number {
  if (text === undefined) return otherwise
  const number = Number(text)
  if (!Number.isInteger(number) || number < 1)
    throw new Misuse(`--${name} is "${text}"; give a whole number of 1 or more.`)
  return number
}
