import { useMutation, useQueryClient } from '@tanstack/react-query'
import { App } from 'antd'
import type { ShopError } from './api'

interface MutationOptions<Input, Output> {
  /** Subjects that it makes stale. */
  readonly stale?: readonly string[]
  /** What is refused is told in a message, where the page has no room for it beside what was pressed. */
  readonly tell?: boolean
  /** Told when it is done. */
  readonly said?: string | ((output: Output, input: Input) => string)
  readonly after?: (output: Output, input: Input) => void
}

/** How often the rest of an answer is asked for, after what was asked is done. */
const maxAsked = 5

/** Something a person does that must be done once. What is refused is for the page to show, beside what was typed. */
export function useIdempotentMutation<Input, Output>(
  act: (input: Input) => Promise<Output>,
  { stale = [], tell = false, said, after }: MutationOptions<Input, Output> = {},
) {
  const client = useQueryClient()
  const { message } = App.useApp()
  const { mutate, isPending, error, reset, variables } = useMutation<Output, ShopError, Input>({
    mutationFn: act,
    retry: (times, { code }) => code === 'done' && times < maxAsked,
    retryDelay: 500,
    onSuccess: (output, input) => {
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
