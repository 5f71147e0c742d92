import { useQuery } from '@tanstack/react-query'
import type { Person } from '@tessellum/contract/people'
import { Button, Table } from 'antd'
import { useState } from 'react'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { StateTag } from '../frame/state-tag'
import { Trouble } from '../frame/trouble'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { LinkDialog } from './link-dialog'
import { PersonForm } from './person-form'

/** Who may sign in: the owner adds people, says what they may do, ends their sessions and lets them in again. */
export function PeoplePage() {
  usePageTitle('People')
  const { data, error } = useQuery(read.people)
  const { data: me } = useQuery(read.me)
  const [adding, setAdding] = useState(false)
  const [editing, setEditing] = useState<Person>()
  const [linked, setLinked] = useState<Person>()
  /** Somebody new is given a link at once. */
  const [added, setAdded] = useState<number>()
  const forLink = linked ?? data?.find(({ id }) => id === added)
  const change = useIdempotentMutation(
    ({ id, what }: { id: number; what: 'disable' | 'enable' }) =>
      call(`POST /api/people/:id/${what}`, { params: { id } }),
    {
      stale: ['people'],
      said: (_, { what }) => (what === 'disable' ? 'They can no longer sign in.' : 'They can sign in again.'),
      undo:
        (_, { id, what }) =>
        () =>
          call(`POST /api/people/:id/${what === 'disable' ? 'enable' : 'disable'}`, { params: { id } }),
    },
  )
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the people" />
  return (
    <div className="page stack">
      <PageHead title="People">
        <Button type="primary" onClick={() => setAdding(true)}>
          Add somebody
        </Button>
      </PageHead>
      {adding && (
        <PersonForm
          close={() => setAdding(false)}
          done={(id) => {
            setAdding(false)
            setAdded(id)
          }}
        />
      )}
      {editing && (
        <PersonForm
          key={editing.id}
          person={editing}
          close={() => setEditing(undefined)}
          done={() => setEditing(undefined)}
        />
      )}
      {forLink && (
        <LinkDialog
          person={forLink}
          close={() => {
            setLinked(undefined)
            setAdded(undefined)
          }}
        />
      )}
      <ErrorNotice error={change.refused} />
      <Table<Person>
        rowKey="id"
        dataSource={data}
        pagination={false}
        scroll={{ x: 'max-content' }}
        columns={[
          { title: 'Name', dataIndex: 'fullName', rowScope: 'row' },
          { title: 'Signs in as', dataIndex: 'name' },
          { title: 'Roles', render: (_, { roles }) => roles.join(', ') },
          {
            title: 'Now',
            render: (_, { disabled, waiting, sessions }) =>
              disabled ? (
                <StateTag look="over">disabled</StateTag>
              ) : waiting ? (
                <StateTag look="short">no password yet</StateTag>
              ) : sessions > 0 ? (
                <StateTag look="ready">signed in{sessions > 1 ? ` in ${sessions} browsers` : ''}</StateTag>
              ) : (
                <span className="quiet">not signed in</span>
              ),
          },
          {
            title: '',
            align: 'right',
            render: (_, person) => {
              const { id, fullName, disabled } = person
              const edit = (
                <Button onClick={() => setEditing(person)} aria-label={`Change ${fullName}`}>
                  Change
                </Button>
              )
              if (id === me?.id)
                return (
                  <div className="actions">
                    <span className="quiet">you</span> {edit}
                  </div>
                )
              const busy = change.busy && change.doing?.id === id
              if (disabled)
                return (
                  <div className="actions">
                    {edit}{' '}
                    <Button loading={busy} onClick={() => change.run({ id, what: 'enable' })}>
                      Restore access
                    </Button>
                  </div>
                )
              return (
                <div className="actions">
                  {edit}{' '}
                  <Button onClick={() => setLinked(person)} aria-label={`Link for ${fullName}`}>
                    Link
                  </Button>{' '}
                  <AskFirst
                    title={`Disable ${fullName}?`}
                    follows="They are signed out everywhere at once, and cannot sign in until you restore their access. What they did keeps their name."
                    ok={`Disable ${fullName}`}
                    run={() => change.run({ id, what: 'disable' })}
                  >
                    <Button danger loading={busy}>
                      Disable
                    </Button>
                  </AskFirst>
                </div>
              )
            },
          },
        ]}
      />
    </div>
  )
}
