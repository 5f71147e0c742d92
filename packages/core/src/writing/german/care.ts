/** What a pattern says of tools, dangers, marks and wearing, in German. */
import type { Endings } from '../language'

export const cautions = (endings: Endings, hasStone: boolean, hasFindings: boolean): string[] => [
  'Die Nadel nie mit Gewalt durchstossen: Glas bricht. Beim festen Ziehen und mit Zangen eine Schutzbrille tragen.',
  'Nadeln vorher und nachher zählen. Perlen, Nadeln und andere kleine Teile von kleinen Kindern fernhalten.',
  ...(endings.has('melt')
    ? [
        'Fadenbrenner und Feuerzeug verbrennen: von Haaren, Stoff und Kindern fernhalten, lüften, und nicht benutzen, wo offene Flammen verboten sind.',
      ]
    : []),
  ...(endings.has('glue') ? ['Klebstoff: lüften und die Angaben auf der Packung beachten.'] : []),
  ...(hasStone
    ? [
        'Alte oder unbekannte Steine und Perlen können Blei oder Cadmium enthalten: vor dem Verkauf und der Arbeit mit Kindern die örtlichen Vorschriften prüfen.',
      ]
    : []),
  ...(hasFindings
    ? [
        'Metallteile: manche Menschen vertragen Nickel oder andere Metalle nicht auf der Haut. Magnete von medizinischen Geräten fernhalten.',
      ]
    : []),
]

export const tools = (needle: number, endings: Endings): string[] => [
  `eine Nadel Nr. ${needle}`,
  'eine kleine scharfe Schere',
  'eine Perlenmatte',
  'ein Lineal',
  ...(endings.has('melt') ? ['ein Fadenbrenner'] : []),
  ...(endings.has('glue') ? ['Schmuckkleber'] : []),
]

export const marks = [
  '«Hochstehend»: eine Perle der letzten Runde, die höher sitzt als ihre Nachbarn.',
  '«Aufsteigen»: durch die erste Perle oder Gruppe der eben gefädelten Runde gehen, damit die nächste beginnen kann.',
  'Perlen von etwas, das einen Namen bekommen hat, zählen in der Reihenfolge, in der sie aufgenommen wurden.',
  'Eine Abnahme ist ein Stich, bei dem nichts aufgenommen wird: weitergehen und zusammenziehen.',
  'Buchstaben stehen für die Perlen der Materialliste; eine Zahl davor sagt, wie viele aufgenommen werden.',
]

export const wear = [
  'Zuletzt anlegen und zuerst ablegen; von Wasser, Duft und starkem Licht fernhalten.',
  'Flach aufbewahren und Verschluss, Ösen und Ränder ab und zu ansehen: einen abgenutzten Faden ersetzen, bevor er reisst.',
]
