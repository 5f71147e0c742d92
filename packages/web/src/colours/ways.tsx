import { useQuery } from '@tanstack/react-query'
import type { Finished } from '@tessellum/core/form/finished'
import { sayExtents } from '@tessellum/core/report/form-report'
import { type Counting, countingWords } from '@tessellum/core/sizing/counting'
import type { Candidate, Question } from '@tessellum/core/substitute/substitutes'
import type { ReactNode } from 'react'
import { computed } from '../computed'
import { FigureTable } from '../frame/figure-table'
import { Loading } from '../frame/loading'
import { useUnits } from '../settings/use-units'
import { Changes } from './substitute-effects'
import styles from './substitutes.module.css'

interface WaysProps {
  readonly question: Omit<Question, 'candidates' | 'touching' | 'colours' | 'kits'>
  readonly candidate: Candidate
  /** What is done with a way that is chosen. */
  readonly take: (counting: Counting, way: string) => ReactNode
}

/** The ways of working another bead in, each settled: which counts follow it, what the piece then measures and how it lies. */
export function Ways({ question, candidate, take }: WaysProps) {
  const units = useUnits()
  const { data, error } = useQuery(computed.ways(question, candidate))
  if (error)
    return (
      <p className="notice trouble" role="alert">
        {error.message}
      </p>
    )
  if (!data) return <Loading what="Settling each way" />
  return (
    <div className={styles.ways}>
      <FigureTable words top aria-label="Ways of working it in">
        <thead>
          <tr>
            <th scope="col">Way</th>
            <th scope="col">What changes</th>
            <th scope="col">
              Finished{' '}
              <span className="quiet">
                (now {data.before ? sayExtents(data.before, units.system) : 'form not sound'})
              </span>
            </th>
            <th scope="col">Kits</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {data.ways.map(({ countings, consequence, finished, kits }) => {
            const [counting = 'all'] = countings
            const name = countings.map((each) => countingWords[each]).join(', or ')
            return (
              <tr key={counting}>
                <th scope="row">{name}</th>
                <td>
                  <ul>
                    <Changes consequence={consequence} thread="thread, measured" />
                  </ul>
                </td>
                <td>
                  <Size finished={finished} />
                </td>
                <td>{kits}</td>
                <td>{consequence.faults.length === 0 && take(counting, name)}</td>
              </tr>
            )
          })}
        </tbody>
      </FigureTable>
    </div>
  )
}

function Size({ finished }: { finished: Finished | undefined }) {
  const units = useUnits()
  if (!finished) return <span className="quiet">its form is not sound</span>
  const said = finished.findings.filter(({ tone }) => tone !== 'plain')
  return (
    <>
      {sayExtents(finished, units.system)}
      <ul>
        {said.slice(0, 4).map(({ text, tone }) => (
          <li key={text} className={tone === 'trouble' ? 'trouble' : ''}>
            {text}
          </li>
        ))}
      </ul>
    </>
  )
}
