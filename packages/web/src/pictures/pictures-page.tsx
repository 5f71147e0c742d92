import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Picture, Pictures } from '@tessellum/contract/pictures'
import { picturesAside } from '@tessellum/core/writing/pictures'
import { stepKeys } from '@tessellum/core/writing/write-pattern'
import { Button } from 'antd'
import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { PatternNav } from '../patterns/pattern-nav'
import { useEvaluated } from '../patterns/use-evaluated'
import { useMay } from '../people/me'
import { addressOf, call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { AddPictures } from './add-pictures'
import { CropPicture } from './crop-picture'
import { PictureCard } from './picture-card'
import styles from './pictures.module.css'

export function PicturesPage() {
  const id = Number(useParams().id)
  const pattern = useQuery(read.pattern(id))
  const pictures = useQuery(read.pictures(id))
  const error = pattern.error ?? pictures.error
  if (error && !(pattern.data && pictures.data)) return <Trouble error={error} />
  if (!pattern.data || !pictures.data) return <PageLoading what="Fetching the pictures" />
  return <PicturesOf pattern={pattern.data} all={pictures.data} />
}

const usualSize = {}

/** The pictures of a pattern, in the order in which its written pattern has them. */
function PicturesOf({ pattern, all }: { pattern: Pattern; all: Pictures }) {
  usePageTitle(`Pictures of ${pattern.title}`)
  const mayWrite = useMay('patterns.write')
  const client = useQueryClient()
  const [cropping, setCropping] = useState<Picture>()
  const { now } = useEvaluated(pattern.source, usualSize)
  const steps = useMemo(
    () =>
      now
        ? stepKeys(now).map((key, i) => ({ key, label: `${now.statements[i]?.line ?? ''}: ${key.text}` }))
        : undefined,
    [now],
  )
  const { pictures, removed } = all
  const keep = (answer: Pictures) => client.setQueryData(read.pictures(pattern.id).queryKey, answer)
  const done = { of: `pictures ${pattern.id}`, stale: ['pictures', 'editions'], after: keep }
  const order = useIdempotentMutation(
    (ids: number[]) => call('PUT /api/patterns/:id/pictures/order', { params: { id: pattern.id }, body: { ids } }),
    done,
  )
  const putBack = useIdempotentMutation(
    (id: number) => call('POST /api/pictures/:id/put-back', { params: { id } }),
    done,
  )
  const move = (from: number, to: number) => {
    const ids = pictures.map(({ id }) => id)
    const [moved] = ids.splice(from, 1)
    if (moved !== undefined) order.run([...ids.slice(0, to), moved, ...ids.slice(to)])
  }
  const aside = steps
    ? picturesAside(
        pictures,
        steps.map(({ key }) => key),
      )
    : []
  return (
    <div className="page stack">
      <PatternNav id={pattern.id} />
      <PageHead title={<>Pictures of {pattern.title}</>}>
        <Link to={`/patterns/${pattern.id}/written?version=draft`}>See them in the written pattern</Link>
      </PageHead>
      <p className="quiet">
        The first picture of the finished piece is the cover. Pictures of steps and of mistakes stand beside the step
        they show. A version keeps the pictures it was published with.
      </p>
      {mayWrite && <AddPictures patternId={pattern.id} keep={keep} />}
      <ErrorNotice error={order.refused ?? putBack.refused} />
      {pictures.length === 0 && <p>There are no pictures of this pattern yet.</p>}
      <ol className={styles.list} aria-label="Pictures">
        {pictures.map((picture, i) => (
          <PictureCard
            key={picture.id}
            picture={picture}
            steps={steps}
            aside={aside.includes(picture)}
            place={{ number: i + 1, of: pictures.length }}
            mayWrite={mayWrite}
            move={(by) => move(i, i + by)}
            crop={() => setCropping(picture)}
            keep={keep}
          />
        ))}
      </ol>
      {removed.length > 0 && (
        <details>
          <summary>
            {removed.length} removed: {removed.length === 1 ? 'it' : 'they'} can be put back for thirty days
          </summary>
          <ul className={styles.removed} aria-label="Removed pictures">
            {removed.map(({ id, caption }) => (
              <li key={id}>
                <img
                  src={addressOf('GET /api/pictures/:id/:size', { params: { id, size: 'small' } })}
                  alt={caption || `Picture ${id}`}
                />
                {mayWrite && (
                  <Button
                    size="small"
                    onClick={() => putBack.run(id)}
                    aria-label={`Put back ${caption || `picture ${id}`}`}
                  >
                    Put back
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </details>
      )}
      {cropping && <CropPicture picture={cropping} keep={keep} close={() => setCropping(undefined)} />}
    </div>
  )
}
