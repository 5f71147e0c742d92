import { beadsOf, type PlaceTold } from '../../stitch/place-told'

/** Names that the notation gives by itself. */
const wholes: Readonly<Record<string, string>> = {
  new: 'those just picked up',
  front: 'the front edge',
  back: 'the back edge',
}

/** "bead 4 of the frame (T)", "the last bead of the bail", "A number 7", "the nearest B". */
export function placeWords(told: PlaceTold, which: 'nearest' | 'each' = 'nearest'): string {
  const { base, steps, beads } = told
  let whole = 'name' in base ? (wholes[base.name] ?? `the ${base.name}`) : ''
  let kind = 'role' in base ? base.role : 'bead'
  let said =
    whole ||
    (steps.length === 0 && beadsOf(told) === 1 ? `the ${kind}` : `${which === 'each' ? 'each' : 'the nearest'} ${kind}`)
  let hole = ''
  let named = false
  for (const step of steps) {
    switch (step.type) {
      case 'role':
        kind = step.role
        said = `${which === 'each' ? 'each' : 'the'} ${kind} of ${whole}`
        break
      case 'nth':
        said = whole ? `${kind} ${step.nth} of ${whole}` : `${kind} number ${step.nth}`
        named = true
        break
      case 'word':
        if (['first', 'middle', 'last'].includes(step.word)) {
          said = `the ${step.word} ${kind}${whole ? ` of ${whole}` : ''}`
          named = true
        } else {
          whole = step.word === 'prev' ? `${whole} before it` : `${whole} (${step.word})`
          said = whole
        }
        break
      case 'range':
        said = `${kind === 'bead' ? 'beads' : kind} ${step.from} to ${step.to} of ${whole}`
        break
      case 'half':
        said = `the ${step.second ? 'second' : 'first'} half of ${said}`
        break
      case 'next':
        said = `the next ${step.count === 1 ? kind : `${step.count} beads`} of ${whole}`
        break
      case 'in':
        whole = placeWords(step.place)
        said = `${which === 'each' ? 'each' : 'the'} ${kind} in ${whole}`
        break
      case 'bore':
        hole = `${beadsOf(told) > 1 ? ', each' : ''} by its ${step.bore === 2 ? 'second' : 'first'} hole`
        break
    }
  }
  const [only] = beads
  const letter = named && kind === 'bead' && only && beadsOf(told) === 1 ? ` (${only.role})` : ''
  return said + letter + hole
}
