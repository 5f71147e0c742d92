/** Every route there is: who may, what it takes and what it answers. The server mounts from it, the pages call by it, OpenAPI is printed from it. */

import { isView, type View } from '@tessellum/core/drawing/view'
import { auditPage, auditWanted } from './audit'
import {
  batch,
  changeBatch,
  changedBatch,
  changeLines,
  changePlan,
  competing,
  couldMake,
  listedBatch,
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
import { newsWanted } from './changes'
import {
  bookSeat,
  classAnswer,
  classMove,
  classMoveWanted,
  classSummary,
  classWithBags,
  markSeat,
  saveClass,
  teacher,
  waitFor,
  walkPlace,
} from './classes'
import { colourway, saveColourway } from './colourways'
import { customerCard, customersPage, saveCustomer } from './customers'
import { found, labelsWanted, playStandIn, printLabels, standInNames, standInState } from './devices'
import { batchPrice, bench, costSettings, diary, diaryWanted, fetchList } from './diary'
import { documentWanted, edition, editionWanted } from './editions'
import { pageWanted, recordIdInAddress } from './fields'
import { handOver, order, saveOrder, sizedOrder, sizeOrder } from './orders'
import { emptyBag, fillBag, loseBeads, packing, returnKit, swapLot } from './packing'
import { patternFile } from './pattern-file'
import {
  carrier,
  describePattern,
  libraryPage,
  libraryWanted,
  newPattern,
  pattern,
  patternName,
  renamePattern,
  saveDraft,
  saveVersion,
  versionText,
} from './patterns'
import {
  changePassword,
  changePerson,
  choosePassword,
  me,
  newPerson,
  openLink,
  passwordLink,
  person,
  signIn,
  welcomed,
} from './people'
import { cropPicture, describePicture, orderPictures, pictureSize, pictures } from './pictures'
import { recordFileOutcome } from './record-file'
import type { Right } from './rights'
import {
  newSale,
  pricesPage,
  returnSold,
  sale,
  salesOfDays,
  salesWanted,
  saveSellingPrice,
  sellingPrice,
} from './sales'
import { newSample, samples } from './samples'
import { beginShop, changeSettings, settings, shopDoor, shopLogo } from './settings'
import { acceptSubstitutes, shortagePlan } from './shortage-plan'
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
import { beginStocktake, countLot, foundTube, placeSummary, stocktake, stocktakeSummary } from './stocktake'
import { saveSupplier, supplier, supplierCard } from './suppliers'
import { saveWords, stepWords } from './words'
import { workState } from './work'
import { z } from './zod'

/** One thing that can be asked of the server: `METHOD /path` and what goes with it. */
export interface Route {
  readonly what: string
  /** Who may: "open" is for anyone, "signed-in" for anyone known. */
  readonly right: Right | 'open' | 'signed-in'
  /** Named in the path; ids of records when absent. */
  readonly params?: z.ZodObject
  readonly query?: z.ZodType
  readonly body?: z.ZodType
  /** JSON by its schema; or a file, or a stream of events. */
  readonly answer: z.ZodType | 'file' | 'pdf' | 'stream'
  /** The body is a file as it is. */
  readonly bytes?: true
  /**
   * Writes nothing into the records although it is no GET, or nothing that a second time would change: it asks, signs in or out, drives a device, or,
   * as a draft, says which revision it follows. Everything else that is no GET carries an idempotency key.
   */
  readonly keyless?: true
}

const ok = z.object({ ok: z.boolean() })
const list = <T extends z.ZodType>(of: T) => z.array(of)
const changedItem = z.object({ itemId: z.number() })
const changedLot = z.object({ lotId: z.number() })
const changedPurchase = z.object({ purchaseId: z.number() })
const printed = z.object({ printed: z.number() })
const drawing = z.custom<View>(isView)

export const api = {
  'GET /api/health': { what: 'Whether the shop and its records answer', right: 'open', answer: ok },
  'POST /api/sign-in': {
    what: "Sign in; the answer's token goes along with every change",
    right: 'open',
    keyless: true,
    body: signIn,
    answer: me,
  },
  'GET /api/me': { what: 'Who is signed in, and the token for changes', right: 'signed-in', answer: me },
  'POST /api/sign-out': { what: 'Sign out', right: 'signed-in', keyless: true, answer: z.object({}) },
  'GET /api/changes': {
    what: 'What has changed, as server-sent events: a subject each; and what devices say, as events of their own',
    right: 'signed-in',
    query: newsWanted,
    answer: 'stream',
  },
  'GET /api/work': { what: 'How far what the asker waits for has come', right: 'signed-in', answer: workState },
  'GET /api/people': { what: 'Who may sign in, and who is signed in', right: 'people.keep', answer: list(person) },
  'POST /api/people/:id/disable': {
    what: 'End their sessions, and let them in no more',
    right: 'people.keep',
    answer: z.object({ id: z.number() }),
  },
  'POST /api/people/:id/enable': {
    what: 'Let them sign in again',
    right: 'people.keep',
    answer: z.object({ id: z.number() }),
  },
  'POST /api/people': {
    what: 'Add somebody, who then chooses a password by a link',
    right: 'people.keep',
    body: newPerson,
    answer: z.object({ id: z.number() }),
  },
  'PUT /api/people/:id': {
    what: "Change somebody's name or roles; other roles end their sessions",
    right: 'people.keep',
    body: changePerson,
    answer: z.object({ id: z.number() }),
  },
  'POST /api/people/:id/link': {
    what: 'Make a one-time link with which they choose a password; the one before it is worth nothing then',
    right: 'people.keep',
    keyless: true,
    answer: passwordLink,
  },
  'POST /api/welcome': {
    what: 'Whose link this is',
    right: 'open',
    keyless: true,
    body: openLink,
    answer: welcomed,
  },
  'POST /api/welcome/password': {
    what: 'Choose a password by a link, and sign in with it',
    right: 'open',
    keyless: true,
    body: choosePassword,
    answer: me,
  },
  'POST /api/me/password': {
    what: 'Change your own password; you are signed out everywhere else',
    right: 'signed-in',
    body: changePassword,
    answer: z.object({ id: z.number() }),
  },
  'POST /api/me/sign-out-elsewhere': {
    what: 'End your sessions in every other browser',
    right: 'signed-in',
    answer: z.object({ id: z.number() }),
  },
  'GET /api/patterns': {
    what: 'Patterns that can be chosen, by name',
    right: 'patterns.read',
    answer: list(patternName),
  },
  'GET /api/library': {
    what: 'Patterns page by page, found by title, bead, technique, size, level, time, season or tag',
    right: 'patterns.read',
    query: libraryWanted,
    answer: libraryPage,
  },
  'POST /api/patterns': {
    what: 'Begin a pattern, or take one in from a file',
    right: 'patterns.write',
    body: newPattern,
    answer: pattern,
  },
  'GET /api/patterns/:id': { what: 'A pattern: its draft and its versions', right: 'patterns.read', answer: pattern },
  'POST /api/patterns/:id/copy': {
    what: 'Copy a pattern with its colourways and words, as a draft',
    right: 'patterns.write',
    answer: pattern,
  },
  'PUT /api/patterns/:id/title': {
    what: 'Give it another name',
    right: 'patterns.write',
    body: renamePattern,
    answer: pattern,
  },
  'PUT /api/patterns/:id/description': {
    what: 'Give it tags and a season',
    right: 'patterns.write',
    body: describePattern,
    answer: pattern,
  },
  'POST /api/patterns/:id/put-away': { what: 'Put it out of the way', right: 'patterns.write', answer: pattern },
  'POST /api/patterns/:id/take-out': { what: 'Offer it again', right: 'patterns.write', answer: pattern },
  'POST /api/patterns/:id/throw-away': {
    what: 'Throw away a draft of which no version was kept; for thirty days it can be brought back',
    right: 'patterns.write',
    answer: pattern,
  },
  'POST /api/patterns/:id/bring-back': {
    what: 'Bring back a draft that was thrown away',
    right: 'patterns.write',
    answer: pattern,
  },
  'GET /api/patterns/:id/drawing': {
    what: 'The draft drawn from the front, as the shop has it',
    right: 'patterns.read',
    query: z.object({ digest: z.string().max(200).optional() }),
    answer: drawing,
  },
  'PUT /api/patterns/:id/draft': {
    what: 'Save the draft on top of the revision it was read at',
    right: 'patterns.write',
    keyless: true,
    body: saveDraft,
    answer: pattern,
  },
  'POST /api/patterns/:id/versions': {
    what: 'Keep a version, publish it, or correct another',
    right: 'patterns.write',
    body: saveVersion,
    answer: pattern,
  },
  'GET /api/patterns/:id/versions/:number': { what: "A version's text", right: 'patterns.read', answer: versionText },
  'GET /api/patterns/:id/versions/:number/carriers': {
    what: 'Batches that carry a version',
    right: 'patterns.read',
    answer: list(carrier),
  },
  'GET /api/patterns/:id/words': { what: "The designer's own words", right: 'patterns.read', answer: list(stepWords) },
  'PUT /api/patterns/:id/words': {
    what: 'Save own words for a step',
    right: 'patterns.write',
    body: saveWords,
    answer: list(stepWords),
  },
  'GET /api/patterns/:id/pictures': {
    what: 'Its pictures, in their order, and those that were removed',
    right: 'patterns.read',
    answer: pictures,
  },
  'POST /api/patterns/:id/pictures': {
    what: 'Add a picture: JPEG, PNG, WebP or AVIF, of 25 MB at most',
    right: 'patterns.write',
    bytes: true,
    answer: pictures,
  },
  'PUT /api/patterns/:id/pictures/order': {
    what: 'Put its pictures into another order',
    right: 'patterns.write',
    body: orderPictures,
    answer: pictures,
  },
  'PUT /api/pictures/:id': {
    what: 'Say what a picture shows',
    right: 'patterns.write',
    body: describePicture,
    answer: pictures,
  },
  'POST /api/pictures/:id/crop': {
    what: 'Show a part of it, or all of it again',
    right: 'patterns.write',
    body: cropPicture,
    answer: pictures,
  },
  'POST /api/pictures/:id/remove': {
    what: 'Take it out of the pattern; for thirty days it can be put back',
    right: 'patterns.write',
    answer: pictures,
  },
  'POST /api/pictures/:id/put-back': { what: 'Put it back', right: 'patterns.write', answer: pictures },
  'GET /api/pictures/:id/:size': {
    what: 'A picture in one of its sizes, as JPEG',
    right: 'patterns.read',
    params: z.object({ id: recordIdInAddress, size: pictureSize }),
    answer: 'file',
  },
  'GET /api/patterns/:id/edition': {
    what: 'Everything an edition is written from',
    right: 'patterns.read',
    query: editionWanted,
    answer: edition,
  },
  'GET /api/patterns/:id/document.pdf': {
    what: 'The written pattern',
    right: 'patterns.read',
    query: documentWanted,
    answer: 'pdf',
  },
  'GET /api/patterns/:id/pattern.json': { what: 'The pattern as a file', right: 'patterns.read', answer: patternFile },
  'GET /api/patterns/:id/samples': {
    what: 'Logged samples and what they say of thread and time',
    right: 'patterns.read',
    answer: samples,
  },
  'POST /api/patterns/:id/samples': { what: 'Log a sample', right: 'samples.log', body: newSample, answer: samples },
  'GET /api/patterns/:id/colourways': { what: 'Its colourways', right: 'patterns.read', answer: list(colourway) },
  'POST /api/patterns/:id/colourways': {
    what: 'Begin a colourway',
    right: 'patterns.write',
    body: saveColourway,
    answer: colourway,
  },
  'PUT /api/colourways/:id': {
    what: "Keep a colourway's next version",
    right: 'patterns.write',
    body: saveColourway,
    answer: colourway,
  },
  'GET /api/colourways/:id/versions/:number': {
    what: 'A colourway as it stood',
    right: 'patterns.read',
    answer: colourway,
  },
  'GET /api/forms/:digest': {
    what: 'A form that this server has computed before, by what it follows from: 64-bit numbers; 204 where it has not',
    right: 'patterns.read',
    params: z.object({ digest: z.string().regex(/^[0-9a-f]{16}$/) }),
    answer: 'file',
  },
  'GET /api/items': { what: 'Every item with what is on it', right: 'stock.read', answer: list(item) },
  'GET /api/shelf': { what: 'The shelf, page by page', right: 'stock.read', query: shelfWanted, answer: shelfPage },
  'GET /api/stock/file': { what: 'The shelf as a file', right: 'stock.read', query: stockFileWanted, answer: 'file' },
  'POST /api/stock/file/preview': {
    what: 'What a file would do',
    right: 'stock.keep',
    keyless: true,
    bytes: true,
    answer: stockFileOutcome,
  },
  'POST /api/stock/file': {
    what: 'Take a file in, all or nothing',
    right: 'stock.keep',
    bytes: true,
    answer: stockFileOutcome,
  },
  'POST /api/items': { what: 'Begin an item', right: 'stock.keep', body: saveItem, answer: itemStory },
  'PUT /api/items/:id': { what: 'Change an item', right: 'stock.keep', body: saveItem, answer: itemStory },
  'GET /api/items/:id': { what: "An item's lots, moves, promises and orders", right: 'stock.read', answer: itemStory },
  'GET /api/items/:id/moves': {
    what: 'Moves before a move',
    right: 'stock.read',
    query: z.object({ before: recordIdInAddress }),
    answer: movesPage,
  },
  'GET /api/items/:id/shortage-plan': {
    what: 'Find substitutes for an item in all drafts that take it',
    right: 'batches.plan',
    answer: shortagePlan,
  },
  'PUT /api/items/:id/packs': {
    what: "Take over a supplier's prices",
    right: 'stock.buy',
    body: takePrices,
    answer: changedItem,
  },
  'POST /api/items/:id/lots': { what: 'Receive a lot', right: 'stock.move', body: newLot, answer: changedLot },
  'POST /api/lots/:id/moves': {
    what: 'Post a move by hand',
    right: 'stock.move',
    body: handMove,
    answer: z.object({ moveId: z.number(), itemId: z.number() }),
  },
  'POST /api/lots/:id/transfer': {
    what: 'Move a lot, or part of it, to another place',
    right: 'stock.move',
    body: transferLot,
    answer: changedLot,
  },
  'POST /api/lots/:id/weighing': {
    what: 'Weigh beads of a lot',
    right: 'stock.move',
    body: weighLot,
    answer: changedLot,
  },
  'POST /api/lots/:id/label': { what: "Print a lot's label", right: 'stock.move', keyless: true, answer: printed },
  'PUT /api/lots/:id': {
    what: "Change a lot's supplier and cost",
    right: 'stock.keep',
    body: changeLot,
    answer: changedLot,
  },
  'POST /api/moves/:id/reverse': {
    what: 'Take a move back by another',
    right: 'stock.move',
    body: reverseMove,
    answer: z.object({ moveId: z.number() }),
  },
  'GET /api/places': { what: 'Places with lots in them', right: 'stock.read', answer: list(placeSummary) },
  'GET /api/stocktakes': { what: 'Counts of places', right: 'stock.read', answer: list(stocktakeSummary) },
  'POST /api/stocktakes': { what: 'Freeze a place', right: 'stock.move', body: beginStocktake, answer: stocktake },
  'GET /api/stocktakes/:id': { what: 'A count', right: 'stock.read', answer: stocktake },
  'PUT /api/stocktakes/:id/lots/:lotId': {
    what: 'What is in a tube',
    right: 'stock.move',
    body: countLot,
    answer: stocktake,
  },
  'POST /api/stocktakes/:id/found': {
    what: 'A tube that the ledger does not know',
    right: 'stock.move',
    body: foundTube,
    answer: stocktake,
  },
  'POST /api/stocktakes/:id/post': { what: 'Post what differs', right: 'stock.move', answer: stocktake },
  'POST /api/stocktakes/:id/abandon': { what: 'Leave a count', right: 'stock.move', answer: stocktake },
  'GET /api/buy-list': {
    what: 'What must be bought, by when',
    right: 'batches.read',
    query: buyWanted,
    answer: list(buyLine),
  },
  'GET /api/buy-list/file': {
    what: 'The same as a file',
    right: 'batches.read',
    query: stockFileWanted,
    answer: 'file',
  },
  'GET /api/purchases': { what: 'What is on its way', right: 'batches.read', answer: list(purchase) },
  'POST /api/purchases': { what: 'Order something', right: 'stock.buy', body: newPurchase, answer: changedPurchase },
  'POST /api/purchases/:id/receive': {
    what: 'Mark a purchase received',
    right: 'stock.move',
    body: receivePurchase,
    answer: changedLot,
  },
  'POST /api/purchases/:id/cancel': { what: 'Call an order off', right: 'stock.buy', answer: changedPurchase },
  'POST /api/quotes': {
    what: 'What suppliers ask today',
    right: 'stock.buy',
    keyless: true,
    body: askQuotes,
    answer: list(quote),
  },
  'GET /api/batches': { what: 'All batches', right: 'batches.read', answer: list(listedBatch) },
  'GET /api/batches/competing': {
    what: 'How far the shelf goes for each draft in its turn',
    right: 'batches.read',
    answer: competing,
  },
  'POST /api/batches': { what: 'Plan a batch', right: 'batches.plan', body: newBatch, answer: batch },
  'POST /api/batches/outlook': {
    what: 'What lines would take and what the shelf allows',
    right: 'batches.plan',
    keyless: true,
    body: outlookWanted,
    answer: outlook,
  },
  'POST /api/batches/could-make': {
    what: 'How many could be made',
    right: 'batches.plan',
    keyless: true,
    body: changeLines,
    answer: couldMake,
  },
  'GET /api/batches/:id': { what: 'A batch', right: 'batches.read', answer: batch },
  'GET /api/batches/:id/file': {
    what: 'Its bill as a file',
    right: 'batches.read',
    query: stockFileWanted,
    answer: 'file',
  },
  'GET /api/batches/:id/price': { what: 'What its kits cost', right: 'batches.read', answer: batchPrice },
  'PUT /api/batches/:id': {
    what: 'When it is due, and its turn',
    right: 'batches.plan',
    body: changeBatch,
    answer: batch,
  },
  'PUT /api/batches/:id/lines': {
    what: 'Other lines, whether it holds anything or not',
    right: 'batches.plan',
    body: changePlan,
    answer: changedBatch,
  },
  'POST /api/batches/:id/lines/:line/substitute': {
    what: 'Another bead in a line',
    right: 'batches.plan',
    body: substituteInLine,
    answer: changedBatch,
  },
  'POST /api/batches/:id/substitutes': {
    what: 'Substitutes in some of its kits',
    right: 'batches.plan',
    body: acceptSubstitutes,
    answer: changedBatch,
  },
  'POST /api/batches/:id/reserve': {
    what: 'Promise it everything, or nothing',
    right: 'batches.reserve',
    answer: batch,
  },
  'POST /api/batches/:id/release': { what: 'Give back what it holds', right: 'batches.reserve', answer: batch },
  'POST /api/batches/:id/plan-again': {
    what: 'Plan one again that was called off',
    right: 'batches.plan',
    answer: batch,
  },
  'POST /api/batches/:id/cancel': { what: 'Call it off', right: 'batches.plan', answer: batch },
  'POST /api/batches/:id/lay-out': { what: 'Lay bags out again', right: 'batches.pack', answer: batch },
  'GET /api/batches/:id/packing': { what: 'Its bags', right: 'batches.read', answer: packing },
  'PUT /api/batches/:id/bags': { what: 'Fill a bag', right: 'batches.pack', body: fillBag, answer: packing },
  'POST /api/batches/:id/bags/empty': { what: 'Empty a bag', right: 'batches.pack', body: emptyBag, answer: packing },
  'POST /api/batches/:id/losses': {
    what: 'Beads spilt or missing',
    right: 'batches.pack',
    body: loseBeads,
    answer: packing,
  },
  'POST /api/batches/:id/swaps': { what: 'Another lot', right: 'batches.pack', body: swapLot, answer: packing },
  'POST /api/batches/:id/returns': {
    what: 'What came back of a kit',
    right: 'batches.pack',
    body: returnKit,
    answer: packing,
  },
  'POST /api/batches/:id/close': { what: 'Issue what was used', right: 'batches.pack', answer: packing },
  'GET /api/batches/:id/labels.pdf': {
    what: 'Labels as sheets',
    right: 'batches.read',
    query: labelsWanted,
    answer: 'pdf',
  },
  'POST /api/batches/:id/labels': {
    what: 'Print labels',
    right: 'batches.pack',
    keyless: true,
    body: printLabels,
    answer: printed,
  },
  'GET /api/classes': { what: 'Classes', right: 'classes.read', answer: list(classSummary) },
  'POST /api/classes': { what: 'Offer a class', right: 'classes.keep', body: saveClass, answer: classAnswer },
  'GET /api/teachers': { what: 'Who can teach', right: 'classes.read', answer: list(teacher) },
  'GET /api/classes/:id': { what: 'A class', right: 'classes.read', answer: classAnswer },
  'GET /api/classes/:id/move': {
    what: 'What would not fit in time if the class were on another day',
    right: 'classes.read',
    query: classMoveWanted,
    answer: classMove,
  },
  'PUT /api/classes/:id': { what: 'Change a class', right: 'classes.keep', body: saveClass, answer: classAnswer },
  'PUT /api/classes/:id/seats/:seat': {
    what: 'Take a seat, or change who has it',
    right: 'classes.keep',
    body: bookSeat,
    answer: classAnswer,
  },
  'POST /api/classes/:id/seats/:seat/free': { what: 'Free a seat', right: 'classes.keep', answer: classAnswer },
  'PUT /api/classes/:id/seats/:seat/mark': {
    what: 'What a seat has paid, and whether they came',
    right: 'classes.keep',
    body: markSeat,
    answer: classAnswer,
  },
  'POST /api/classes/:id/waiting': {
    what: 'Put somebody on the waiting list',
    right: 'classes.keep',
    body: waitFor,
    answer: classAnswer,
  },
  'POST /api/classes/:id/waiting/:waitingId/leave': {
    what: 'Take somebody off the waiting list',
    right: 'classes.keep',
    answer: classAnswer,
  },
  'POST /api/classes/:id/kits': {
    what: 'Plan its kits, or bring its batch up to the bookings',
    right: 'batches.plan',
    answer: classWithBags,
  },
  'POST /api/classes/:id/taught': { what: 'Mark as taught', right: 'classes.keep', answer: classAnswer },
  'POST /api/classes/:id/cancel': { what: 'Call it off', right: 'classes.keep', answer: classAnswer },
  'POST /api/classes/:id/reopen': {
    what: 'Not taught or called off after all, within a day',
    right: 'classes.keep',
    answer: classAnswer,
  },
  'PUT /api/classes/:id/walk': {
    what: 'Where the class stands in the walk',
    keyless: true,
    right: 'classes.keep',
    body: walkPlace,
    answer: walkPlace,
  },
  'GET /api/classes/:id/labels.pdf': { what: 'Labels for its seats', right: 'classes.read', answer: 'pdf' },
  'GET /api/orders': { what: 'Orders', right: 'classes.read', answer: list(order) },
  'POST /api/orders': { what: 'Take an order', right: 'orders.keep', body: saveOrder, answer: list(order) },
  'PUT /api/orders/:id': { what: 'Change an order', right: 'orders.keep', body: saveOrder, answer: list(order) },
  'POST /api/orders/size': {
    what: 'How a pattern is made to a measure',
    right: 'orders.keep',
    keyless: true,
    body: sizeOrder,
    answer: sizedOrder,
  },
  'POST /api/orders/:id/kits': { what: 'Plan its kit', right: 'orders.keep', answer: list(order) },
  'POST /api/orders/:id/hand-over': {
    what: 'Hand over some of its kits, or all',
    right: 'orders.keep',
    body: handOver,
    answer: list(order),
  },
  'POST /api/orders/:id/reopen': {
    what: 'What was last handed over was not, or it is not called off after all, within a day',
    right: 'orders.keep',
    answer: list(order),
  },
  'POST /api/orders/:id/cancel': { what: 'Call it off', right: 'orders.keep', answer: list(order) },
  'GET /api/suppliers': { what: 'Suppliers, by name', right: 'stock.read', answer: list(supplier) },
  'POST /api/suppliers': { what: 'Add a supplier', right: 'stock.buy', body: saveSupplier, answer: supplierCard },
  'GET /api/suppliers.csv': { what: 'All suppliers as a file', right: 'stock.read', answer: 'file' },
  'POST /api/suppliers/file/preview': {
    what: 'What a file of suppliers would do',
    right: 'stock.buy',
    keyless: true,
    bytes: true,
    answer: recordFileOutcome,
  },
  'POST /api/suppliers/file': {
    what: 'Take a file of suppliers in, all or nothing',
    right: 'stock.buy',
    bytes: true,
    answer: recordFileOutcome,
  },
  'GET /api/suppliers/:id': {
    what: 'A supplier with their prices and what was bought of them',
    right: 'stock.read',
    answer: supplierCard,
  },
  'PUT /api/suppliers/:id': {
    what: 'Change a supplier',
    right: 'stock.buy',
    body: saveSupplier,
    answer: supplierCard,
  },
  'POST /api/suppliers/:id/remove': {
    what: 'Remove a supplier; orders and lots keep their name',
    right: 'stock.buy',
    answer: ok,
  },
  'GET /api/prices': {
    what: 'What is asked at the counter',
    right: 'stock.read',
    query: pageWanted,
    answer: pricesPage,
  },
  'PUT /api/items/:id/selling-price': {
    what: 'Ask so much for it at the counter, or as its cost says',
    right: 'prices.keep',
    body: saveSellingPrice,
    answer: sellingPrice,
  },
  'GET /api/prices.csv': { what: 'The price list as a file', right: 'stock.read', answer: 'file' },
  'GET /api/customers': {
    what: 'Customers, by name, page by page',
    right: 'customers.read',
    query: pageWanted,
    answer: customersPage,
  },
  'POST /api/customers': { what: 'Add a customer', right: 'customers.keep', body: saveCustomer, answer: customerCard },
  'GET /api/customers.csv': { what: 'All customers as a file', right: 'customers.manage', answer: 'file' },
  'POST /api/customers/file/preview': {
    what: 'What a file of customers would do',
    right: 'customers.manage',
    keyless: true,
    bytes: true,
    answer: recordFileOutcome,
  },
  'POST /api/customers/file': {
    what: 'Take a file of customers in, all or nothing',
    right: 'customers.manage',
    bytes: true,
    answer: recordFileOutcome,
  },
  'GET /api/customers/:id': {
    what: 'A customer with their orders, what they bought, and their classes',
    right: 'customers.read',
    answer: customerCard,
  },
  'PUT /api/customers/:id': {
    what: 'Change a customer',
    right: 'customers.keep',
    body: saveCustomer,
    answer: customerCard,
  },
  'POST /api/customers/:id/forget': {
    what: 'Delete all that says who they were; what they bought stays, without them',
    right: 'customers.manage',
    answer: ok,
  },
  'GET /api/sales': {
    what: 'What was sold over the counter',
    right: 'sales.keep',
    query: salesWanted,
    answer: salesOfDays,
  },
  'POST /api/sales': { what: 'Sell over the counter', right: 'sales.keep', body: newSale, answer: sale },
  'GET /api/sales.csv': {
    what: 'What was sold and taken back, for who keeps the books',
    right: 'sales.keep',
    query: salesWanted,
    answer: 'file',
  },
  'GET /api/sales/:id': { what: 'One sale', right: 'sales.keep', answer: sale },
  'POST /api/sales/:id/returns': {
    what: 'Take back some of what was sold',
    right: 'sales.keep',
    body: returnSold,
    answer: sale,
  },
  'GET /api/items/:id/selling-price': {
    what: 'What to ask for one unit of an item',
    right: 'sales.keep',
    answer: sellingPrice,
  },
  'GET /api/diary': { what: 'Promises, day by day', right: 'classes.read', query: diaryWanted, answer: diary },
  'GET /api/diary.ics': { what: 'The same as a calendar', right: 'classes.read', query: diaryWanted, answer: 'file' },
  'GET /api/bench': { what: 'What is to be done next', right: 'classes.read', answer: bench },
  'GET /api/bench/fetch': {
    what: 'What to fetch from the shelf for the packing of the next days',
    right: 'batches.read',
    answer: fetchList,
  },
  'GET /api/shop': { what: 'Whose shop it is, and whether it has been begun', right: 'open', answer: shopDoor },
  'POST /api/begin': {
    what: 'Begin an empty shop, by the address that its start command has printed',
    right: 'open',
    keyless: true,
    body: beginShop,
    answer: me,
  },
  'GET /api/settings': { what: 'How the shop does things', right: 'signed-in', answer: settings },
  'PUT /api/settings': { what: 'Do them otherwise', right: 'settings.keep', body: changeSettings, answer: settings },
  'GET /api/logo': { what: 'Whether the shop has a logo', right: 'signed-in', answer: shopLogo },
  'POST /api/logo': { what: 'Give the shop a logo', right: 'settings.keep', bytes: true, answer: shopLogo },
  'POST /api/logo/remove': { what: 'Take the logo away', right: 'settings.keep', answer: shopLogo },
  'GET /api/logo/:digest': {
    what: 'The logo, as JPEG',
    right: 'signed-in',
    params: z.object({ digest: z.string().max(100) }),
    answer: 'file',
  },
  'GET /api/costs': { what: 'How costs are worked out', right: 'batches.read', answer: costSettings },
  'PUT /api/costs': { what: 'Work them out otherwise', right: 'costs.keep', body: costSettings, answer: costSettings },
  'GET /api/audit': { what: 'Activity', right: 'audit.read', query: auditWanted, answer: auditPage },
  'GET /api/archive': { what: 'The whole shop as a ZIP', right: 'archive.take', answer: 'file' },
  'GET /api/openapi.json': { what: 'This document', right: 'open', answer: z.looseObject({ openapi: z.string() }) },
  'POST /api/scale/zero': { what: 'Set the scale to zero', right: 'batches.pack', keyless: true, answer: ok },
  'GET /api/codes/:code': {
    what: 'What a code stands for',
    right: 'stock.read',
    params: z.object({ code: z.string().max(200) }),
    answer: found,
  },
  'GET /api/stand-ins': {
    what: 'What stands in for devices here',
    right: 'signed-in',
    answer: list(z.enum(standInNames)),
  },
  'POST /api/stand-ins/:name': {
    what: 'Play a stand-in',
    right: 'batches.pack',
    keyless: true,
    body: playStandIn,
    params: z.object({ name: z.string().max(40) }),
    answer: standInState,
  },
} as const satisfies Record<string, Route>

export type RouteKey = keyof typeof api
type Table = typeof api

type Named<Path> = Path extends `${string}/:${infer Rest}`
  ? Rest extends `${infer Name}/${infer More}`
    ? Name | Named<`/${More}`>
    : Rest
  : never

/** What is named in a route's path. */
export type Params<Key extends RouteKey> = Table[Key] extends { readonly params: infer S extends z.ZodType }
  ? z.output<S>
  : { readonly [Name in Named<Key>]: number }
type SchemaOf<Key extends RouteKey, Part extends 'query' | 'body' | 'answer'> = Table[Key] extends {
  readonly [Name in Part]: infer S extends z.ZodType
}
  ? S
  : z.ZodUndefined

/** As the server reads it. */
export type Query<Key extends RouteKey> = z.output<SchemaOf<Key, 'query'>>
export type Body<Key extends RouteKey> = z.output<SchemaOf<Key, 'body'>>
/** As a page gives it. */
export type QueryInput<Key extends RouteKey> = z.input<SchemaOf<Key, 'query'>>
export type BodyInput<Key extends RouteKey> = z.input<SchemaOf<Key, 'body'>>
/** Nothing where the answer is a file or a stream. */
export type Answer<Key extends RouteKey> = z.output<SchemaOf<Key, 'answer'>>

/** Routes that write into the records, and are done once for a key. */
export type WriteKey = {
  [Key in RouteKey]: Key extends `GET ${string}` ? never : Table[Key] extends { readonly keyless: true } ? never : Key
}[RouteKey]

export const routeOf = (key: RouteKey): Route => api[key]

export const isWrite = (key: RouteKey): key is WriteKey => !key.startsWith('GET ') && routeOf(key).keyless !== true

/** What a route's path must name. */
export function paramsOf(key: RouteKey): z.ZodObject {
  const names = [...key.matchAll(/:(\w+)/g)].map(([, name]) => name as string)
  return routeOf(key).params ?? z.object(Object.fromEntries(names.map((name) => [name, recordIdInAddress])))
}
