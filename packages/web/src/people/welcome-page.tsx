import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Form } from 'antd'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Wordmark } from '../frame/wordmark'
import { call, keepSession, type ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { PasswordFields } from './password-fields'
import { RingArt } from './ring-art'
import styles from './sign-in.module.css'

/** Where a link from the owner leads: a password is chosen, and its person is signed in. */
export function WelcomePage() {
  usePageTitle('Welcome')
  const navigate = useNavigate()
  const client = useQueryClient()
  const [token] = useState(() => window.location.hash.slice(1))
  const { data, error } = useQuery(read.welcome(token))
  const choose = useMutation<Awaited<ReturnType<typeof call<'POST /api/welcome/password'>>>, ShopError, string>({
    mutationFn: (password) => call('POST /api/welcome/password', { body: { token, password } }),
    onSuccess: (found) => {
      keepSession(found)
      client.setQueryData(read.me.queryKey, found)
      void navigate('/', { replace: true })
    },
  })
  const refused = (error as ShopError | null) ?? choose.error
  return (
    <div className={styles.page}>
      <div className={styles.art} aria-hidden="true">
        <RingArt />
      </div>
      <Form
        name="welcome"
        layout="vertical"
        requiredMark={false}
        onFinish={({ password }: { password: string }) => choose.mutate(password)}
        size="large"
      >
        <p className={styles.above}>
          <Wordmark />
        </p>
        <h1>Welcome{data ? `, ${data.fullName}` : ''}</h1>
        {!data && !error && <Loading what="Looking up the link" />}
        {data && (
          <>
            <p className={`quiet ${styles.lead}`}>
              Choose a password. From now on you sign in as <strong>{data.name}</strong>.
            </p>
            <input hidden readOnly autoComplete="username" value={data.name} />
            <PasswordFields />
          </>
        )}
        {refused && (
          <div role="alert" className="notice trouble">
            {refused.message} {refused.hint}
          </div>
        )}
        {data ? (
          <Button type="primary" htmlType="submit" block loading={choose.isPending}>
            Save and sign in
          </Button>
        ) : (
          <Link to="/sign-in">To the sign-in page</Link>
        )}
      </Form>
    </div>
  )
}
