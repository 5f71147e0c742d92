/** The sentences of a written pattern, in German: one for each thing a statement can do. Told in infinitives, as German patterns are. */
import { type Action, type CautionAbout, plainRing, readsOtherwiseBackwards } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { beadsIn, halves } from '../../stitch/runs'
import type { ThreadSettings } from '../../thread/settings'
import { capital } from '../language'
import { strandsTold } from '../strands'
import { called, list, moveWords, passing, sayBeads, sayRun, sayTimes } from './moves'
import { nearestOf, placeWords } from './places'
import { round } from './round'

const throughBeads = (beads: number) => `durch ${sayBeads(beads)}`

/** Where the needle goes. */
const place = (target: PlaceTold) => {
  const words = placeWords(target)
  return words === undefined ? `zur ${nearestOf(target)}` : `zu ${words}`
}
const at = (target: PlaceTold) => {
  const words = placeWords(target)
  return words === undefined ? `an der ${nearestOf(target)}` : `an ${words}`
}

/** All of several beads. */
const eachOf = (target: PlaceTold) =>
  placeWords(target) ?? `jede ${'role' in target.base ? target.base.role : target.base.name}`

const edges = { front: 'vorderen', back: 'hinteren' } as const

export function repeatSentence(steps: number, times: readonly number[], at: PlaceTold | undefined): string {
  const what = steps === 1 ? 'Den nächsten Schritt' : `Die nächsten ${steps} Schritte hintereinander`
  if (at)
    return `${what} an jeder von ${list(times.map(String))} Stellen ausführen (${eachOf(at)}); von einer zur nächsten auf dem kürzesten Weg durchfädeln.`
  const [only] = times
  if (times.length === 1 && only !== undefined) return `${what} insgesamt ${sayTimes(only)} ausführen.`
  return `${what} ausführen: ${times.map((each, i) => `${sayTimes(each)} beim ${i + 1}. Mal`).join(', ')}.`
}

export function sentenceFor(action: Action, settings: ThreadSettings): string | undefined {
  switch (action.type) {
    case 'ring': {
      const { pattern, times } = plainRing(action)
      const repeats = times === 1 ? '' : `, ${sayTimes(times)}`
      return `${action.beads} Perlen auffädeln: ${sayRun(pattern)} aufnehmen${repeats}. ${closing[action.closing]}${called(action.name)}`
    }
    case 'round':
      return round(action)
    case 'square':
      return `Reihe ${action.round} im Quadratstich, ${action.stitches === 1 ? '1 Stich' : `${action.stitches} Stiche`}: ${action.cycle.map(sayRun).join(', dann ')} aufnehmen${action.turns === 1 ? '' : `; ${sayTimes(action.turns)} der Reihe nach`}. Nach jedem Stich durch ebenso viele Perlen der Reihe darunter in deren Arbeitsrichtung und nochmals durch die eben aufgenommenen gehen. Wenden.${called(action.name)}`
    case 'other edge':
      return `Dem vorhandenen Faden nach ${throughBeads(action.passed)} zum ${edges[action.edge]} Rand durchfädeln und aus einer ${action.fresh ? 'Perle des Rings' : 'hochstehenden Perle'} herauskommen.`
    case 'to':
      return action.passed === 0
        ? `Die Nadel ist schon ${at(action.target)}.`
        : `${capitalThrough(action.passed)} ${place(action.target)} durchfädeln.`
    case 'place':
      if (action.another)
        return `Auch diesen Ring aus ${action.another} Perlen rund um den Stein ${action.role} fest anziehen.`
      return `Den Stein ${action.role} mit der Vorderseite nach vorn einlegen und den Faden rundum fest anziehen.`
    case 'loop': {
      const again =
        action.over > 1
          ? `durch die letzten ${action.over} Perlen, durch die die Nadel kam,`
          : `durch die Perle ${action.through}, aus der die Nadel kam,`
      return `${sayRun(action.beads)} aufnehmen und ${action.back ? 'zurück' : 'nochmals in gleicher Richtung'} ${again} gehen, so dass eine Schlinge entsteht.${called(action.name)}`
    }
    case 'reinforce':
      return `Noch ${sayTimes(action.times)} durch die Perlen ${reinforced[action.what]} gehen, ohne welche aufzunehmen; fest anziehen, die Nadel aber nie mit Gewalt durchstossen.`
    case 'string':
      return `${sayRun(action.beads)} auffädeln und mit einer Stopperperle halten.${called(action.name)}`
    case 'pick':
      return `${action.moves.length === 0 ? `${sayRun(action.beads)} aufnehmen` : capital(moveWords(action.moves).join(', dann '))}.${called(action.name)}`
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
        ? `Um die Perle herum, aus der die Nadel kam, und durch ${action.beads === 1 ? 'die Perle' : `die ${action.beads} Perlen`} davor auf dem Weg des Fadens zurückgehen.`
        : `${capitalThrough(action.beads)} davon weitergehen.`
    case 'weave': {
      const each = beadsIn(action.beads)
      return `${action.units === 1 ? '1 Rechtwinkeleinheit' : `${action.units} Rechtwinkeleinheiten`} fädeln: ${
        action.begins ? `zuerst 1 ${action.begins} aufnehmen, die zur ersten Einheit gehört; ` : ''
      }für jede ${sayRun(action.beads)} aufnehmen, nochmals durch die gemeinsame Perle der Einheit davor gehen${action.twice ? ', alle diese noch einmal umrunden' : ''} und durch die ersten ${sayBeads(Math.ceil(each / 2))} der eben aufgenommenen weitergehen.${
        action.units > 1 && readsOtherwiseBackwards(action.beads)
          ? ` Für jede zweite Einheit in umgekehrter Reihenfolge aufnehmen, ${sayRun([...action.beads].reverse())}, damit jede Kante ihre Perle behält.`
          : ''
      }${called(action.name)}`
    }
    case 'join': {
      const [first, second] = halves(action.beads)
      return `${capitalAt(action.target)} verbinden: ${[
        ...(first.length > 0 ? [`${sayRun(first)} aufnehmen`] : []),
        action.back ? 'dort rückwärts hindurchgehen' : 'dort hindurchgehen',
        ...(second.length > 0 ? [`${sayRun(second)} aufnehmen`] : []),
        'nochmals durch die Perle gehen, aus der die Nadel kam',
      ].join(', dann ')}.`
    }
    case 'stand':
      return stand(action)
    case 'fringe':
      return fringe(action)
    case 'rail':
      return `Die nächsten Runden gehen von der Nadel an durch ${action.targets.map(eachOf).join(', dann ')} (${sayBeads(action.beads)}). Das ist «${action.name}».`
    case 'attach':
      return `${action.item} ${at(action.target)} befestigen.`
    case 'caution':
      return cautionAbout[action.about]
    case 'repeat':
      return undefined
    case 'new thread':
      if (action.tail)
        return 'Diesen Faden hängen lassen, sein Anfangsende in die Nadel fädeln und mit diesem weiterarbeiten.'
      return action.at
        ? `Diesen Faden beenden und einen neuen durch ${placeWords(action.at) ?? nearestOf(action.at)} beginnen.`
        : 'Diesen Faden beenden und einen neuen durch die Perle beginnen, aus der er herauskam.'
    case 'finish':
      return ending(action.ending, settings)
    case 'check':
    case 'note':
      return action.text
    case 'let':
      return undefined
  }
}

const capitalThrough = (beads: number) => throughBeads(beads).replace(/^d/, 'D')
const capitalAt = (target: PlaceTold) => at(target).replace(/^a/, 'A')

const reinforced = {
  ring: 'dieses Rings',
  round: 'dieser Runde',
  loop: 'dieser Schlinge',
  run: 'dieses Stücks',
} as const

function stand(action: Extract<Action, { type: 'stand' }>): string {
  const where = action.row ? 'auf die Reihe darunter' : 'rund um den Kern'
  const more =
    action.increases > 0
      ? ` Das sind ${action.increases} mehr als in der Reihe darunter: gleichmässig verteilen, nicht bei der ersten und nicht bei der letzten Perle.`
      : ''
  return `${action.stitches} ${action.role} ${where} stellen: jeweils eine aufnehmen, den Faden darunter fassen und durch die Perle zurück nach oben gehen; die letzte mit der ersten verbinden, durch diese hinunter und wieder hinauf.${more}${called(action.name)}`
}

function fringe({ strands, keep, between, into, fromEnd, name }: Extract<Action, { type: 'fringe' }>): string {
  const told = strandsTold(strands, ({ beads, end }) => sayRun(beads) + (end.length > 0 ? `, dann ${sayRun(end)}` : ''))
  const ends = beadsIn(strands[0]?.end ?? [])
  const turning =
    ends === 0 ? 'an der letzten Perle vorbei' : `an ${ends === 1 ? 'der Endperle' : 'den Endperlen'} vorbei`
  const kept = keep > 0 ? `, ohne die obersten ${keep}` : ''
  const from = into
    ? `, je eine ${at(into)}${fromEnd ? ', von der letzten zur ersten' : ''}, auf dem kürzesten Weg ${between.length > 0 ? 'zur ersten' : 'dorthin'} durchfädeln`
    : ''
  const spacing =
    between.length > 0
      ? `, von einer zur nächsten ${sayRun(between)} aufnehmen${into ? ' und durch die Perle gehen, an der sie hängt' : ''}`
      : ''
  const many =
    strands.length > 1 || into
      ? `${strands.length === 1 ? '1 Franse' : `${strands.length} Fransen`} hängen${from}${spacing}. `
      : ''
  return `${many}${told} aufnehmen; ${turning} durch die Franse zurückgehen${kept}.${called(name)}`
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

function ending(way: ThreadSettings['ending'], settings: ThreadSettings): string {
  const hitches = `${settings.hitchesPerEnd} halben Schlägen`
  switch (way) {
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
