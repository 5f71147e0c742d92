import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { signIn } from '@tessellum/contract/people'
import { Button, Form, Input } from 'antd'
import { useNavigate, useSearchParams } from 'react-router'
import { Wordmark } from '../frame/wordmark'
import { call, keepSession, type ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { RingArt } from './ring-art'
import styles from './sign-in.module.css'

export function SignInPage() {
  const navigate = useNavigate()
  const client = useQueryClient()
  const [params] = useSearchParams()
  const { data: shop } = useQuery(read.shop)
  const enter = useMutation({
    mutationFn: (values: { name: string; password: string }) =>
      call('POST /api/sign-in', { body: signIn.parse(values) }),
    onSuccess: (found) => {
      keepSession(found)
      client.setQueryData(read.me.queryKey, found)
      // Only places of our own: an address with a host would lead away.
      const next = params.get('next') ?? '/'
      void navigate(next.startsWith('/') && !next.startsWith('//') ? next : '/', { replace: true })
    },
  })
  const refused = enter.error as ShopError | null
  return (
    <div className={styles.page}>
      <div className={styles.art} aria-hidden="true">
        <RingArt />
      </div>
      <Form name="sign-in" layout="vertical" requiredMark={false} onFinish={enter.mutate} size="large">
        <p className={styles.above}>
          <Wordmark />
        </p>
        <h1>Sign in</h1>
        <p className={`quiet ${styles.lead}`}>{shop?.name ?? ''}</p>
        {shop?.empty && (
          <div role="status" className="notice">
            Nobody has begun this shop yet. Open the address that the start command has printed: it asks for the first
            owner.
          </div>
        )}
        <Form.Item label="Sign-in name" name="name" rules={[{ required: true, message: 'Enter your sign-in name.' }]}>
          <Input autoComplete="username" autoFocus autoCapitalize="none" />
        </Form.Item>
        <Form.Item label="Password" name="password" rules={[{ required: true, message: 'Enter your password.' }]}>
          <Input.Password autoComplete="current-password" />
        </Form.Item>
        {refused && (
          <div role="alert" className="notice trouble">
            {refused.message} {refused.hint}
          </div>
        )}
        <Button type="primary" htmlType="submit" block loading={enter.isPending}>
          Sign in
        </Button>
        <p className={`quiet ${styles.below}`}>
          Forgotten your password? The owner of the shop makes you a link to choose a new one.
        </p>
      </Form>
    </div>
  )
}
