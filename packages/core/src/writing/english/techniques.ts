/** How each technique is worked, in English. */
import type { Language } from '../language'

export const techniques: Language['techniques'] = {
  ring: {
    title: 'A ring',
    text: 'String the beads, slide them to the tail, and close them to a ring in the way that the step says. Pull until no thread shows between the beads and none of them stands on edge.',
  },
  round: {
    title: 'A peyote round',
    text: 'Pick up one bead, skip one bead, and pass through the next that stands up. Each new bead fills a gap of the round before. Where the step says to step up, go on through the first bead of this round, so that the next can begin.',
  },
  row: {
    title: 'A peyote row',
    text: 'Worked like a round, but back and forth. At the end of a row turn, so that the thread comes out of the last bead picked up, facing the other way.',
  },
  drop: {
    title: 'Several beads at a stitch',
    text: 'Worked in the same way, but each stitch picks up two beads or more. They lie side by side in a gap as wide as they are: pass through those that stand up together as if they were one bead.',
  },
  decrease: {
    title: 'A decrease',
    text: 'Where a stitch picks up nothing, pass straight through the next bead that stands up and pull close. The gap that is left closes, and the work draws in.',
  },
  increase: {
    title: 'An increase',
    text: 'Where a stitch picks up two beads for one gap, let them lie side by side. In the next round a bead goes between them, and the work grows wider.',
  },
  netting: {
    title: 'Netting',
    text: 'Pick up several beads at once and pass through a bead further on, so that an arc hangs between the two. Pull all arcs equally tight.',
  },
  square: {
    title: 'Square stitch',
    text: 'Pick up a bead, pass again through the bead beneath it in the same direction as before, and again through the new one. Each bead sits straight on top of the one beneath.',
  },
  unit: {
    title: 'Right-angle units',
    text: 'Each unit is a small ring. Pick up its beads, pass again through the bead it shares with the unit before, and go on to the bead where the next unit begins. Thread runs along the beads and never straight across.',
  },
  stand: {
    title: 'Standing beads',
    text: 'Pick up a bead, catch the thread between two beads of the row beneath (or go round the stone), and pass up through the new bead. It stands on end beside its neighbour.',
  },
  loop: {
    title: 'A loop',
    text: 'Pick up its beads and pass again through the bead that the thread came out of, in the same direction. The loop stands above that bead.',
  },
  fringe: {
    title: 'A fringe',
    text: 'Pick up the strand, leave out its last bead or beads, and go back through all the others. The end beads hold the strand: push them up before you pull.',
  },
}
