import { useMutation, useQueryClient } from '@tanstack/react-query'
import { batch as batchAnswer, type SubstituteInLine } from '@tessellum/contract/batches'
import { type Colourway, colourway as colourwayAnswer } from '@tessellum/contract/colourways'
import { App } from 'antd'
import { useNavigate } from 'react-router'
import { ask, newKey } from '../shop/api'

/** A line of a batch that a substitute is looked for; `line` is counted from 1. */
export interface ForLine {
  readonly batchId: number
  readonly line: number
}

/** Takes a substitute: for the colourway from now on, or for one line of one batch and nothing else. */
export function useAccept(colourway: Colourway, close: () => void) {
  const client = useQueryClient()
  const { message } = App.useApp()
  const navigate = useNavigate()
  const forColourway = useMutation({
    mutationFn: ({ role, itemId, counting }: SubstituteInLine) =>
      ask('PUT', `/colourways/${colourway.id}`, colourwayAnswer, {
        body: {
          name: colourway.name,
          choices: [
            ...colourway.choices.filter((choice) => choice.role !== role),
            { role, size: '', itemId, counting: counting ?? 'all' },
          ],
        },
      }),
    onSuccess: (saved) => {
      void client.invalidateQueries({ queryKey: ['colourways', colourway.patternId] })
      void message.success(
        `${saved.name} is version ${saved.version} now. Batches keep the one they were planned with.`,
      )
      close()
    },
  })
  const forBatch = useMutation({
    mutationFn: ({ at, ...substitute }: SubstituteInLine & { at: ForLine }) =>
      ask('POST', `/batches/${at.batchId}/lines/${at.line}/substitute`, batchAnswer, {
        body: substitute,
        key: newKey(),
      }),
    onSuccess: (saved) => {
      client.setQueryData(['batches', saved.id], saved)
      void message.success(`${saved.name} has it; ${colourway.name} stays as it is for everything else.`)
      void navigate(`/kits/${saved.id}`)
    },
  })
  return { forColourway, forBatch }
}
