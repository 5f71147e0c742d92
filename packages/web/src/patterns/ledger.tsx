import { autocompletion, completionKeymap } from '@codemirror/autocomplete'
import {
  defaultKeymap,
  history,
  historyKeymap,
  indentLess,
  insertTab,
  isolateHistory,
  redo,
  undo,
} from '@codemirror/commands'
import { type Diagnostic, diagnosticCount, lintGutter, lintKeymap, setDiagnostics } from '@codemirror/lint'
import { Compartment, EditorState } from '@codemirror/state'
import {
  drawSelection,
  EditorView,
  highlightActiveLine,
  highlightActiveLineGutter,
  keymap,
  lineNumbers,
  tooltips,
} from '@codemirror/view'
import type { Fault } from '@tessellum/core/notation/fault'
import type { StatementReport } from '@tessellum/core/report/report'
import { type Ref, useEffect, useImperativeHandle, useRef } from 'react'
import { useUnits } from '../settings/use-units'
import type { Draft } from './draft'
import styles from './ledger.module.css'
import { ledgerFigures, setFigures } from './ledger-figures'
import { tessLanguage } from './tess-language'

export interface LedgerHandle {
  goTo(line: number, column?: number): void
  /** Writes lines below the one the cursor is in, indented as it is; or at the end of the text. */
  addLines(lines: readonly string[], where?: 'cursor' | 'end'): void
  /** Makes the text another one, as one step that can be undone; what is the same in both stays as it is. */
  write(text: string): void
  /** Selects from the line in hand to another, both whole. */
  selectTo(line: number): void
  /** The lines that are selected, or the one that the cursor is in. */
  stretch(): { readonly first: number; readonly last: number }
  undo(): void
  redo(): void
}

interface LedgerProps {
  readonly draft: Pick<Draft, 'subscribe' | 'current'>
  readonly mayWrite: boolean
  readonly statements: readonly StatementReport[]
  readonly old: boolean
  readonly faults: readonly Fault[]
  readonly onEdit: (text: string) => void
  readonly onLine: (line: number) => void
  readonly ref?: Ref<LedgerHandle>
}

/** The notation, typed; beside each line what it does, and in it what is wrong. */
export function Ledger({ draft, mayWrite, statements, old, faults, onEdit, onLine, ref }: LedgerProps) {
  const units = useUnits()
  const place = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView>(undefined)
  const told = useRef({ onEdit, onLine })
  told.current = { onEdit, onLine }
  /** The line that was told last. */
  const inHand = useRef(0)

  // biome-ignore lint/correctness/useExhaustiveDependencies: the editor is made once; later texts come by the effect below
  useEffect(() => {
    if (!place.current) return
    const editable = new Compartment()
    const made = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: draft.current().text,
        extensions: [
          lineNumbers(),
          lintGutter(),
          ledgerFigures,
          highlightActiveLine(),
          highlightActiveLineGutter(),
          drawSelection(),
          EditorView.lineWrapping,
          history(),
          tessLanguage(),
          autocompletion(),
          // What is offered lies over the text only, not over the faults below it.
          tooltips({ tooltipSpace: ({ dom }) => dom.getBoundingClientRect() }),
          keymap.of([
            ...defaultKeymap,
            ...historyKeymap,
            ...completionKeymap,
            ...lintKeymap,
            { key: 'Mod-]', run: insertTab, shift: indentLess },
          ]),
          editable.of([EditorView.editable.of(mayWrite), EditorState.readOnly.of(!mayWrite)]),
          EditorView.contentAttributes.of({
            'aria-label': 'The pattern in notation',
            spellcheck: 'false',
            tabindex: '0',
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) told.current.onEdit(update.state.doc.toString())
            if (!update.docChanged && !update.selectionSet) return
            const { number } = update.state.doc.lineAt(update.state.selection.main.head)
            if (number === inHand.current) return
            inHand.current = number
            told.current.onLine(number)
          }),
        ],
      }),
    })
    view.current = made
    // Faults that appear below make the ledger lower: the line in hand stays in sight.
    const watch = new ResizeObserver(() => {
      if (made.hasFocus) made.dispatch({ effects: EditorView.scrollIntoView(made.state.selection.main.head) })
    })
    watch.observe(place.current)
    return () => {
      watch.disconnect()
      made.destroy()
    }
  }, [])

  // What is typed here the draft has at once; any other text is somebody else's.
  useEffect(() => {
    const follow = () => {
      const editor = view.current
      const { text } = draft.current()
      if (editor && editor.state.doc.toString() !== text)
        editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text } })
    }
    follow()
    return draft.subscribe(follow)
  }, [draft])

  // Each time the editor is told something it looks through all that it shows: it is told both at once.
  useEffect(() => {
    const editor = view.current
    if (!editor) return
    const { state } = editor
    const marks = faults.length > 0 || diagnosticCount(state) > 0 ? setDiagnostics(state, marksFor(faults, state)) : {}
    editor.dispatch({ effects: setFigures.of({ statements, old, units }) }, marks)
  }, [statements, old, units, faults])

  useImperativeHandle(ref, () => ({
    goTo(line, column = 1) {
      const editor = view.current
      if (!editor || line > editor.state.doc.lines) return
      const { from, to } = editor.state.doc.line(line)
      editor.dispatch({
        selection: { anchor: Math.min(from + column - 1, to) },
        effects: EditorView.scrollIntoView(from, { y: 'center' }),
      })
      editor.focus()
    },
    addLines(lines, where = 'cursor') {
      const editor = view.current
      if (!editor) return
      const { doc, selection } = editor.state
      const at = doc.lineAt(where === 'end' ? doc.length : selection.main.head)
      const [indent = ''] = /^\s*/.exec(at.text) ?? []
      const inPart = /^\s*part\b/.test(at.text) ? `${indent}  ` : indent
      const insert = indented(lines, inPart)
      const empty = at.text.trim() === ''
      const from = empty ? at.from : at.to
      const text = empty ? insert : `\n${insert}`
      editor.dispatch({
        changes: { from, to: at.to, insert: text },
        selection: { anchor: from + text.length },
        scrollIntoView: true,
      })
      editor.focus()
    },
    write(next) {
      const editor = view.current
      if (!editor) return
      const change = difference(editor.state.doc.toString(), next)
      if (!change) return
      editor.dispatch({
        changes: change,
        selection: { anchor: change.from + change.insert.length },
        annotations: isolateHistory.of('full'),
        scrollIntoView: true,
      })
    },
    selectTo(line) {
      const editor = view.current
      if (!editor || line > editor.state.doc.lines) return
      const { doc, selection } = editor.state
      const [a, b] = [doc.lineAt(selection.main.anchor), doc.line(line)]
      const [anchor, head] = a.number <= b.number ? [a.from, b.to] : [a.to, b.from]
      editor.dispatch({ selection: { anchor, head }, scrollIntoView: true })
      editor.focus()
    },
    stretch() {
      const state = view.current?.state
      if (!state) return { first: 1, last: 1 }
      const { from, to } = state.selection.main
      return { first: state.doc.lineAt(from).number, last: state.doc.lineAt(to).number }
    },
    undo() {
      if (view.current) undo(view.current)
    },
    redo() {
      if (view.current) redo(view.current)
    },
  }))

  return <div className={styles.editor} ref={place} />
}

/** The one stretch in which two texts differ. */
function difference(now: string, next: string): { from: number; to: number; insert: string } | undefined {
  if (now === next) return undefined
  const shorter = Math.min(now.length, next.length)
  let from = 0
  while (from < shorter && now[from] === next[from]) from++
  let end = 0
  while (end < shorter - from && now[now.length - 1 - end] === next[next.length - 1 - end]) end++
  return { from, to: now.length - end, insert: next.slice(from, next.length - end) }
}

/** What a repeat holds stands in by two more. */
function indented(lines: readonly string[], by: string): string {
  let deeper = 0
  return lines
    .map((line) => {
      if (line === 'end') deeper--
      const text = `${by}${'  '.repeat(deeper)}${line}`
      if (/^(repeat|at|for|until)\b/.test(line)) deeper++
      return text
    })
    .join('\n')
}

function marksFor(faults: readonly Fault[], state: EditorState): Diagnostic[] {
  return faults.flatMap((fault) => {
    if (fault.line > state.doc.lines) return []
    const line = state.doc.line(fault.line)
    const from = Math.min(line.from + fault.column - 1, line.to)
    const to = Math.min(from + fault.length, state.doc.length)
    const { edit } = fault
    return [
      {
        from: Math.min(from, to),
        to,
        severity: fault.severity === 'note' ? ('info' as const) : fault.severity,
        message: fault.mend ? `${fault.message} ${fault.mend}` : fault.message,
        actions: edit
          ? [
              {
                name: edit.insert
                  ? `Write ${edit.insert.length > 24 ? `${edit.insert.slice(0, 24)}...` : edit.insert}`
                  : 'Take it away',
                apply: (view: EditorView, from: number, to: number) =>
                  view.dispatch({ changes: { from, to, insert: edit.insert } }),
              },
            ]
          : [],
      },
    ]
  })
}
