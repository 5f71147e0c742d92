/** "Côté gauche" becomes "côté droit", "main gauche" becomes "main droite". */
const masculine = '(?:côté|bord|bout|coin|bras|trou|fil|pied|brin)s?'

const sides = new RegExp(
  [
    '\\bsens (?:inverse )?des aiguilles d.une montre\\b',
    '\\b(?:anti)?horaires?\\b',
    '\\bgauches?\\b',
    // "Droit" is a side only beside what has one: not "angle droit", nor "tout droit".
    `(?<=\\b${masculine} )droits?\\b`,
    '\\bdroites?\\b',
  ].join('|'),
  'gi',
)

const afterMasculine = new RegExp(`\\b${masculine} $`, 'i')

/** What somebody has written, with left and right exchanged where they are sides. */
export const otherHand = (text: string): string =>
  text.replace(sides, (word, at: number) => {
    const small = word.toLowerCase()
    const instead = small.startsWith('sens')
      ? small.includes('inverse')
        ? small.replace(' inverse', '')
        : small.replace('sens', 'sens inverse')
      : small.includes('horaire')
        ? small.startsWith('anti')
          ? small.slice(4)
          : `anti${small}`
        : small.startsWith('gauche')
          ? `${afterMasculine.test(text.slice(0, at)) ? 'droit' : 'droite'}${small.endsWith('s') ? 's' : ''}`
          : `gauche${small.endsWith('s') ? 's' : ''}`
    return word.charAt(0) === small.charAt(0) ? instead : instead.charAt(0).toUpperCase() + instead.slice(1)
  })
