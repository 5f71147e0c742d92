/** The sentences of a written pattern, in German: one for each thing a statement can do. Told in infinitives, as German patterns are. */
import { type Action, type CautionAbout, type MoveTold, plainRing, readsOtherwiseBackwards } from '../../stitch/action'
import { beadsOf, type PlaceTold } from '../../stitch/place-told'
import type { Run } from '../../stitch/runs'
import type { ThreadSettings } from '../../thread/settings'
import { capital } from '../language'
import { placeWords } from './places'

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} und ${parts[parts.length - 1]}`

const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

const sayTimes = (times: number): string => (times === 1 ? 'einmal' : times === 2 ? 'zweimal' : `${times}-mal`)

const throughBeads = (beads: number) => `durch ${beads === 1 ? '1 Perle' : `${beads} Perlen`}`

/** Where the needle goes; a place's own name stays as the designer wrote it. */
const letterOf = ({ base }: PlaceTold) => ('role' in base ? base.role : base.name)
const place = (target: PlaceTold) => {
  const words = placeWords(target)
  return words === undefined ? `zur nächsten Perle ${letterOf(target)}` : `zu ${words}`
}
const at = (target: PlaceTold) => {
  const words = placeWords(target)
  return words === undefined ? `an der nächsten Perle ${letterOf(target)}` : `an ${words}`
}
const passing = (target: PlaceTold & { readonly back?: boolean }) => {
  const words = placeWords(target)
  const many = beadsOf(target) > 1 ? ` (${beadsOf(target)} Perlen)` : ''
  const through = words === undefined ? `durch die nächste Perle ${letterOf(target)}` : `durch ${words}`
  return `${target.back ? 'zurück ' : ''}${through}${many}`
}

function move(told: MoveTold): string {
  switch (told.type) {
    case 'pick':
      return `${sayRun(told.beads)} aufnehmen`
    case 'pass':
      return `${passing(told.target)} gehen`
    case 'back':
      return `zurück durch die letzte${told.count === 1 ? '' : `n ${told.count}`} ${told.role ?? (told.count === 1 ? 'Perle' : 'Perlen')} gehen`
  }
}

const edges = { front: 'vorderen', back: 'hinteren' } as const

export function repeatSentence(steps: number, times: readonly number[], places: boolean): string {
  const what = steps === 1 ? 'Den nächsten Schritt' : `Die nächsten ${steps} Schritte hintereinander`
  if (places)
    return `${what} an jeder von ${list(times.map(String))} Stellen ausführen; von einer zur nächsten auf dem kürzesten Weg durchfädeln.`
  const [only] = times
  if (times.length === 1 && only !== undefined) return `${what} insgesamt ${sayTimes(only)} ausführen.`
  return `${what} ausführen: ${times.map((each, i) => `${sayTimes(each)} beim ${i + 1}. Mal`).join(', ')}.`
}

export function sentenceFor(action: Action, settings: ThreadSettings): string | undefined {
  switch (action.type) {
    case 'ring': {
      const { pattern, times } = plainRing(action)
      const repeats = times === 1 ? '' : `, ${sayTimes(times)}`
      return `${action.beads} Perlen auffädeln: ${sayRun(pattern)} aufnehmen${repeats}. ${closing[action.closing]}`
    }
    case 'round':
      return round(action)
    case 'other edge':
      return `Dem vorhandenen Faden nach ${throughBeads(action.passed)} zum ${edges[action.edge]} Rand durchfädeln und aus einer hochstehenden Perle herauskommen.`
    case 'to':
      return action.passed === 0
        ? `Die Nadel ist schon ${at(action.target)}.`
        : `${capitalThrough(action.passed)} ${place(action.target)} durchfädeln.`
    case 'place':
      return `Den Stein ${action.role} mit der Vorderseite nach vorn einlegen und den Faden rundum fest anziehen.`
    case 'loop': {
      const again =
        action.over > 1
          ? `durch die letzten ${action.over} Perlen, durch die die Nadel kam`
          : `durch die Perle ${action.through}, aus der die Nadel kam`
      const name = action.name ? ` Das ist «${action.name}».` : ''
      return `${sayRun(action.beads)} aufnehmen und ${action.back ? 'zurück' : 'nochmals in gleicher Richtung'} ${again} gehen, so dass eine Schlinge entsteht.${name}`
    }
    case 'reinforce':
      return `Noch ${sayTimes(action.times)} durch die Perlen ${reinforced[action.what]} gehen, ohne welche aufzunehmen; fest anziehen, die Nadel aber nie mit Gewalt durchstossen.`
    case 'string':
      return `${sayRun(action.beads)} auffädeln${named(action.name)} und mit einer Stopperperle halten.`
    case 'pick':
      return action.moves.length === 0
        ? `${sayRun(action.beads)} aufnehmen${named(action.name)}.`
        : `${capital(action.moves.map(move).join(', dann '))}${named(action.name)}.`
    case 'through':
      return `${capital(action.targets.map(passing).join(', dann '))} gehen.`
    case 'turn':
      return 'Wenden: in das andere Loch derselben Perle wechseln und durch dieses zurückkommen.'
    case 'turn over':
      return `Die Arbeit umdrehen: Jetzt liegt die ${action.face === 'front' ? 'Vorderseite' : 'Rückseite'} oben.`
    case 'hangs':
      return `Das Stück hängt ${at(action.target)}.`
    case 'under':
      return 'Die Fadenbrücke zwischen den Perlen darunter fassen.'
    case 'go':
      return action.back
        ? `${capitalThrough(action.beads)} auf dem Weg des Fadens zurückgehen.`
        : `${capitalThrough(action.beads)} davon weitergehen.`
    case 'weave':
      return `${action.units === 1 ? '1 Rechtwinkeleinheit' : `${action.units} Rechtwinkeleinheiten`} fädeln: für jede ${sayRun(action.beads)} aufnehmen, nochmals durch die gemeinsame Perle der Einheit davor gehen und zur gegenüberliegenden Perle weitergehen.${
        action.units > 1 && readsOtherwiseBackwards(action.beads)
          ? ` Für jede zweite Einheit in umgekehrter Reihenfolge aufnehmen, ${sayRun([...action.beads].reverse())}, damit jede Kante ihre Perle behält.`
          : ''
      }`
    case 'join':
      return action.beads.length > 0
        ? `${capitalAt(action.target)} verbinden: die erste Hälfte von ${sayRun(action.beads)} aufnehmen, dort hindurchgehen, den Rest aufnehmen und durch die Perle gehen, aus der die Nadel kam.`
        : `${capitalAt(action.target)} verbinden: dort hindurch- und durch die Perle zurückgehen, aus der die Nadel kam.`
    case 'stand':
      return stand(action)
    case 'fringe':
      return fringe(action)
    case 'rail':
      return undefined
    case 'attach':
      return `${action.item} ${at(action.target)} befestigen.`
    case 'caution':
      return cautionAbout[action.about]
    case 'repeat':
      return undefined
    case 'new thread':
      return 'Diesen Faden beenden und dort, wo er herauskam, einen neuen beginnen.'
    case 'finish':
      return ending(settings)
    case 'check':
    case 'note':
      return action.text
    case 'let':
      return undefined
  }
}

const capitalThrough = (beads: number) => throughBeads(beads).replace(/^d/, 'D')
const capitalAt = (target: PlaceTold) => at(target).replace(/^a/, 'A')
const named = (name: string | undefined) => (name ? ` («${name}»)` : '')

const reinforced = {
  ring: 'dieses Rings',
  round: 'dieser Runde',
  loop: 'dieser Schlinge',
  run: 'dieses Stücks',
} as const

function round(action: Extract<Action, { type: 'round' }>): string {
  const name = action.closed ? `${action.edge === 'front' ? 'Vordere' : 'Hintere'} Runde` : 'Reihe'
  const head = action.round > 0 ? `${name} ${action.round}` : name
  const into = anchorWords[action.into]
  const wide = action.cycle[0]?.beads.reduce((sum, { count }) => sum + count, 0) ?? 1
  const skipping =
    wide > 1
      ? `${wide} Perlen überspringen und durch die nächsten ${wide} gehen`
      : 'eine Perle überspringen und durch die nächste gehen'
  const skips = action.into === 'gaps' && action.fresh === true
  const atFirst = action.into === 'gaps' && action.fresh === 'the first time' ? ` Beim ersten Mal ${skipping}.` : ''
  const [only] = action.cycle
  const tail = action.stitches === action.standing ? '' : ` Jetzt stehen ${action.standing} Perlen oder Gruppen hoch.`
  const stepUp = {
    'steps up': `Durch die ${action.upThrough === 1 ? 'erste aufgenommene Perle' : `ersten ${action.upThrough} aufgenommenen Perlen`} aufsteigen.`,
    stays: 'Nicht aufsteigen.',
    'runs on': 'Es wird nicht aufgestiegen: Die Runden laufen als Spirale weiter.',
    turns: 'Wenden.',
    'turned in':
      'Für die letzte gibt es keine Perle, durch die es weitergeht: den Faden am Rand fassen und durch sie zurückgehen. Wenden.',
  }[action.ends]
  if (action.cycle.length === 1 && only)
    return `${head}: ${sayRun(only.beads)} aufnehmen${skips ? `, ${skipping}` : ` und ${into} gehen`}; insgesamt ${sayTimes(action.stitches)}.${atFirst} ${stepUp}${tail}`
  const parts = action.cycle.map(({ beads, times, over }) =>
    over > 1
      ? `${sayRun(beads)} aufnehmen und den Stich über ${over} Perlen führen`
      : beads.length === 0
        ? `${skips ? skipping : `${into} gehen`}, ohne eine Perle aufzunehmen${times === 1 ? '' : `, ${sayTimes(times)}`} (eine Abnahme)`
        : `${sayRun(beads)} aufnehmen, ${times === 1 ? 'beim nächsten Stich' : `bei jedem der nächsten ${times} Stiche`}`,
  )
  return `${head}: ${parts.join(', dann ')}; das ${sayTimes(action.turns)} rundum, insgesamt ${action.stitches} Stiche.${skips ? ` Bei jedem Stich ${skipping}.` : atFirst} ${stepUp}${tail}`
}

const anchorWords: Readonly<Record<Extract<Action, { type: 'round' }>['into'], string>> = {
  gaps: 'durch die nächste hochstehende Perle',
  every: 'durch die nächste Perle, die an der Reihe ist,',
  middles: 'durch die mittlere Perle der nächsten Gruppe',
  nth: 'durch die bezeichnete Perle der nächsten Gruppe',
  bore: 'durch das andere Loch der nächsten Perle',
  target: 'durch die nächste der genannten Perlen',
}

function stand(action: Extract<Action, { type: 'stand' }>): string {
  const where = action.row ? 'auf die Reihe darunter' : 'rund um den Kern'
  const more =
    action.increases > 0
      ? ` Das sind ${action.increases} mehr als in der Reihe darunter: gleichmässig verteilen, nicht bei der ersten und nicht bei der letzten Perle.`
      : ''
  return `${action.stitches} ${action.role} ${where} stellen: jeweils eine aufnehmen, den Faden darunter fassen und durch die Perle zurück nach oben gehen; die letzte mit der ersten verbinden, durch diese hinunter und wieder hinauf.${more}`
}

function fringe({ strands, keep }: Extract<Action, { type: 'fringe' }>): string {
  const one = ({ beads, end }: (typeof strands)[number]) =>
    sayRun(beads) + (end.length > 0 ? `, dann ${sayRun(end)}` : '')
  const [first] = strands
  const same = first && strands.every((strand) => one(strand) === one(first))
  const told = first && same ? one(first) : strands.map((strand, i) => `${i + 1}: ${one(strand)}`).join('; ')
  const turning = first && first.end.length > 0 ? 'an den Endperlen vorbei' : 'an der letzten Perle vorbei'
  const kept = keep > 0 ? `, ohne die obersten ${keep}` : ''
  const many = strands.length > 1 ? `${strands.length} Fransen hängen. ` : ''
  return `${many}${told} aufnehmen; ${turning} durch die Franse zurückgehen${kept}.`
}

const cautionAbout: Readonly<Record<CautionAbout, string>> = {
  flame:
    'Vorsicht: Brenner und Feuerzeug verbrennen. Von Haaren, Stoff und Kindern fernhalten, lüften, und nicht benutzen, wo offene Flammen verboten sind.',
  glue: 'Vorsicht: lüften und die Angaben auf dem Klebstoff beachten.',
  pliers: 'Vorsicht: Glas kann brechen. Mit Zangen eine Schutzbrille tragen.',
  magnet: 'Vorsicht: Magnete von kleinen Kindern und von medizinischen Implantaten fernhalten.',
  nickel: 'Vorsicht: manche Menschen vertragen Nickel oder andere Metalle nicht auf der Haut.',
}

const closing: Readonly<Record<ThreadSettings['closing'], string>> = {
  'pass again': 'Nochmals durch alle gehen, um den Ring zu schliessen.',
  knot: 'Die Enden mit einem Kreuzknoten verbinden, um den Ring zu schliessen.',
  'knot and pass again': 'Die Enden mit einem Kreuzknoten verbinden und nochmals durch alle gehen.',
  'stop bead': 'Den Ring mit einer Stopperperle geschlossen halten und am Schluss verknoten.',
}

function ending(settings: ThreadSettings): string {
  const hitches = `${settings.hitchesPerEnd} halben Schlägen`
  switch (settings.ending) {
    case 'hitch and weave':
      return `Beide Enden vernähen, unterwegs mit ${hitches} zwischen den Perlen, und abschneiden.`
    case 'weave':
      return 'Beide Enden vernähen, unterwegs zweimal wenden, und abschneiden.'
    case 'melt':
      return `Beide Enden mit ${hitches} vernähen, abschneiden und mit dem Fadenbrenner versiegeln.`
    case 'glue':
      return `Beide Enden mit ${hitches} vernähen, den letzten mit einem Tropfen Kleber sichern und nach dem Trocknen abschneiden.`
  }
}
