/** What schemas are made of. Where one has no words of its own for bad input, it has ours in place of the library's. */
import { z } from 'zod'

const wanted: Readonly<Record<string, string>> = {
  string: 'Give some text.',
  number: 'Give a number.',
  int: 'Give a whole number.',
  boolean: 'Say yes or no.',
  array: 'Give a list.',
  object: 'Give all of its parts.',
  record: 'Give all of its parts.',
}

const figure = (value: unknown) => Number(value).toLocaleString('en-GB')

const counted: Readonly<Record<string, string>> = { string: ' letters', array: ' entries' }

const plainError: z.core.$ZodErrorMap = (issue) => {
  switch (issue.code) {
    case 'invalid_type':
      return wanted[issue.expected] ?? 'This cannot be read.'
    case 'too_small': {
      if (issue.origin === 'string' && issue.minimum === 1) return 'Give some text.'
      const least = issue.inclusive === false ? 'More than' : 'At least'
      return `${least} ${figure(issue.minimum)}${counted[issue.origin] ?? ''}.`
    }
    case 'too_big': {
      const most = issue.inclusive === false ? 'Less than' : 'At most'
      return `${most} ${figure(issue.maximum)}${counted[issue.origin] ?? ''}.`
    }
    case 'invalid_value':
      return `Choose one of: ${issue.values.join(', ')}.`
    case 'unrecognized_keys':
      return `There is no ${issue.keys.join(', ')} here.`
    default:
      return 'This cannot be read.'
  }
}

z.config({ customError: plainError })

export { z }
