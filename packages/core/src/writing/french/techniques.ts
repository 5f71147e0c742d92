/** How each technique is worked, in French. */
import type { Language } from '../language'

export const techniques: Language['techniques'] = {
  ring: {
    title: 'Un anneau',
    text: "Enfiler les perles, les pousser jusqu'au bout du fil et les fermer en anneau comme le dit l'étape. Serrer jusqu'à ce qu'aucun fil ne se voie entre les perles et qu'aucune ne soit de travers.",
  },
  round: {
    title: 'Un tour de peyote',
    text: "Prendre une perle, en sauter une et passer dans la suivante, qui est en saillie. Chaque nouvelle perle remplit un creux du tour d'avant. Là où l'étape dit de monter, passer encore dans la première perle de ce tour pour que le suivant puisse commencer.",
  },
  row: {
    title: 'Un rang de peyote',
    text: "Comme un tour, mais en allers et retours. Au bout du rang, faire demi-tour, pour que le fil sorte de la dernière perle prise dans l'autre sens.",
  },
  drop: {
    title: 'Plusieurs perles par point',
    text: "De la même façon, mais chaque point prend deux perles ou plus. Elles se couchent côte à côte dans un creux de la même largeur: passer dans celles qui sont ensemble en saillie comme s'il n'y en avait qu'une.",
  },
  decrease: {
    title: 'Une diminution',
    text: "Là où un point ne prend rien, passer directement dans la prochaine perle en saillie et serrer. Le creux se ferme, et l'ouvrage se resserre.",
  },
  increase: {
    title: 'Une augmentation',
    text: "Là où un point prend deux perles pour un creux, les laisser côte à côte. Au tour suivant une perle vient entre elles, et l'ouvrage s'élargit.",
  },
  netting: {
    title: 'Le filet',
    text: 'Prendre plusieurs perles à la fois et passer dans une perle plus loin, pour que pende entre deux un arc. Serrer tous les arcs de la même façon.',
  },
  square: {
    title: 'Le point carré',
    text: "Prendre une perle, repasser dans la perle du dessous dans le même sens qu'avant, puis de nouveau dans la nouvelle. Chaque perle se pose juste au-dessus de l'autre.",
  },
  unit: {
    title: 'Les unités en angle droit',
    text: "Chaque unité est un petit anneau. Prendre ses perles, repasser dans la perle partagée avec l'unité d'avant et continuer jusqu'à celle où commence la suivante. Le fil longe les perles et ne traverse jamais l'ouverture.",
  },
  stand: {
    title: 'Les perles dressées',
    text: 'Prendre une perle, attraper le fil entre deux perles du rang du dessous (ou faire le tour de la pierre) et remonter dans la nouvelle perle. Elle se tient debout à côté de sa voisine.',
  },
  loop: {
    title: 'Une boucle',
    text: "Prendre ses perles et repasser, dans le même sens, dans la perle d'où sort le fil. La boucle se tient au-dessus de cette perle.",
  },
  fringe: {
    title: 'Une frange',
    text: 'Prendre la frange, laisser sa dernière perle ou les dernières, et repasser dans toutes les autres. Les perles du bout la retiennent: les pousser vers le haut avant de serrer.',
  },
}
