/** How each technique is worked, in Dutch. */
import type { Language } from '../language'

export const techniques: Language['techniques'] = {
  ring: {
    title: 'Een ring',
    text: 'De kralen aanrijgen, naar het draadeinde schuiven en tot een ring sluiten zoals de stap zegt. Aantrekken tot er tussen de kralen geen draad meer te zien is en er geen op haar kant staat.',
  },
  round: {
    title: 'Een peyote-ronde',
    text: 'Eén kraal opnemen, er één overslaan en door de volgende gaan, die uitsteekt. Elke nieuwe kraal vult een gat van de ronde ervoor. Waar de stap zegt op te stappen, nog door de eerste kraal van deze ronde gaan, dan kan de volgende beginnen.',
  },
  row: {
    title: 'Een peyote-rij',
    text: 'Als een ronde, maar heen en weer. Aan het eind van de rij keren, zodat de draad in de andere richting uit de laatst opgenomen kraal komt.',
  },
  drop: {
    title: 'Meer kralen per steek',
    text: 'Op dezelfde manier, maar elke steek neemt twee of meer kralen op. Ze liggen naast elkaar in een even breed gat: door de kralen die samen uitsteken gaan alsof het er één is.',
  },
  decrease: {
    title: 'Een mindering',
    text: 'Waar een steek niets opneemt, meteen door de volgende uitstekende kraal gaan en aantrekken. Het gat sluit zich en het werk wordt nauwer.',
  },
  increase: {
    title: 'Een meerdering',
    text: 'Waar een steek voor één gat twee kralen opneemt, moeten ze naast elkaar liggen. In de volgende ronde komt er een kraal tussen en het werk wordt wijder.',
  },
  netting: {
    title: 'Netsteek',
    text: 'Meer kralen tegelijk opnemen en door een kraal verderop gaan, zodat daartussen een boog hangt. Alle bogen even vast aantrekken.',
  },
  square: {
    title: 'Vierkantsteek',
    text: 'Een kraal opnemen, in dezelfde richting als eerder nogmaals door de kraal eronder gaan, en nogmaals door de nieuwe. Elke kraal zit recht boven de andere.',
  },
  unit: {
    title: 'Eenheden in rechte hoek',
    text: 'Elke eenheid is een kleine ring. Haar kralen opnemen, nogmaals door de kraal gaan die ze met de eenheid ervoor deelt, en verder tot de kraal waar de volgende begint. De draad loopt langs de kralen en nooit dwars over.',
  },
  stand: {
    title: 'Staande kralen',
    text: 'Een kraal opnemen, de draad tussen twee kralen van de rij eronder pakken (of om de steen gaan) en door de nieuwe kraal terug naar boven. Ze staat rechtop naast haar buur.',
  },
  loop: {
    title: 'Een lus',
    text: 'Haar kralen opnemen en in dezelfde richting nogmaals door de kraal gaan waar de draad uit kwam. De lus staat boven die kraal.',
  },
  fringe: {
    title: 'Een franje',
    text: 'De franje opnemen, haar laatste kraal of kralen overslaan en door alle andere teruggaan. De eindkralen houden haar vast: ze omhoog schuiven voor het aantrekken.',
  },
}
