/** What each route takes and answers: what the server checks, and what docs/api.md and /api/openapi.json are made from. */

import { z } from 'zod'
import { auditPage, auditWanted } from './audit'
import {
  batch,
  batchSummary,
  changeBatch,
  changedBatch,
  changeLines,
  competing,
  couldMake,
  newBatch,
  outlook,
  outlookWanted,
  substituteInLine,
} from './batches'
import {
  askQuotes,
  buyLine,
  buyWanted,
  newLot,
  newPurchase,
  purchase,
  quote,
  receivePurchase,
  takePrices,
} from './buying'
import { bookSeat, classAnswer, classSummary, saveClass, walkPlace } from './classes'
import { colourway, saveColourway } from './colourways'
import { found, labelsWanted, playStandIn, printLabels } from './devices'
import { batchPrice, bench, costSettings, diary, diaryWanted } from './diary'
import { documentWanted, edition, editionWanted } from './editions'
import { newsWanted } from './news'
import { order, saveOrder, sizedOrder, sizeOrder } from './orders'
import { emptyBag, fillBag, loseBeads, packing, returnKit, swapLot } from './packing'
import { patternFile } from './pattern-file'
import { carrier, newPattern, pattern, patternSummary, saveDraft, saveVersion, versionText } from './patterns'
import { me, person, signIn } from './people'
import { acceptSubstitutes, rescue } from './rescue'
import type { RouteKey } from './rights'
import { newSample, samples } from './samples'
import {
  changeLot,
  handMove,
  item,
  itemStory,
  movesPage,
  reverseMove,
  saveItem,
  shelfPage,
  shelfWanted,
  transferLot,
  weighLot,
} from './stock'
import { stockFileOutcome, stockFileWanted } from './stock-file'
import { beginStocktake, countLot, placeSummary, stocktake, stocktakeSummary } from './stocktake'
import { saveWords, stepWords } from './words'
import { workState } from './work'

export interface Described {
  readonly what: string
  /** Of the request. */
  readonly body?: z.ZodType
  readonly query?: z.ZodType
  /** JSON by its schema; or a file, or a stream of events. */
  readonly answer: z.ZodType | 'file' | 'pdf' | 'stream'
  /** The body is a file as it is. */
  readonly bytes?: true
}

const ok = z.object({ ok: z.boolean() })
const some = z.looseObject({})
const list = <T extends z.ZodType>(of: T) => z.array(of)

export const api = {
  'GET /api/health': { what: 'Whether the shop and its records answer', answer: ok },
  'POST /api/sign-in': { what: "Sign in; the answer's token goes along with every change", body: signIn, answer: some },
  'GET /api/me': { what: 'Who is signed in, and the token for changes', answer: me },
  'POST /api/sign-out': { what: 'Sign out', answer: ok },
  'GET /api/changes': {
    what: 'What has changed, as server-sent events: a subject each; and what devices say, as events of their own',
    query: newsWanted,
    answer: 'stream',
  },
  'GET /api/work': { what: 'How far what the asker waits for has come', answer: workState },
  'GET /api/people': { what: 'Who may sign in, and who is signed in', answer: list(person) },
  'POST /api/people/:id/disable': {
    what: 'End their sessions, and let them in no more',
    answer: z.object({ id: z.number() }),
  },
  'POST /api/people/:id/enable': { what: 'Let them sign in again', answer: z.object({ id: z.number() }) },
  'GET /api/patterns': { what: 'All patterns', answer: list(patternSummary) },
  'POST /api/patterns': { what: 'Begin a pattern, or take one in from a file', body: newPattern, answer: pattern },
  'GET /api/patterns/:id': { what: 'A pattern: its draft and its versions', answer: pattern },
  'GET /api/patterns/:id/drawing': { what: 'The draft drawn from the front, as the shop has it', answer: some },
  'PUT /api/patterns/:id/draft': {
    what: 'Save the draft on top of the revision it was read at',
    body: saveDraft,
    answer: pattern,
  },
  'POST /api/patterns/:id/versions': {
    what: 'Keep a version, publish it, or correct another',
    body: saveVersion,
    answer: pattern,
  },
  'GET /api/patterns/:id/versions/:number': { what: "A version's text", answer: versionText },
  'GET /api/patterns/:id/versions/:number/carriers': { what: 'Batches that carry a version', answer: list(carrier) },
  'GET /api/patterns/:id/words': { what: "The designer's own words", answer: list(stepWords) },
  'PUT /api/patterns/:id/words': { what: 'Save own words for a step', body: saveWords, answer: list(stepWords) },
  'GET /api/patterns/:id/edition': {
    what: 'Everything an edition is written from',
    query: editionWanted,
    answer: edition,
  },
  'GET /api/patterns/:id/document.pdf': { what: 'The written pattern', query: documentWanted, answer: 'pdf' },
  'GET /api/patterns/:id/pattern.json': { what: 'The pattern as a file', answer: patternFile },
  'GET /api/patterns/:id/samples': { what: 'Logged samples and what they say of thread and time', answer: samples },
  'POST /api/patterns/:id/samples': { what: 'Log a sample', body: newSample, answer: samples },
  'GET /api/patterns/:id/colourways': { what: 'Its colourways', answer: list(colourway) },
  'POST /api/patterns/:id/colourways': { what: 'Begin a colourway', body: saveColourway, answer: colourway },
  'PUT /api/colourways/:id': { what: "Keep a colourway's next version", body: saveColourway, answer: colourway },
  'GET /api/colourways/:id/versions/:number': { what: 'A colourway as it stood', answer: colourway },
  'GET /api/items': { what: 'Every item with what is on it', answer: list(item) },
  'GET /api/shelf': { what: 'The shelf, page by page', query: shelfWanted, answer: shelfPage },
  'GET /api/stock/file': { what: 'The shelf as a file', query: stockFileWanted, answer: 'file' },
  'POST /api/stock/file/preview': { what: 'What a file would do', bytes: true, answer: stockFileOutcome },
  'POST /api/stock/file': { what: 'Take a file in, all or nothing', bytes: true, answer: stockFileOutcome },
  'POST /api/items': { what: 'Begin an item', body: saveItem, answer: itemStory },
  'PUT /api/items/:id': { what: 'Change an item', body: saveItem, answer: itemStory },
  'GET /api/items/:id': { what: "An item's lots, moves, promises and orders", answer: itemStory },
  'GET /api/items/:id/moves': { what: 'Moves before a move', answer: movesPage },
  'GET /api/items/:id/rescue': { what: 'The best way out for all drafts that take an item', answer: rescue },
  'PUT /api/items/:id/packs': { what: "Take over a supplier's prices", body: takePrices, answer: z.unknown() },
  'POST /api/items/:id/lots': { what: 'Receive a lot', body: newLot, answer: z.unknown() },
  'POST /api/lots/:id/moves': { what: 'Post a move by hand', body: handMove, answer: z.unknown() },
  'POST /api/lots/:id/transfer': {
    what: 'Move a lot, or part of it, to another place',
    body: transferLot,
    answer: z.unknown(),
  },
  'POST /api/lots/:id/weighing': { what: 'Weigh beads of a lot', body: weighLot, answer: z.unknown() },
  'POST /api/lots/:id/label': { what: "Print a lot's label", answer: z.unknown() },
  'PUT /api/lots/:id': { what: "Change a lot's supplier and cost", body: changeLot, answer: z.unknown() },
  'POST /api/moves/:id/reverse': { what: 'Take a move back by another', body: reverseMove, answer: z.unknown() },
  'GET /api/places': { what: 'Places with lots in them', answer: list(placeSummary) },
  'GET /api/stocktakes': { what: 'Counts of places', answer: list(stocktakeSummary) },
  'POST /api/stocktakes': { what: 'Freeze a place', body: beginStocktake, answer: stocktake },
  'GET /api/stocktakes/:id': { what: 'A count', answer: stocktake },
  'PUT /api/stocktakes/:id/lots/:lotId': { what: 'What is in a tube', body: countLot, answer: stocktake },
  'POST /api/stocktakes/:id/post': { what: 'Post what differs', answer: stocktake },
  'POST /api/stocktakes/:id/abandon': { what: 'Leave a count', answer: stocktake },
  'GET /api/buy-list': { what: 'What must be bought, by when', query: buyWanted, answer: list(buyLine) },
  'GET /api/buy-list/file': { what: 'The same as a file', query: stockFileWanted, answer: 'file' },
  'GET /api/purchases': { what: 'What is on its way', answer: list(purchase) },
  'POST /api/purchases': { what: 'Order something', body: newPurchase, answer: z.unknown() },
  'POST /api/purchases/:id/receive': { what: 'It came', body: receivePurchase, answer: z.unknown() },
  'POST /api/purchases/:id/cancel': { what: 'Call an order off', answer: z.unknown() },
  'POST /api/quotes': { what: 'What suppliers ask today', body: askQuotes, answer: list(quote) },
  'GET /api/batches': { what: 'All batches', answer: list(batchSummary) },
  'GET /api/batches/competing': { what: 'How far the shelf goes for each draft in its turn', answer: competing },
  'POST /api/batches': { what: 'Plan a batch', body: newBatch, answer: batch },
  'POST /api/batches/outlook': {
    what: 'What lines would take and what the shelf allows',
    body: outlookWanted,
    answer: outlook,
  },
  'POST /api/batches/could-make': { what: 'How many could be made', body: changeLines, answer: couldMake },
  'GET /api/batches/:id': { what: 'A batch', answer: batch },
  'GET /api/batches/:id/file': { what: 'Its bill as a file', query: stockFileWanted, answer: 'file' },
  'GET /api/batches/:id/price': { what: 'What its kits cost', answer: batchPrice },
  'PUT /api/batches/:id': { what: 'When it is due, and its turn', body: changeBatch, answer: batch },
  'PUT /api/batches/:id/lines': {
    what: 'Other lines, whether it holds anything or not',
    body: changeLines,
    answer: changedBatch,
  },
  'POST /api/batches/:id/lines/:line/substitute': {
    what: 'Another bead in a line',
    body: substituteInLine,
    answer: changedBatch,
  },
  'POST /api/batches/:id/substitutes': {
    what: 'Stand-ins for some of its kits',
    body: acceptSubstitutes,
    answer: changedBatch,
  },
  'POST /api/batches/:id/reserve': { what: 'Promise it everything, or nothing', answer: batch },
  'POST /api/batches/:id/release': { what: 'Give back what it holds', answer: batch },
  'POST /api/batches/:id/plan-again': { what: 'Plan one again that was called off', answer: batch },
  'POST /api/batches/:id/cancel': { what: 'Call it off', answer: batch },
  'POST /api/batches/:id/lay-out': { what: 'Lay bags out anew', answer: batch },
  'GET /api/batches/:id/packing': { what: 'Its bags', answer: packing },
  'PUT /api/batches/:id/bags': { what: 'Fill a bag', body: fillBag, answer: packing },
  'POST /api/batches/:id/bags/empty': { what: 'Empty a bag', body: emptyBag, answer: packing },
  'POST /api/batches/:id/losses': { what: 'Beads spilt or missing', body: loseBeads, answer: packing },
  'POST /api/batches/:id/swaps': { what: 'Another lot', body: swapLot, answer: packing },
  'POST /api/batches/:id/returns': { what: 'What came back of a kit', body: returnKit, answer: packing },
  'POST /api/batches/:id/close': { what: 'Issue what was used', answer: packing },
  'GET /api/batches/:id/labels.pdf': { what: 'Labels as sheets', query: labelsWanted, answer: 'pdf' },
  'POST /api/batches/:id/labels': { what: 'Print labels', body: printLabels, answer: z.unknown() },
  'GET /api/classes': { what: 'Classes', answer: list(classSummary) },
  'POST /api/classes': { what: 'Offer a class', body: saveClass, answer: classAnswer },
  'GET /api/teachers': { what: 'Who can teach', answer: z.unknown() },
  'GET /api/classes/:id': { what: 'A class', answer: classAnswer },
  'PUT /api/classes/:id': { what: 'Change a class', body: saveClass, answer: classAnswer },
  'PUT /api/classes/:id/seats/:seat': {
    what: 'Take a seat, or change who has it',
    body: bookSeat,
    answer: classAnswer,
  },
  'POST /api/classes/:id/seats/:seat/free': { what: 'Free a seat', answer: classAnswer },
  'POST /api/classes/:id/kits': { what: 'Plan its kits, or bring its batch up to the bookings', answer: z.unknown() },
  'POST /api/classes/:id/taught': { what: 'It was taught', answer: classAnswer },
  'POST /api/classes/:id/cancel': { what: 'Call it off', answer: classAnswer },
  'POST /api/classes/:id/reopen': { what: 'Not taught or called off after all, within a day', answer: classAnswer },
  'PUT /api/classes/:id/walk': { what: 'Where the class stands in the walk', body: walkPlace, answer: z.unknown() },
  'GET /api/classes/:id/labels.pdf': { what: 'Labels for its seats', answer: 'pdf' },
  'GET /api/orders': { what: 'Orders', answer: list(order) },
  'POST /api/orders': { what: 'Take an order', body: saveOrder, answer: list(order) },
  'PUT /api/orders/:id': { what: 'Change an order', body: saveOrder, answer: list(order) },
  'POST /api/orders/size': { what: 'How a pattern is made to a measure', body: sizeOrder, answer: sizedOrder },
  'POST /api/orders/:id/kits': { what: 'Plan its kit', answer: list(order) },
  'POST /api/orders/:id/done': { what: 'Handed over', answer: list(order) },
  'POST /api/orders/:id/reopen': {
    what: 'Not handed over or called off after all, within a day',
    answer: list(order),
  },
  'POST /api/orders/:id/cancel': { what: 'Call it off', answer: list(order) },
  'GET /api/diary': { what: 'Promises, day by day', query: diaryWanted, answer: diary },
  'GET /api/diary.ics': { what: 'The same as a calendar', query: diaryWanted, answer: 'file' },
  'GET /api/bench': { what: 'What is to be done next', answer: bench },
  'GET /api/costs': { what: 'How costs are reckoned', answer: costSettings },
  'PUT /api/costs': { what: 'Reckon them otherwise', body: costSettings, answer: costSettings },
  'GET /api/audit': { what: 'What was done', query: auditWanted, answer: auditPage },
  'GET /api/archive': { what: 'The whole shop as a ZIP', answer: 'file' },
  'GET /api/openapi.json': { what: 'This document', answer: z.unknown() },
  'POST /api/scale/zero': { what: 'Set the scale to nought', answer: ok },
  'GET /api/codes/:code': { what: 'What a code stands for', answer: found },
  'GET /api/stand-ins': { what: 'What stands in for devices here', answer: z.unknown() },
  'POST /api/stand-ins/:name': { what: 'Play a stand-in', body: playStandIn, answer: z.unknown() },
} as const satisfies Record<RouteKey, Described>
