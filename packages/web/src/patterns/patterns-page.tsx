import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { PatternSummary } from '@tessellum/contract/patterns'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { Button } from 'antd'
import { type ReactNode, useState } from 'react'
import { Link } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { FlatPiece } from '../piece/flat-piece'
import { read } from '../shop/queries'
import { BeginPattern } from './begin-pattern'
import { FileDrop } from './open-file'
import { useChosen } from './use-chosen'

export function PatternsPage() {
  usePageTitle('Patterns')
  const mayWrite = useMay('patterns.write')
  const { data: patterns, error } = useQuery(read.patterns)
  const [beginning, setBeginning] = useState(false)
  if (error && !patterns) return <Trouble error={error} />
  const cards = (button: ReactNode) => (
    <div className="page">
      <div className="page-head">
        <h1>Patterns</h1>
        <span className="spacer" />
        {button}
        {mayWrite && (
          <Button type="primary" onClick={() => setBeginning(true)}>
            Begin a pattern
          </Button>
        )}
      </div>
      {beginning && <BeginPattern close={() => setBeginning(false)} />}
      {!patterns && <Loading what="Fetching the patterns" />}
      {patterns?.length === 0 && (
        <div className="empty sheet">
          <h2>No patterns yet</h2>
          <p>Begin one: it asks what it is to be, and opens with its first beads.</p>
        </div>
      )}
      <div className="pattern-cards">
        {(patterns ?? []).map((pattern) => (
          <Card key={pattern.id} pattern={pattern} />
        ))}
      </div>
    </div>
  )
  return mayWrite ? <FileDrop>{cards}</FileDrop> : cards(null)
}

/** As the shop has drawn it: nothing is computed here. */
function Card({ pattern: { id, title, version, changed, drawing } }: { pattern: PatternSummary }) {
  const { data: items } = useQuery(read.items)
  const { data: colourways } = useQuery(read.colourways(id))
  const { data: view } = useQuery({
    ...read.drawing(id, drawing?.digest ?? ''),
    enabled: drawing !== null && drawing.why === null,
    // The drawing before stands until there is another.
    placeholderData: keepPreviousData,
  })
  const chosen = useChosen(colourways?.[0], drawing?.size ?? '', items)
  const colours = { ...roleColours(drawing?.roles ?? []), ...chosen.colours }
  return (
    <Link className="pattern-card sheet" to={`/patterns/${id}`}>
      <div className="plate">
        {view ? (
          <FlatPiece view={view} colours={colours} label={`${title}, drawn`} />
        ) : (
          <span className="quiet">{drawing ? drawing.why : 'Not drawn yet'}</span>
        )}
      </div>
      <div className="about">
        <h2>{title}</h2>
        <div className="quiet">
          {version ? `version ${version}${changed ? ', changed since' : ''}` : 'draft'}
          {colourways && colourways.length > 0
            ? `, ${colourways.length} colourway${colourways.length === 1 ? '' : 's'}`
            : ''}
        </div>
        {drawing && (
          <div className="figures">
            {drawing.beads} beads{drawing.pair ? ' the pair' : ''}
            {drawing.sizes.length > 1 ? `, ${drawing.sizes.join(' and ')}` : ''}
          </div>
        )}
      </div>
    </Link>
  )
}
