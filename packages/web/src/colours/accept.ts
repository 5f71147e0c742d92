import { useQueryClient } from '@tanstack/react-query'
import type { SubstituteInLine } from '@tessellum/contract/batches'
import type { Colourway } from '@tessellum/contract/colourways'
import { withAnother } from '@tessellum/core/kit/choice'
import { useNavigate } from 'react-router'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

/** A line of a batch that a substitute is looked for; `line` is counted from 1. */
export interface ForLine {
  readonly batchId: number
  readonly line: number
}

/** Takes a substitute: for the colourway as it is in a size from now on, or for one line of one batch and nothing else. */
export function useAccept(colourway: Colourway, size: string, close: () => void) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const forColourway = useIdempotentMutation(
    ({ role, itemId, counting }: SubstituteInLine) =>
      call('PUT /api/colourways/:id', {
        params: { id: colourway.id },
        body: {
          name: colourway.name,
          choices: withAnother(colourway.choices, { role, itemId, counting: counting ?? 'all' }, size),
        },
      }),
    {
      stale: ['colourways'],
      said: ({ name, version }) => `${name} is version ${version} now. Batches keep the one they were planned with.`,
      after: close,
    },
  )
  const forBatch = useIdempotentMutation(
    ({ at, ...body }: SubstituteInLine & { at: ForLine }) =>
      call('POST /api/batches/:id/lines/:line/substitute', { params: { id: at.batchId, line: at.line }, body }),
    {
      said: ({ name }) => `${name} has it; ${colourway.name} stays as it is for everything else.`,
      after: (saved) => {
        client.setQueryData(read.batch(saved.id).queryKey, saved)
        void navigate(`/kits/${saved.id}`)
      },
    },
  )
  return { forColourway, forBatch }
}
