import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { Beside } from '../frame/beside'
import { Loading } from '../frame/loading'
import { NothingHere } from '../frame/nothing-here'
import { usePageTitle } from '../frame/page-title'
import { HelpDocument } from './help-document'
import { helpPages, helpText } from './help-texts'

/** What each place is for, and the notation. */
export function HelpPage() {
  usePageTitle('Help')
  const { page = '' } = useParams()
  const known = helpPages.some(({ name }) => name === page)
  const { data } = useQuery(helpText(page))
  if (!known) return <NothingHere />
  return (
    <div className="page">
      <Beside label="Help" links={helpPages.map(({ name, title }) => ({ to: `/help/${name}`, label: title }))}>
        <article className="sheet pad">
          {data === undefined ? <Loading what="Fetching the help" /> : <HelpDocument text={data} />}
        </article>
      </Beside>
    </div>
  )
}
