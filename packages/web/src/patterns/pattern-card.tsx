import { MoreOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import type { PatternSummary } from '@tessellum/contract/patterns'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { counted } from '@tessellum/core/measure/counted'
import { sayDuration } from '@tessellum/core/measure/units'
import { Button, Dropdown, Modal } from 'antd'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { KeptDrawing } from './kept-drawing'
import styles from './library.module.css'
import { DescribeDialog, RenameDialog } from './pattern-dialogs'
import { useChosen } from './use-chosen'

/** A pattern as the shop has drawn it: nothing is computed here. */
export function PatternCard({ pattern, mayWrite }: { pattern: PatternSummary; mayWrite: boolean }) {
  const { id, title, version, changed, drawing, tags, season, place } = pattern
  const { data: items } = useQuery(read.items)
  const { data: colourways } = useQuery(read.colourways(id))
  const chosen = useChosen(colourways?.[0], drawing?.size ?? '', items)
  const described = [season, ...tags].filter(Boolean)
  return (
    <article className={`sheet ${styles.card}`} aria-label={title}>
      <Link to={`/patterns/${id}`} className={styles.open}>
        <div className={styles.plate}>
          <KeptDrawing
            patternId={id}
            title={title}
            digest={drawing && drawing.why === null ? drawing.digest : undefined}
            colours={{ ...roleColours(drawing?.roles ?? []), ...chosen.colours }}
            none={<span className="quiet">{drawing ? drawing.why : 'Not drawn yet'}</span>}
          />
        </div>
        <div className={styles.about}>
          <h2>{title}</h2>
          <div className="quiet">
            {version ? `version ${version}${changed ? ', changed since' : ''}` : 'draft'}
            {colourways && colourways.length > 0 ? `, ${counted(colourways.length, 'colourway')}` : ''}
          </div>
          {drawing && (
            <div className="figures">
              {counted(drawing.beads, 'bead')}
              {drawing.pair ? ' the pair' : ''}
              {drawing.sizes.length > 1 ? `, ${drawing.sizes.join(' and ')}` : ''}
            </div>
          )}
          {drawing && drawing.level !== '' && (
            <div className="quiet figures">
              {drawing.level}
              {drawing.minutes !== null && `, about ${sayDuration(drawing.minutes)}`}
            </div>
          )}
          {described.length > 0 && <div className={styles.tags}>{described.join(', ')}</div>}
        </div>
      </Link>
      {mayWrite && <CardMenu pattern={pattern} thrown={place === 'thrown away'} />}
    </article>
  )
}

type Act = 'put-away' | 'take-out' | 'throw-away' | 'bring-back'

const said: Readonly<Record<Act, string>> = {
  'put-away': 'is put away. It stands under "put away".',
  'take-out': 'is in the shop again.',
  'throw-away': 'is thrown away. It can be brought back for thirty days.',
  'bring-back': 'is back.',
}

const undoneBy: Readonly<Record<Act, Act>> = {
  'put-away': 'take-out',
  'take-out': 'put-away',
  'throw-away': 'bring-back',
  'bring-back': 'throw-away',
}

function CardMenu({ pattern, thrown }: { pattern: PatternSummary; thrown: boolean }) {
  const { id, title, version, place } = pattern
  const navigate = useNavigate()
  const [dialog, setDialog] = useState<'rename' | 'describe'>()
  const stale = ['library', 'patterns']
  const act = useIdempotentMutation((what: Act) => call(`POST /api/patterns/:id/${what}`, { params: { id } }), {
    stale,
    tell: true,
    said: (_, what) => `${title} ${said[what]}`,
    undo: (_, what) => () => call(`POST /api/patterns/:id/${undoneBy[what]}`, { params: { id } }),
  })
  const copy = useIdempotentMutation((_: null) => call('POST /api/patterns/:id/copy', { params: { id } }), {
    stale,
    tell: true,
    after: (made) => void navigate(`/patterns/${made.id}`),
  })
  const acts: Readonly<Record<string, () => void>> = {
    copy: () => copy.run(null),
    rename: () => setDialog('rename'),
    describe: () => setDialog('describe'),
    'put-away': () => act.run('put-away'),
    'take-out': () => act.run('take-out'),
    'bring-back': () => act.run('bring-back'),
    'throw-away': () =>
      void Modal.confirm({
        title: `Throw ${title} away?`,
        content: 'For thirty days it can be brought back.',
        okText: 'Throw it away',
        cancelText: 'Leave it',
        onOk: () => act.run('throw-away'),
      }),
  }
  const items = thrown
    ? [{ key: 'bring-back', label: 'Bring back' }]
    : [
        { key: 'copy', label: 'Copy' },
        { key: 'rename', label: 'Rename' },
        { key: 'describe', label: 'Tags and season' },
        place === 'put away' ? { key: 'take-out', label: 'Take out again' } : { key: 'put-away', label: 'Put away' },
        ...(version === null ? [{ key: 'throw-away', label: 'Throw away', danger: true }] : []),
      ]
  return (
    <>
      <Dropdown trigger={['click']} menu={{ items, onClick: ({ key }) => acts[key]?.() }}>
        <Button
          className={styles.more ?? ''}
          size="small"
          aria-label={`What to do with ${title}`}
          icon={<MoreOutlined />}
          loading={act.busy || copy.busy}
        />
      </Dropdown>
      {dialog === 'rename' && <RenameDialog pattern={pattern} close={() => setDialog(undefined)} />}
      {dialog === 'describe' && <DescribeDialog pattern={pattern} close={() => setDialog(undefined)} />}
    </>
  )
}
