import { beadsOf, type PlaceTold } from '../../stitch/place-told'

const ordinals: Readonly<Record<string, string>> = { first: 'erste', middle: 'mittlere', last: 'letzte' }

/** Names that the notation gives by itself. */
const wholes: Readonly<Record<string, string>> = {
  new: '«eben aufgenommen»',
  front: '«vorderer Rand»',
  back: '«hinterer Rand»',
}

/** Of beads that are only named by their letter; a place's own name stays as the designer wrote it. */
export const nearestOf = ({ base }: PlaceTold): string => `nächsten Perle ${'role' in base ? base.role : base.name}`

/** Goes with any preposition: "Perle 4 von «frame» (T)", "«bail», letzte Perle", "A Nummer 7". Undefined for a bead that is only named by its letter. */
export function placeWords(told: PlaceTold): string | undefined {
  const { base, steps, beads } = told
  if ('role' in base && steps.length === 0) return undefined
  let whole = 'name' in base ? (wholes[base.name] ?? `«${base.name}»`) : ''
  let kind = 'role' in base ? base.role : 'Perle'
  let said = whole || kind
  let hole = ''
  let named = false
  for (const step of steps) {
    switch (step.type) {
      case 'role':
        kind = step.role
        said = `${kind} von ${whole}`
        break
      case 'nth':
        said = whole ? `${kind} ${step.nth} von ${whole}` : `${kind} Nummer ${step.nth}`
        named = true
        break
      case 'word':
        if (ordinals[step.word]) {
          said = `${whole ? `${whole}, ` : ''}${ordinals[step.word]} ${kind === 'Perle' ? kind : `Perle ${kind}`}`
          named = true
        } else {
          whole = step.word === 'prev' ? `${whole} davor` : `${whole} (${step.word})`
          said = whole
        }
        break
      case 'range':
        said = `${kind === 'Perle' ? 'Perlen' : kind} ${step.from} bis ${step.to} von ${whole}`
        break
      case 'half':
        said = `${step.second ? 'zweite' : 'erste'} Hälfte von ${said}`
        break
      case 'next':
        said = `${whole}, nächste ${step.count === 1 ? 'Perle' : `${step.count} Perlen`}`
        break
      case 'in':
        whole = placeWords(step.place) ?? ''
        said = `${kind} in ${whole}`
        break
      case 'bore':
        hole = `, ${beadsOf(told) > 1 ? 'jeweils ' : ''}${step.bore === 2 ? 'zweites' : 'erstes'} Loch`
        break
    }
  }
  const [only] = beads
  const letter = named && kind === 'Perle' && only && beadsOf(told) === 1 ? ` (${only.role})` : ''
  return said + letter + hole
}
