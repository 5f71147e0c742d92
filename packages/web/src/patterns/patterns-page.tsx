import { useInfiniteQuery } from '@tanstack/react-query'
import { type LibraryWanted, patternPlace } from '@tessellum/contract/patterns'
import { counted } from '@tessellum/core/measure/counted'
import { levels } from '@tessellum/core/report/level'
import { Button, Input, Segmented, Select } from 'antd'
import { type ReactNode, useDeferredValue, useState } from 'react'
import { useSearchParams } from 'react-router'
import { Loading } from '../frame/loading'
import { PageHead, Toolbar } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import { BeginPattern } from './begin-pattern'
import styles from './library.module.css'
import { FileDrop } from './open-file'
import { PatternCard } from './pattern-card'

type Filter = Pick<LibraryWanted, 'find' | 'place' | 'level' | 'hours'>

/** Working hours of somebody with practice. */
const times = [1, 2, 4, 8] as const

/** The patterns, page by page, found by anything that is in them. */
export function PatternsPage() {
  usePageTitle('Patterns')
  const mayWrite = useMay('patterns.write')
  const [params, setParams] = useSearchParams()
  // Kept here, where two quick changes cannot overtake each other, and told to the address, where it outlives a reload.
  const [filter, setFilter] = useState<Filter>(() => ({
    find: params.get('find') ?? '',
    place: patternPlace.options.find((each) => each === params.get('place')) ?? 'in the shop',
    level: levels.find((each) => each === params.get('level')) ?? '',
    hours: times.find((each) => String(each) === params.get('hours')),
  }))
  const change = (next: Partial<Filter>) => {
    const now = { ...filter, ...next }
    setFilter(now)
    const { find, place, level, hours } = now
    setParams(
      {
        ...(find ? { find } : {}),
        ...(place === 'in the shop' ? {} : { place }),
        ...(level ? { level } : {}),
        ...(hours ? { hours: String(hours) } : {}),
      },
      { replace: true },
    )
  }
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery(
    read.library(useDeferredValue(filter)),
  )
  const [beginning, setBeginning] = useState(false)
  if (error && !data) return <Trouble error={error} />
  const patterns = data?.pages.flatMap((page) => page.patterns)
  const [first] = data?.pages ?? []
  const { find, place, level, hours } = filter
  const filtered = find !== '' || level !== '' || hours !== undefined
  const cards = (button: ReactNode) => (
    <div className="page">
      <PageHead title="Patterns" beside={first && <span className="quiet figures">{first.total}</span>}>
        {button}
        {mayWrite && (
          <Button type="primary" onClick={() => setBeginning(true)}>
            Begin a pattern
          </Button>
        )}
      </PageHead>
      <Toolbar>
        <Segmented
          aria-label="Where"
          value={place}
          onChange={(next) => change({ place: next })}
          options={[...patternPlace.options]}
        />
        <span className="spacer" />
        <Select
          aria-label="Level"
          className={styles.filter ?? ''}
          value={level}
          onChange={(next) => change({ level: next })}
          options={[{ value: '', label: 'any level' }, ...levels.map((value) => ({ value, label: value }))]}
        />
        <Select
          aria-label="Time"
          className={styles.filter ?? ''}
          value={hours ?? 0}
          onChange={(next) => change({ hours: next || undefined })}
          options={[
            { value: 0, label: 'any time' },
            ...times.map((value) => ({ value, label: `up to ${counted(value, 'hour')}` })),
          ]}
        />
        <Input.Search
          aria-label="Find a pattern"
          placeholder="Title, tag, bead, stitch, size"
          allowClear
          className={styles.find ?? ''}
          value={find}
          onChange={({ target }) => change({ find: target.value })}
        />
      </Toolbar>
      {first?.tags && first.tags.length > 0 && (
        <p className="quiet">
          Tags:{' '}
          {first.tags.map((tag) => (
            <Button key={tag} size="small" type="link" onClick={() => change({ find: tag })}>
              {tag}
            </Button>
          ))}
        </p>
      )}
      {beginning && <BeginPattern close={() => setBeginning(false)} />}
      {!patterns && <Loading what="Fetching the patterns" />}
      {patterns?.length === 0 && <None filtered={filtered} place={place} />}
      <div className={styles.cards}>
        {(patterns ?? []).map((pattern) => (
          <PatternCard key={pattern.id} pattern={pattern} mayWrite={mayWrite} />
        ))}
      </div>
      {hasNextPage && (
        <p className={styles.seeMore}>
          <Button onClick={() => void fetchNextPage()} loading={isFetchingNextPage}>
            More patterns
          </Button>
        </p>
      )}
    </div>
  )
  return mayWrite ? <FileDrop>{cards}</FileDrop> : cards(null)
}

function None({ filtered, place }: { filtered: boolean; place: Filter['place'] }) {
  const [title, says] = filtered
    ? ['None fits', 'Use fewer words or filters.']
    : place === 'put away'
      ? ['None is put away', 'What is put away is not offered any more, and can be taken out again.']
      : place === 'thrown away'
        ? ['None is thrown away', 'A draft that is thrown away can be brought back for thirty days.']
        : ['No patterns yet', 'Begin one: it asks what it is to be, and opens with its first beads.']
  return (
    <div className="empty sheet">
      <h2>{title}</h2>
      <p>{says}</p>
    </div>
  )
}
