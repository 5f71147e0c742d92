/** A written pattern as HTML: a body that a page can show as it is, and a page of its own that needs nothing else. */
import { capital } from './language'
import { languages } from './languages'
import {
  type Density,
  type DocumentStyle,
  drawnLines,
  maxTicks,
  type Seat,
  type Sheet,
  sheetHas,
  textScale,
  ticked,
  usualDocumentStyle,
} from './layout'
import type { ShownPicture } from './pictures'
import type { TechniqueName } from './techniques'
import { type MaterialRow, type Step, stepsForContents, type WrittenPattern } from './written-pattern'

export interface Setting {
  readonly sheet: Sheet
  /** Drawings as SVG: of the piece, and of steps by their line; none where the piece has no form. */
  readonly drawings?:
    | {
        readonly piece: string
        readonly steps: Readonly<Record<number, { readonly svg: string; readonly behind: boolean }>>
        readonly techniques: Readonly<Partial<Record<TechniqueName, string>>>
      }
    | undefined
  readonly seat?: Seat | undefined
  /** Of every step when absent. */
  readonly density?: Density | undefined
  readonly style?: DocumentStyle | undefined
  /** Where the shop's logo is found. */
  readonly logo?: string | undefined
  /** By its number, where a picture is found; what is not here is left out. */
  readonly pictures?: Readonly<Record<number, string>> | undefined
}

const plain: Setting = { sheet: 'sale' }

/** The `<article>`. Everything a person has typed is escaped. */
export function htmlBody(written: WrittenPattern, setting: Setting = plain): string {
  const { words, language } = written
  const has = sheetHas[setting.sheet]
  const { seat, style = usualDocumentStyle } = setting
  const steps = written.parts.reduce((sum, part) => sum + part.steps.length, 0)
  return [
    `<article class="written ${setting.sheet}" lang="${language}" style="--headings:${escaped(style.headings)};--text:${textScale[style.textSize]}">`,
    written.draft ? `<p class="draft-mark">${escaped(words.draftMark)}</p>` : '',
    seat
      ? `<p class="seat">${escaped(words.seat)}: <b>${escaped(seat.name)}</b>${seat.chosen ? ` &middot; ${escaped(seat.chosen)}` : ''}</p>`
      : '',
    has.booklet ? cover(written, setting) : head(written, setting),
    heading(words.materials),
    materials(written),
    ...(has.booklet ? threadAndTools(written, setting) : []),
    ...(has.tables ? tables(written) : []),
    ...(has.care
      ? [heading(words.takeCare), ...written.cautions.map((caution) => `<p class="caution">${escaped(caution)}</p>`)]
      : []),
    ...(has.booklet ? techniques(written, setting) : []),
    ...(has.sentences ? [heading(words.wordsUsed), ...written.marks.map((mark) => `<p>${escaped(mark)}</p>`)] : []),
    ...(has.sentences && steps >= stepsForContents && written.parts.length > 1 ? [contents(written)] : []),
    ...written.parts.map((part, i) => partOf(part, i, written, setting)),
    ...(has.care ? morePictures(written, setting) : []),
    written.totals ? `<p class="totals"><b>${escaped(languages[language].inOnePiece(written.totals))}</b></p>` : '',
    has.booklet ? ticks(written) : '',
    ...(has.care ? [heading(words.wear), ...written.wear.map((line) => `<p>${escaped(line)}</p>`)] : []),
    ...(written.errata.length > 0
      ? [heading(words.errata), ...written.errata.map((line) => `<p>${escaped(line)}</p>`)]
      : []),
    has.care && written.shop.length > 0
      ? `<footer class="shop">${has.booklet ? heading(words.fromTheShop) : ''}${logoOf(setting)}${written.shop.map((line) => `<p>${escaped(line)}</p>`).join('')}</footer>`
      : '',
    '</article>',
  ]
    .filter(Boolean)
    .join('\n')
}

const facts = ({ facts }: WrittenPattern) => `<p class="quiet">${facts.map(escaped).join(' &middot; ')}</p>`
const effort = ({ effort }: WrittenPattern) => `<p class="quiet">${effort.map(escaped).map(capital).join('. ')}.</p>`

/** A page of its own: what it will be, and what it takes of whoever makes it. */
function cover(written: WrittenPattern, setting: Setting): string {
  const picture = pictureOf(written.pictures.finished[0], written, setting)
  const drawing = setting.drawings ? `<div class="drawing">${setting.drawings.piece}</div>` : ''
  const [shop] = written.shop
  return `<section class="cover"><h1>${escaped(written.title)}</h1>${facts(written)}${picture || drawing}${effort(written)}${logoOf(setting)}${shop ? `<p class="from">${escaped(shop)}</p>` : ''}</section>`
}

/** Its name stands beside it. */
const logoOf = ({ logo }: Setting) => (logo ? `<img class="logo" src="${escaped(logo)}" alt="">` : '')

function threadAndTools(written: WrittenPattern, { drawings, pictures }: Setting): string[] {
  const shown = written.pictures.finished[0] && pictures?.[written.pictures.finished[0].id]
  return [
    '<div class="head"><div>',
    ...thread(written),
    ...tools(written),
    '</div>',
    // What has no picture has its drawing on the cover.
    drawings && shown ? `<div class="drawing">${drawings.piece}</div>` : '',
    '</div>',
  ]
}

const thread = ({ words, thread }: WrittenPattern) => [
  heading(words.thread),
  ...thread.map((line) => `<p class="thread">${escaped(line)}</p>`),
]

const tools = ({ words, tools, language }: WrittenPattern) => [
  heading(words.tools),
  `<p>${escaped(capital(languages[language].list(tools)))}.</p>`,
]

/** The first lines of a sheet without a cover. */
function head(written: WrittenPattern, { sheet, drawings }: Setting): string {
  const has = sheetHas[sheet]
  return [
    '<div class="head"><div>',
    `<h1>${escaped(written.title)}</h1>`,
    facts(written),
    has.sentences ? effort(written) : '',
    ...thread(written),
    ...(has.sentences ? tools(written) : []),
    '</div>',
    drawings ? `<div class="drawing">${drawings.piece}</div>` : '',
    '</div>',
  ].join('\n')
}

/** Each once, on a small piece of its own. */
function techniques({ words, techniques }: WrittenPattern, { drawings }: Setting): string[] {
  if (techniques.length === 0) return []
  const shown = techniques.map(({ name, title, text }) => {
    const svg = drawings?.techniques[name]
    return `<li>${svg ? `<figure>${svg}</figure>` : ''}<div><b>${escaped(title)}</b><p>${escaped(text)}</p></div></li>`
  })
  return [`<section class="techniques">${heading(words.techniques)}<ul>${shown.join('\n')}</ul></section>`]
}

/** A box for each time that a step is done. */
function ticks({ words, parts }: WrittenPattern): string {
  const steps = ticked(parts)
  if (steps.length < 2) return ''
  const row = ({ number, added, times }: Step) =>
    `<tr><td><b>${number}</b></td>${cell(added)}<td class="boxes">${times > maxTicks ? `<i></i> ${times} x` : '<i></i>'.repeat(times)}</td></tr>`
  return `<section class="ticks">${heading(words.tickOff)}<table><thead><tr>${cell(words.step, 'th')}${cell(words.count, 'th')}<th></th></tr></thead><tbody>
${steps.map(row).join('\n')}
</tbody></table></section>`
}

const heading = (text: string) => `<h2>${escaped(text)}</h2>`
const cell = (text: string | number, tag: 'td' | 'th' = 'td', name = '') =>
  `<${tag}${name ? ` class="${name}"` : ''}${tag === 'th' ? ' scope="col"' : ''}>${escaped(String(text))}</${tag}>`

function materials({ materials: rows, words }: WrittenPattern): string {
  const row = ({ roles, name, colour, exact, inKit, weight }: MaterialRow) =>
    `<tr><td class="roles">${swatch(colour)}<b>${escaped(roles)}</b></td>${cell(name)}${cell(exact, 'td', 'exact')}${cell(weight)}${cell(inKit, 'td', 'kit')}</tr>`
  return `<table class="materials"><thead><tr><th scope="col"><span class="hidden">${escaped(words.colours)}</span></th>${cell(words.item, 'th')}${cell(words.exact, 'th')}${cell(words.weight, 'th')}${cell(words.inKit, 'th')}</tr></thead><tbody>
${rows.map(row).join('\n')}
</tbody></table>`
}

const swatch = (colour: string | undefined) =>
  colour === undefined
    ? ''
    : `<svg class="swatch" width="13" height="13" aria-hidden="true"><rect x="0.5" y="0.5" width="12" height="12" rx="3" fill="${escaped(colour)}" stroke="#22302b"/></svg>`

function tables({ words, sizes, roles, colourways, makers }: WrittenPattern): string[] {
  const sizeTable =
    sizes.length === 0
      ? []
      : [
          heading(words.sizes),
          `<table class="sizes"><thead><tr>${[words.size, ...roles, words.thread, words.finished, words.ring].map((each) => cell(each, 'th')).join('')}</tr></thead><tbody>
${sizes.map((row) => `<tr>${cell(row.name)}${row.counts.map((count) => cell(count)).join('')}${cell(row.thread)}${cell(row.finished)}${cell(row.ring)}</tr>`).join('\n')}
</tbody></table>`,
        ]
  const colourwayTable =
    colourways.length === 0
      ? []
      : [
          heading(words.colourways),
          `<table class="colourways"><tbody>
${colourways
  .map(
    ({ name, choices }) =>
      `<tr><th scope="row">${escaped(name)}</th><td>${choices.map((choice) => `<div>${swatch(choice.colour)}<b>${escaped(choice.roles)}</b> ${escaped(choice.name)}</div>`).join('')}</td></tr>`,
  )
  .join('\n')}
</tbody></table>`,
        ]
  const makerList =
    makers.length === 0
      ? []
      : [heading(words.makers), `<ul>${makers.map((line) => `<li>${escaped(line)}</li>`).join('\n')}</ul>`]
  return [...sizeTable, ...colourwayTable, ...makerList]
}

function contents({ words, parts }: WrittenPattern): string {
  const line = ({ name, steps }: WrittenPattern['parts'][number], i: number) =>
    `<li><a href="#part-${i + 1}">${escaped(capital(name || words.steps))}</a> <span class="quiet">${steps[0]?.number ?? ''}&ndash;${steps[steps.length - 1]?.number ?? ''}</span></li>`
  return `${heading(words.contents)}<ol class="contents">${parts.map(line).join('')}</ol>`
}

function partOf(part: WrittenPattern['parts'][number], i: number, written: WrittenPattern, setting: Setting): string {
  const { words } = written
  const title = `<h2 id="part-${i + 1}">${escaped(capital(part.name || words.steps))}</h2>`
  if (!sheetHas[setting.sheet].sentences) {
    const row = (step: Step) =>
      `<tr>${cell(step.number)}<td><code>${escaped(step.key.text)}</code></td>${cell(step.added, 'td', 'added')}${cell(step.running, 'td', 'running')}</tr>`
    return `${title}<table class="card-steps"><thead><tr><th></th>${cell(words.notation, 'th')}${cell(words.count, 'th')}${cell(words.soFar, 'th')}</tr></thead><tbody>${part.steps.map(row).join('\n')}</tbody></table>`
  }
  const drawn = setting.drawings?.steps ?? {}
  const shown = drawnLines([part], (line) => line in drawn, setting.density ?? 'step')
  return `${title}<ol class="steps">
${part.steps.map((step) => stepOf(step, written, setting, shown)).join('\n')}
</ol>`
}

/** Nothing where the picture cannot be found. */
function pictureOf(picture: ShownPicture | undefined, { words }: WrittenPattern, { pictures }: Setting): string {
  const found = picture && pictures?.[picture.id]
  if (!found) return ''
  const { kind, caption, width, height } = picture
  const said = caption || { finished: words.finishedPiece, step: words.thisStep, fault: words.notLikeThis }[kind]
  const told = kind === 'fault' && caption ? `${words.notLikeThis}: ${caption}` : kind === 'fault' ? said : caption
  return `<figure class="picture ${kind}"><img src="${escaped(found)}" alt="${escaped(said)}" width="${width}" height="${height}">${told ? `<figcaption>${escaped(told)}</figcaption>` : ''}</figure>`
}

/** Of the finished piece beside the cover, and what can go wrong anywhere. */
function morePictures(written: WrittenPattern, setting: Setting): string[] {
  const { finished, faults } = written.pictures
  const row = (pictures: readonly ShownPicture[]) =>
    pictures.map((each) => pictureOf(each, written, setting)).filter(Boolean)
  const [more, avoided] = [row(finished.slice(1)), row(faults)]
  return [
    ...(more.length > 0 ? [heading(written.words.finishedPiece), `<div class="pictures">${more.join('')}</div>`] : []),
    ...(avoided.length > 0
      ? [heading(written.words.faultsToAvoid), `<div class="pictures">${avoided.join('')}</div>`]
      : []),
  ]
}

function stepOf(step: Step, written: WrittenPattern, setting: Setting, shown: ReadonlySet<number>): string {
  const { words, language } = written
  const drawing = shown.has(step.line) ? setting.drawings?.steps[step.line] : undefined
  const pictures = step.pictures.map((each) => pictureOf(each, written, setting)).filter(Boolean)
  const counts = step.added
    ? `<div class="counts"><span class="added" data-added="${escaped(step.added)}" data-running="${escaped(step.running)}">${escaped(languages[language].picked(step.added, step.running))}</span></div>`
    : ''
  const also = step.also ? `<p class="also">${paragraphs(step.also)}</p>` : ''
  const looks = step.looks ? `<p class="looks">${escaped(step.looks)}</p>` : ''
  const drawn = drawing
    ? `<figure>${drawing.svg}${drawing.behind ? `<figcaption>${escaped(words.fromBehind)}</figcaption>` : ''}</figure>`
    : ''
  return `<li class="${step.kind}" value="${step.number}" id="step-${step.number}"><b class="number">${step.number}</b><div>${step.kind === 'check' ? `<b>${escaped(words.check)}</b> ` : ''}${step.begins ? `<p class="begins">${escaped(step.begins)}</p>` : ''}${paragraphs(step.text)}${also}${looks}${counts}${pictures.length > 0 ? `<div class="pictures">${pictures.join('')}</div>` : ''}</div>${drawn}</li>`
}

/** Lines that a designer has broken stay broken. */
const paragraphs = (text: string) => escaped(text).replace(/\n/g, '<br>')

/** A page of its own. */
export function toHtml(written: WrittenPattern, setting: Setting = plain): string {
  return `<!doctype html>
<html lang="${written.language === 'en' ? 'en-GB' : written.language}">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(written.title)}</title>
<style>body{margin:0;background:#fff}${pageStyle}</style>
${htmlBody(written, setting)}
</html>
`
}

/** How a written pattern looks, on a screen and printed. */
export const pageStyle = `
.written{font:calc(16px*var(--text,1))/1.5 "Source Sans 3 Variable","Source Sans 3",system-ui,sans-serif;color:#22302b;background:#fff;max-width:900px;margin:0 auto;padding:36px 48px;box-sizing:border-box;font-variant-numeric:tabular-nums}
.written.class{font-size:calc(19px*var(--text,1))}.written.large{font-size:calc(23px*var(--text,1))}.written.card{font-size:calc(14px*var(--text,1));line-height:1.35}
.written h1{font:600 1.9em/1.15 Fraunces,Georgia,serif;margin:0 0 .2em;color:var(--headings,#22302b)}
.written h2{font:600 1.15em/1.25 Fraunces,Georgia,serif;margin:1.1em 0 .35em;break-after:avoid;color:var(--headings,#22302b)}
.written p{margin:.15em 0}.written .quiet{color:#56635c}
.written .head{display:grid;grid-template-columns:minmax(0,1fr) 240px;gap:24px}.written.card .head{grid-template-columns:minmax(0,1fr) 130px}
.written .drawing svg{width:100%;height:240px}.written.card .drawing svg{height:130px}
.written .draft-mark{color:#9a3f2b;font-weight:600;text-align:right}
.written .seat{font-size:1.15em;border:1.5px solid #22302b;border-radius:8px;padding:.35em .7em;margin-bottom:.8em}
.written table{border-collapse:collapse;width:100%}
.written th,.written td{border-bottom:1px solid #d9d1be;padding:.28em .6em .28em 0;text-align:left;vertical-align:baseline}
.written .roles,.written .exact,.written .kit,.written .sizes td{white-space:nowrap}
.written .swatch{display:inline-block;margin-right:6px;vertical-align:-2px}
.written .hidden{position:absolute;clip-path:inset(50%);width:1px;height:1px;overflow:hidden}
.written .caution{border:1px solid #9a3f2b;border-radius:6px;padding:.3em .6em;margin:.3em 0;break-inside:avoid}
.written .steps{list-style:none;margin:0;padding:0}
.written .steps>li{display:grid;grid-template-columns:2.2em minmax(0,1fr) 130px;gap:.8em;padding:.45em 0;border-bottom:1px solid #eee7d8;break-inside:avoid}
.written.class .steps>li{border:1.5px solid #d9d1be;border-radius:8px;padding:.7em;margin:.6em 0;grid-template-columns:2.2em minmax(0,1fr) 220px}
.written .steps>li:not(:has(>figure)){grid-template-columns:2.2em minmax(0,1fr)}
.written .steps .number{text-align:right}
.written .steps>li.check>div{border-left:3px solid #a9772b;padding-left:.6em}
.written .counts{color:#56635c;font-size:.92em}
.written .also{font-style:italic}
.written .begins{margin:0}
.written .looks{margin:.15em 0;color:#4a5a52}
.written .cover{text-align:center;margin-bottom:2em}.written .cover h1{font-size:2.7em;margin-bottom:.25em}
.written .cover .picture{margin:1.2em 0}.written .cover img{width:100%;height:auto;max-height:560px;object-fit:cover;border-radius:8px}
.written .cover .drawing svg{height:420px;margin:1.2em 0}.written .from{margin-top:1.2em;font:600 1.1em/1.3 Fraunces,Georgia,serif}
.written .logo{max-width:200px;max-height:80px}
.written .techniques ul{list-style:none;margin:0;padding:0;display:grid;grid-template-columns:repeat(auto-fill,minmax(330px,1fr));gap:1em 1.6em}
.written .techniques li{display:grid;grid-template-columns:110px minmax(0,1fr);gap:.8em;break-inside:avoid}
.written .techniques figure svg{height:110px}
.written .ticks .boxes i{display:inline-block;width:.85em;height:.85em;border:1.5px solid #22302b;border-radius:2px;margin-right:.35em;vertical-align:-.1em}
.written .ticks tr{break-inside:avoid}
.written .pictures{display:grid;grid-template-columns:repeat(auto-fill,minmax(180px,1fr));gap:12px;margin:.5em 0}
.written .picture img{display:block;width:100%;height:auto;border-radius:6px}.written .picture{break-inside:avoid}
.written .picture.fault img{border:2px solid #9a3f2b}.written .picture.fault figcaption{color:#9a3f2b}
.written figure{margin:0}.written figure svg{width:100%;height:120px}.written.class figure svg{height:200px}
.written figcaption{text-align:center;color:#56635c;font-size:.85em}
.written .shop{margin-top:1.6em;border-top:1px solid #d9d1be;padding-top:.6em;color:#56635c;break-inside:avoid}
.written .contents{columns:2}.written code{font:.95em ui-monospace,monospace}
@media (max-width:700px){.written{padding:18px}.written .head{grid-template-columns:1fr}.written .steps>li,.written.class .steps>li{grid-template-columns:2.2em minmax(0,1fr)}.written figure{grid-column:2}.written table{display:block;overflow-x:auto}}
@media print{.written .cover{break-after:page}.written .techniques,.written .ticks{break-before:page}.written{max-width:none;padding:0}.written .draft-mark{position:fixed;top:0;right:0;margin:0}}
`

const escaped = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
