import { useQuery } from '@tanstack/react-query'
import type { Edition, EditionWanted } from '@tessellum/contract/editions'
import type { Pattern } from '@tessellum/contract/patterns'
import { papers } from '@tessellum/contract/settings'
import { fileName } from '@tessellum/core/writing/file-name'
import { pageStyle } from '@tessellum/core/writing/html'
import { type LanguageCode, languageCodes } from '@tessellum/core/writing/language'
import { languages } from '@tessellum/core/writing/languages'
import { type Density, densities, type Sheet, sheets } from '@tessellum/core/writing/layout'
import { Button, Dropdown, Input, message, Segmented, Select } from 'antd'
import { useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { computed } from '../computed'
import { HandChoice, useHandedness } from '../frame/hand-choice'
import { Loading } from '../frame/loading'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { PatternNav } from '../patterns/pattern-nav'
import { useMay } from '../people/me'
import { useShopSettings } from '../settings/use-shop-settings'
import { addressOf } from '../shop/api'
import { read } from '../shop/queries'
import { download } from './download'
import { OwnWords } from './own-words'
import { logoAt, pictureAt, withPictures } from './picture-files'
import { Publish } from './publish'
import type { Page } from './write-tasks'
import styles from './written-page.module.css'

export function WrittenPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Written pattern={data} /> : <PageLoading what="Fetching the pattern" />
}

const sheetWords: Readonly<Record<Sheet, string>> = {
  sale: 'For sale',
  class: 'Class sheet',
  card: 'Bench card',
  large: 'Large type',
}

const densityWords: Readonly<Record<Density, string>> = {
  step: 'A drawing each step',
  round: 'A drawing each round',
  part: 'A drawing each part',
}

/** The written pattern on a page that prints as it is, and as files. */
function Written({ pattern }: { pattern: Pattern }) {
  const [params, setParams] = useSearchParams()
  const change = (changes: Readonly<Record<string, string>>) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before)
        for (const [name, value] of Object.entries(changes)) next.set(name, value)
        if (changes.colourway !== undefined) next.delete('colourwayVersion')
        return next
      },
      { replace: true },
    )
  const mayWrite = useMay('patterns.write')
  const [open, setOpen] = useState<'words' | 'publish'>()
  const { data: colourways } = useQuery(read.colourways(pattern.id))
  const asked = params.get('version')
  const version = asked === 'draft' ? undefined : Number(asked) || pattern.version || undefined
  const { documents } = useShopSettings()
  const paper = papers.find((each) => each === params.get('paper')) ?? documents.paper
  const language: LanguageCode = languageCodes.find((each) => each === params.get('language')) ?? documents.language
  const sheet = sheets.find((each) => each === params.get('sheet')) ?? 'sale'
  const density = densities.find((each) => each === params.get('drawings')) ?? 'step'
  const hand = useHandedness()
  const none = params.get('colourway') === 'none'
  const colourway = none
    ? undefined
    : (colourways?.find((each) => each.id === Number(params.get('colourway'))) ?? colourways?.[0])
  const kept = params.get('colourwayVersion')
  const wanted: EditionWanted = {
    size: params.get('size') ?? '',
    ...(version === undefined ? {} : { version }),
    ...(colourway ? { colourway: colourway.id } : {}),
    ...(colourway && kept ? { colourwayVersion: kept } : {}),
  }
  const seat = sheet === 'class' ? (params.get('seat') ?? '') : ''
  const chosen = params.get('chosen') ?? ''
  const gathered = useQuery({
    ...read.edition(pattern.id, wanted),
    enabled: colourways !== undefined,
    placeholderData: (before) => before,
  })
  const edition = gathered.data
  const page = useQuery({
    ...computed.written(edition, language, hand, {
      sheet,
      density,
      style: documents,
      logo: edition && logoAddress(edition),
      seat: seat ? { name: seat, chosen } : undefined,
      pictures: edition && pictureAddresses(edition),
    }),
    placeholderData: (before) => before,
  })
  usePageTitle(`${pattern.title}, written`)
  const trouble = gathered.error ?? page.error
  if (trouble) return <Trouble error={trouble} />
  if (!page.data || !edition || !colourways) return <Loading what="Writing" />
  const { written, body, sizes, size, why, aside } = page.data
  const document = addressOf('GET /api/patterns/:id/document.pdf', {
    params: { id: pattern.id },
    query: { ...wanted, size, paper, language, sheet, drawings: density, hand, ...(seat ? { seat, chosen } : {}) },
  })
  const versions = pattern.versions.map(({ number, name, published }) => ({
    value: String(number),
    label: `${number}: ${name}${published ? ', published' : ''}`,
  }))
  return (
    <>
      <PatternNav id={pattern.id} chosen={{ size, colourway: colourway ? String(colourway.id) : undefined }} />
      <div className={`no-print page ${styles.tools}`}>
        <Select
          aria-label="Version"
          className={styles.version ?? ''}
          value={version === undefined ? 'draft' : String(version)}
          onChange={(value) => change({ version: value })}
          options={[...versions, { value: 'draft', label: 'The draft' }]}
        />
        {sizes.length > 1 && (
          <Segmented
            aria-label="Size"
            value={size}
            options={[...sizes]}
            onChange={(value) => change({ size: String(value) })}
          />
        )}
        <Select
          aria-label="Colourway"
          className={styles.colourway ?? ''}
          value={colourway ? String(colourway.id) : 'none'}
          onChange={(value) => change({ colourway: value })}
          options={[
            ...colourways.map((each) => ({ value: String(each.id), label: each.name })),
            { value: 'none', label: 'No colourway' },
          ]}
        />
        <Select
          aria-label="Sheet"
          className={styles.sheet ?? ''}
          value={sheet}
          onChange={(value) => change({ sheet: value })}
          options={sheets.map((value) => ({ value, label: sheetWords[value] }))}
        />
        {sheet !== 'card' && (
          <Select
            aria-label="Drawings"
            className={styles.drawings ?? ''}
            value={density}
            onChange={(value) => change({ drawings: value })}
            options={densities.map((value) => ({ value, label: densityWords[value] }))}
          />
        )}
        <HandChoice />
        <Select
          aria-label="Language"
          className={styles.language ?? ''}
          value={language}
          onChange={(value) => change({ language: value })}
          options={Object.values(languages).map(({ code, name }) => ({ value: code, label: name }))}
        />
        <Segmented
          aria-label="Paper"
          value={paper}
          options={[
            { value: 'A4', label: 'A4' },
            { value: 'LETTER', label: 'Letter' },
          ]}
          onChange={(value) => change({ paper: String(value) })}
        />
        <span className="spacer" />
        {mayWrite && version === undefined && <Button onClick={() => setOpen('words')}>Own words</Button>}
        {mayWrite && <Button onClick={() => setOpen('publish')}>Check and publish</Button>}
        <Files pattern={pattern} page={page.data} />
        <Button onClick={() => window.print()}>Print</Button>
        <Button type="primary" href={document}>
          Download the PDF
        </Button>
      </div>
      {sheet === 'class' && (
        <div className={`no-print page ${styles.tools}`}>
          <label htmlFor="seat">Seat for</label>
          <Input
            id="seat"
            className={styles.forWhom ?? ''}
            maxLength={80}
            value={seat}
            onChange={(event) => change({ seat: event.target.value })}
          />
          <label htmlFor="chosen">who chose</label>
          <Input
            id="chosen"
            className={styles.heading ?? ''}
            maxLength={120}
            value={chosen}
            placeholder={[size, colourway?.name].filter(Boolean).join(', ')}
            onChange={(event) => change({ chosen: event.target.value })}
          />
        </div>
      )}
      {why && (
        <p className="notice no-print" role="status">
          {why}
        </p>
      )}
      {aside.length > 0 && version === undefined && (
        <p className="notice no-print" role="status">
          Some of your own words no longer match a step.{' '}
          <Button size="small" onClick={() => setOpen('words')}>
            Look at them
          </Button>
        </p>
      )}
      <style>{pageStyle}</style>
      <div
        className={`${styles.page} ${page.isFetching ? styles.stale : ''}`}
        // biome-ignore lint/security/noDangerouslySetInnerHtml: the core escapes all that a person has typed, and a test tries to break it
        dangerouslySetInnerHTML={{ __html: body }}
      />
      {open === 'words' && (
        <OwnWords
          pattern={pattern}
          written={written}
          words={edition.words}
          aside={aside}
          close={() => setOpen(undefined)}
        />
      )}
      {open === 'publish' && <Publish pattern={pattern} edition={wanted} close={() => setOpen(undefined)} />}
    </>
  )
}

const logoAddress = ({ shop: { logo } }: Edition) => (logo ? logoAt(logo.digest) : undefined)

const pictureAddresses = ({ pictures }: Edition) => Object.fromEntries(pictures.map(({ id }) => [id, pictureAt(id)]))

/** The open forms of a pattern. */
function Files({ pattern, page }: { pattern: Pattern; page: Page }) {
  const fetchFile = (name: string, text: string, type: string) =>
    withPictures(text).then(
      (whole) => download(name, whole, type),
      ({ message: what }: Error) => void message.error(what),
    )
  const { title, source } = pattern
  const files = [
    { key: 'html', label: 'HTML', text: page.html, type: 'text/html' },
    { key: 'md', label: 'Markdown', text: page.markdown, type: 'text/markdown' },
    ...(page.svg ? [{ key: 'svg', label: 'Drawing, SVG', text: page.svg, type: 'image/svg+xml' }] : []),
    { key: 'tess', label: 'Notation', text: source, type: 'text/plain' },
  ]
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          ...files.map(({ key, label, text, type }) => ({
            key,
            label,
            onClick: () => void fetchFile(fileName(title, key), text, type),
          })),
          { key: 'json', label: <a href={`/api/patterns/${pattern.id}/pattern.json`}>Pattern, JSON</a> },
        ],
      }}
    >
      <Button>Other files</Button>
    </Dropdown>
  )
}
