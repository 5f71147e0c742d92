/** What a pattern says of tools, dangers, marks and wearing, in French. */
import type { Endings } from '../language'

export const cautions = (endings: Endings, hasStone: boolean, hasFindings: boolean): string[] => [
  "Ne jamais forcer l'aiguille: le verre casse. Porter des lunettes de protection en tirant fort ou avec des pinces.",
  'Compter les aiguilles avant et après. Tenir perles, aiguilles et petites pièces hors de portée des jeunes enfants.',
  ...(endings.has('melt')
    ? [
        'Un brûle-fil ou un briquet brûle: le tenir loin des cheveux, des tissus et des enfants, aérer, et ne pas en utiliser là où les flammes sont interdites.',
      ]
    : []),
  ...(endings.has('glue') ? ['Colle: aérer et suivre les indications du fabricant.'] : []),
  ...(hasStone
    ? [
        'Les pierres et les perles anciennes ou inconnues peuvent contenir du plomb ou du cadmium: vérifier les prescriptions locales avant de vendre ou de travailler avec des enfants.',
      ]
    : []),
  ...(hasFindings
    ? [
        "Apprêts en métal: certaines personnes ne supportent pas le nickel ou d'autres métaux sur la peau. Tenir les aimants loin des appareils médicaux.",
      ]
    : []),
]

export const tools = (needle: number, endings: Endings): string[] => [
  `une aiguille n° ${needle}`,
  'de petits ciseaux pointus',
  'un tapis à perles',
  'une règle',
  ...(endings.has('melt') ? ['un brûle-fil'] : []),
  ...(endings.has('glue') ? ['de la colle à bijoux'] : []),
]

export const marks = [
  '«En saillie»: une perle du dernier tour qui dépasse ses voisines.',
  '«Monter»: passer dans la première perle ou le premier groupe du tour terminé, pour que le suivant puisse commencer.',
  "Les perles de ce qui a reçu un nom se comptent dans l'ordre où elles ont été prises.",
  'Une diminution est un point où rien ne se prend: continuer et serrer.',
  'Les lettres sont les perles de la liste du matériel; le nombre devant une lettre dit combien en prendre.',
]

export const wear = [
  "Mettre le bijou en dernier et l'ôter en premier; le tenir loin de l'eau, du parfum et de la lumière vive.",
  "Le ranger à plat, et regarder de temps en temps le fermoir, les boucles et les bords: remplacer un fil usé avant qu'il ne cède.",
]
