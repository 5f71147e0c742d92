import { useMutation, useQuery } from '@tanstack/react-query'
import type { PlayStandIn } from '@tessellum/contract/devices'
import { Button, InputNumber } from 'antd'
import { useState } from 'react'
import { z } from 'zod'
import { ask } from '../shop/api'
import { read } from '../shop/queries'

const state = z.object({ grams: z.number(), faults: z.array(z.string()) })
const faults = ['rubbish', 'silent', 'drift', 'shaking', 'overload'] as const

/** In the demo: what lies on the pan of the scale that is none, and what is wrong with it. */
export function StandInScale() {
  const { data } = useQuery(read.standIns)
  const [grams, setGrams] = useState<number | null>(0.4)
  const play = useMutation({
    mutationFn: (body: PlayStandIn) => ask('POST', '/stand-ins/scale', state, { body }),
  })
  if (!data?.includes('scale')) return null
  const on = new Set(play.data?.faults)
  return (
    <details className="stand-in">
      <summary className="quiet">Play the scale</summary>
      <div className="hands">
        <InputNumber aria-label="On the pan, g" min={0} max={9999} step={0.1} value={grams} onChange={setGrams} />
        <Button onClick={() => play.mutate({ grams: grams ?? 0 })}>Put on the pan</Button>
        <Button onClick={() => play.mutate({ grams: 0 })}>Take off</Button>
        <Button onClick={() => play.mutate({ drop: true })}>Pull the plug</Button>
      </div>
      <div className="hands">
        {faults.map((fault) => (
          <Button
            key={fault}
            size="small"
            type={on.has(fault) ? 'primary' : 'default'}
            aria-pressed={on.has(fault)}
            onClick={() => play.mutate({ fault, on: !on.has(fault) })}
          >
            {fault}
          </Button>
        ))}
      </div>
    </details>
  )
}
