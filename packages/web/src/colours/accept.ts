import { useQueryClient } from '@tanstack/react-query'
import { batch as batchAnswer, type SubstituteInLine } from '@tessellum/contract/batches'
import { type Colourway, colourway as colourwayAnswer } from '@tessellum/contract/colourways'
import { useNavigate } from 'react-router'
import { ask } from '../shop/api'
import { useDoing } from '../shop/use-doing'

/** A line of a batch that a substitute is looked for; `line` is counted from 1. */
export interface ForLine {
  readonly batchId: number
  readonly line: number
}

/** Takes a substitute: for the colourway from now on, or for one line of one batch and nothing else. */
export function useAccept(colourway: Colourway, close: () => void) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const forColourway = useDoing(
    ({ role, itemId, counting }: SubstituteInLine) =>
      ask('PUT', `/colourways/${colourway.id}`, colourwayAnswer, {
        body: {
          name: colourway.name,
          choices: [
            ...colourway.choices.filter((choice) => choice.role !== role),
            { role, size: '', itemId, counting: counting ?? 'all' },
          ],
        },
      }),
    {
      stale: ['colourways'],
      said: ({ name, version }) => `${name} is version ${version} now. Batches keep the one they were planned with.`,
      after: close,
    },
  )
  const forBatch = useDoing(
    ({ at, ...body }: SubstituteInLine & { at: ForLine }) =>
      ask('POST', `/batches/${at.batchId}/lines/${at.line}/substitute`, batchAnswer, { body }),
    {
      said: ({ name }) => `${name} has it; ${colourway.name} stays as it is for everything else.`,
      after: (saved) => {
        client.setQueryData(['batches', saved.id], saved)
        void navigate(`/kits/${saved.id}`)
      },
    },
  )
  return { forColourway, forBatch }
}
