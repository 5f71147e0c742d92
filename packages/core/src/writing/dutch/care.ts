/** What a pattern says of tools, dangers, marks and wearing, in Dutch. */
import type { Endings } from '../language'

export const cautions = (endings: Endings, hasStone: boolean, hasFindings: boolean): string[] => [
  'Duw een naald nooit met geweld door: glas breekt. Draag een veiligheidsbril bij hard trekken en met een tang.',
  'Tel de naalden voor en na. Houd kralen, naalden en andere kleine onderdelen weg van jonge kinderen.',
  ...(endings.has('melt')
    ? [
        'Een draadbrander of aansteker brandt: houd hem weg van haar, stof en kinderen, lucht de ruimte, en gebruik hem niet waar open vuur verboden is.',
      ]
    : []),
  ...(endings.has('glue') ? ['Lijm: lucht de ruimte en volg de aanwijzingen op de verpakking.'] : []),
  ...(hasStone
    ? [
        'Oude of onbekende stenen en kralen kunnen lood of cadmium bevatten: ken de plaatselijke voorschriften voordat u verkoopt of met kinderen werkt.',
      ]
    : []),
  ...(hasFindings
    ? [
        'Metalen onderdelen: sommige mensen verdragen nikkel of andere metalen niet op de huid. Houd magneten weg van medische apparaten.',
      ]
    : []),
]

export const tools = (needle: number, endings: Endings): string[] => [
  `een naald nr. ${needle}`,
  'een kleine scherpe schaar',
  'een kralenmat',
  'een liniaal',
  ...(endings.has('melt') ? ['een draadbrander'] : []),
  ...(endings.has('glue') ? ['sieradenlijm'] : []),
]

export const marks = [
  '«Uitstekend»: een kraal van de laatste ronde die hoger zit dan haar buren.',
  '«Opstappen»: door de eerste kraal of groep van de zojuist gemaakte ronde gaan, zodat de volgende kan beginnen.',
  'Kralen van iets dat een naam heeft, tellen in de volgorde waarin ze zijn opgenomen.',
  'Een mindering is een steek waarbij niets wordt opgenomen: verder gaan en aantrekken.',
  'Letters staan voor de kralen van de materiaallijst; een getal ervoor zegt hoeveel er worden opgenomen.',
]

export const wear = [
  'Doe het als laatste om en als eerste af; houd het weg van water, parfum en fel licht.',
  'Bewaar het plat en bekijk sluiting, lussen en randen af en toe: vervang een versleten draad voordat hij breekt.',
]
