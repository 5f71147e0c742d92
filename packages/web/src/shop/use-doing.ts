import { useMutation, useQueryClient } from '@tanstack/react-query'
import { App } from 'antd'
import { useRef } from 'react'
import { newKey, type ShopError } from './api'

interface DoingOptions<Input, Output> {
  /** Subjects that it makes stale. */
  readonly stale?: readonly string[]
  /** What is refused is told in a message, where the page has no room for it beside what was pressed. */
  readonly tell?: boolean
  /** Told when it is done. */
  readonly said?: string | ((output: Output, input: Input) => string)
  readonly after?: (output: Output, input: Input) => void
}

/**
 * Something a person does that must be done once: pressed twice, or sent again after the line broke, it carries the same key; another input is
 * another thing to do. What is refused is for the page to show, beside what was typed.
 */
export function useDoing<Input, Output>(
  act: (input: Input, key: string) => Promise<Output>,
  { stale = [], tell = false, said, after }: DoingOptions<Input, Output> = {},
) {
  const client = useQueryClient()
  const { message } = App.useApp()
  const keys = useRef(new Map<string, string>())
  const { mutate, isPending, error, reset, variables } = useMutation<Output, ShopError, Input>({
    mutationFn: (input) => {
      const what = JSON.stringify(input) ?? ''
      const key = keys.current.get(what) ?? newKey()
      keys.current.set(what, key)
      return act(input, key)
    },
    onSuccess: (output, input) => {
      keys.current.clear()
      for (const subject of stale) void client.invalidateQueries({ queryKey: [subject] })
      if (said) void message.success(typeof said === 'string' ? said : said(output, input))
      after?.(output, input)
    },
    onError: ({ message: what, hint = '' }) => {
      // Often it is refused because somebody else was faster: the page shows what is so now.
      for (const subject of stale) void client.invalidateQueries({ queryKey: [subject] })
      if (tell) void message.error(`${what} ${hint}`)
    },
  })
  return { run: mutate, busy: isPending, refused: error, forget: reset, doing: variables }
}
