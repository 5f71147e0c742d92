/** How each technique is worked, in German. */
import type { Language } from '../language'

export const techniques: Language['techniques'] = {
  ring: {
    title: 'Ein Ring',
    text: 'Die Perlen auffädeln, bis zum Fadenende schieben und so zum Ring schliessen, wie es der Schritt sagt. Anziehen, bis zwischen den Perlen kein Faden mehr zu sehen ist und keine auf der Kante steht.',
  },
  round: {
    title: 'Eine Peyote-Runde',
    text: 'Eine Perle aufnehmen, eine überspringen und durch die nächste gehen, die vorsteht. Jede neue Perle füllt eine Lücke der Runde davor. Wo der Schritt das Aufsteigen verlangt, noch durch die erste Perle dieser Runde gehen, dann kann die nächste beginnen.',
  },
  row: {
    title: 'Eine Peyote-Reihe',
    text: 'Wie eine Runde, aber hin und her. Am Ende der Reihe wenden, sodass der Faden in der anderen Richtung aus der zuletzt aufgenommenen Perle kommt.',
  },
  drop: {
    title: 'Mehrere Perlen je Stich',
    text: 'Ebenso gearbeitet, aber jeder Stich nimmt zwei oder mehr Perlen auf. Sie liegen nebeneinander in einer ebenso breiten Lücke: durch die zusammen vorstehenden Perlen gehen, als wären sie eine.',
  },
  decrease: {
    title: 'Eine Abnahme',
    text: 'Wo ein Stich nichts aufnimmt, gleich durch die nächste vorstehende Perle gehen und eng anziehen. Die Lücke schliesst sich, und die Arbeit wird enger.',
  },
  increase: {
    title: 'Eine Zunahme',
    text: 'Wo ein Stich für eine Lücke zwei Perlen aufnimmt, sollen sie nebeneinander liegen. In der nächsten Runde kommt eine Perle dazwischen, und die Arbeit wird weiter.',
  },
  netting: {
    title: 'Netzstich',
    text: 'Mehrere Perlen auf einmal aufnehmen und durch eine weiter entfernte Perle gehen, sodass dazwischen ein Bogen hängt. Alle Bögen gleich fest anziehen.',
  },
  square: {
    title: 'Quadratstich',
    text: 'Eine Perle aufnehmen, in derselben Richtung wie zuvor noch einmal durch die Perle darunter gehen und noch einmal durch die neue. Jede Perle sitzt gerade auf der unteren.',
  },
  unit: {
    title: 'Einheiten im rechten Winkel',
    text: 'Jede Einheit ist ein kleiner Ring. Ihre Perlen aufnehmen, noch einmal durch die Perle gehen, die sie mit der Einheit davor teilt, und weiter bis zu der Perle, bei der die nächste beginnt. Der Faden läuft die Perlen entlang und nie quer hinüber.',
  },
  stand: {
    title: 'Stehende Perlen',
    text: 'Eine Perle aufnehmen, den Faden zwischen zwei Perlen der unteren Reihe fassen (oder um den Stein gehen) und durch die neue Perle nach oben zurück. Sie steht aufrecht neben ihrer Nachbarin.',
  },
  loop: {
    title: 'Eine Schlaufe',
    text: 'Ihre Perlen aufnehmen und in derselben Richtung noch einmal durch die Perle gehen, aus der der Faden kam. Die Schlaufe steht über dieser Perle.',
  },
  fringe: {
    title: 'Eine Franse',
    text: 'Den Strang aufnehmen, die letzte Perle oder die letzten auslassen und durch alle anderen zurückgehen. Die Endperlen halten den Strang: vor dem Anziehen nach oben schieben.',
  },
}
