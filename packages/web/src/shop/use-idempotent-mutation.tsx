import { type MutateOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { message } from 'antd'
import { useRef } from 'react'
import { isUnreachable, type ShopError } from './api'
import { offerUndo } from './offered-undo'
import { SaidWithUndo } from './said-with-undo'

interface MutationOptions<Input, Output> {
  /** Subjects that it makes stale. */
  readonly stale?: readonly string[]
  /** What is refused is told in a message, where the page has no room for it beside what was pressed. */
  readonly tell?: boolean
  /** Told when it is done. */
  readonly said?: string | ((output: Output, input: Input) => string)
  /** What takes it back, where the shop can: offered beside what is told. */
  readonly undo?: (output: Output, input: Input) => (() => Promise<unknown>) | undefined
  readonly after?: (output: Output, input: Input) => void
  /**
   * What it changes, where its answer is that thing as it is then: changes of the same thing go to the shop one after the other, or the answer
   * to an earlier one might come last, and be what is shown. The same change asked for twice, by Enter and by leaving a field, is one.
   */
  readonly of?: string
}

interface Undoable {
  readonly words: string
  readonly back: () => Promise<unknown>
}

/** How often the rest of an answer is asked for, after what was asked is done. */
const maxAsked = 5

const asked = {
  retry: (times: number, { code }: ShopError) => code === 'done' && times < maxAsked,
  retryDelay: 500,
}

/** An input as text, to tell whether two are the same; one that is undefined too has a text. */
const asText = (input: unknown) => JSON.stringify([input])

/** How long what is told stands, and can be undone, s. */
const undoSeconds = 12

/** Something a person does that must be done once. What is refused is for the page to show, beside what was typed. */
export function useIdempotentMutation<Input, Output>(
  act: (input: Input) => Promise<Output>,
  { stale = [], tell = false, said, undo, after, of }: MutationOptions<Input, Output> = {},
) {
  const client = useQueryClient()
  const inTurn = of === undefined ? {} : { scope: { id: of } }
  /** What was asked for last, until it is answered. */
  const last = useRef<string>(undefined)
  const refresh = () => {
    for (const subject of stale) void client.invalidateQueries({ queryKey: [subject] })
  }
  const tellRefused = ({ message: what, hint = '' }: ShopError) => void message.error(`${what} ${hint}`)
  const { mutate: takeBack } = useMutation<unknown, ShopError, Undoable>({
    mutationFn: ({ back }) => back(),
    ...asked,
    ...inTurn,
    onSuccess: () => {
      refresh()
      void message.success('Undone.')
    },
    onError: (refused, undoable) => {
      refresh()
      tellRefused(refused)
      if (isUnreachable(refused)) offer(undoable)
    },
  })
  const offer = ({ words, back }: Undoable) => {
    const undoIt = offerUndo(() => {
      close()
      takeBack({ words, back })
    })
    const close = message.success(<SaidWithUndo said={words} undo={undoIt.run} />, undoSeconds, undoIt.withdraw)
  }
  const { mutate, isPending, error, reset, variables } = useMutation<Output, ShopError, Input>({
    mutationFn: act,
    ...asked,
    ...inTurn,
    onSuccess: (output, input) => {
      refresh()
      const words = typeof said === 'function' ? said(output, input) : said
      const back = undo?.(output, input)
      if (words !== undefined && back) offer({ words, back })
      else if (words !== undefined) void message.success(words)
      after?.(output, input)
    },
    onSettled: (_, __, input) => {
      if (last.current === asText(input)) last.current = undefined
    },
    onError: (refused) => {
      // Often it is refused because somebody else was faster: the page shows what is so now.
      refresh()
      if (tell) tellRefused(refused)
    },
  })
  const run = (input: Input, options: MutateOptions<Output, ShopError, Input> = {}) => {
    const wanted = asText(input)
    if (of !== undefined && last.current === wanted) return
    last.current = wanted
    mutate(input, options)
  }
  return { run, busy: isPending, refused: error, forget: reset, doing: variables }
}
