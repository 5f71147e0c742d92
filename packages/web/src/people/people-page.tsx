import { useQuery } from '@tanstack/react-query'
import type { Person } from '@tessellum/contract/people'
import { Button, Table } from 'antd'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

/** Who may sign in; the owner ends somebody's sessions, and lets them in again. */
export function PeoplePage() {
  usePageTitle('People')
  const { data, error } = useQuery(read.people)
  const { data: me } = useQuery(read.me)
  const change = useIdempotentMutation(
    ({ id, what }: { id: number; what: 'disable' | 'enable' }) =>
      call(`POST /api/people/:id/${what}`, { params: { id } }),
    { stale: ['people'] },
  )
  if (error && !data) return <Trouble error={error} />
  if (!data) return <Loading what="Fetching the people" />
  return (
    <div className="page stack">
      <h1>People</h1>
      <ErrorNotice error={change.refused} />
      <Table<Person>
        rowKey="id"
        dataSource={data}
        pagination={false}
        scroll={{ x: 'max-content' }}
        columns={[
          { title: 'Name', dataIndex: 'fullName', rowScope: 'row' },
          { title: 'Signs in as', dataIndex: 'name' },
          { title: 'Role', dataIndex: 'role' },
          {
            title: 'Now',
            render: (_, { disabled, sessions }) =>
              disabled ? (
                <span className="state cancelled">disabled</span>
              ) : sessions > 0 ? (
                <span className="state ready">signed in{sessions > 1 ? ` in ${sessions} browsers` : ''}</span>
              ) : (
                <span className="quiet">not signed in</span>
              ),
          },
          {
            title: '',
            align: 'right',
            render: (_, { id, fullName, disabled }) => {
              if (id === me?.id) return <span className="quiet">you</span>
              const busy = change.busy && change.doing?.id === id
              if (disabled)
                return (
                  <Button loading={busy} onClick={() => change.run({ id, what: 'enable' })}>
                    Let in again
                  </Button>
                )
              return (
                <AskFirst
                  title={`Disable ${fullName}?`}
                  follows="They are signed out everywhere at once, and cannot sign in until you let them in again. What they did keeps their name."
                  ok={`Disable ${fullName}`}
                  run={() => change.run({ id, what: 'disable' })}
                >
                  <Button danger loading={busy}>
                    Disable
                  </Button>
                </AskFirst>
              )
            },
          },
        ]}
      />
    </div>
  )
}
