import { useQuery } from '@tanstack/react-query'
import { changePassword } from '@tessellum/contract/people'
import { Button, Form, Input } from 'antd'
import { AskFirst } from '../frame/ask-first'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { usePageTitle } from '../frame/page-title'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './account.module.css'
import { PasswordFields } from './password-fields'

/** What everybody may do with their own way in. */
export function AccountPage() {
  usePageTitle('Your account')
  const { data: me } = useQuery(read.me)
  const [form] = Form.useForm()
  const change = useIdempotentMutation(
    ({ current, password }: { current: string; password: string }) =>
      call('POST /api/me/password', { body: { current, password } }),
    { said: 'Your password is changed. You are signed out everywhere else.', after: () => form.resetFields() },
  )
  const leave = useIdempotentMutation(() => call('POST /api/me/sign-out-elsewhere'), {
    tell: true,
    said: 'You are signed out everywhere else.',
  })
  return (
    <div className={`page stack ${styles.narrow}`}>
      <h1>Your account</h1>
      {me && (
        <p>
          {me.fullName}, {me.roles.join(' and ')}. You sign in as <strong>{me.name}</strong>.
        </p>
      )}
      <section className={`sheet ${styles.padded}`} aria-labelledby="change-password">
        <h2 id="change-password">Change your password</h2>
        <Form form={form} layout="vertical" requiredMark={false} onFinish={change.run}>
          {/* So that a password manager knows whose password it keeps. */}
          <input hidden readOnly autoComplete="username" value={me?.name ?? ''} />
          <Form.Item label="Current password" name="current" rules={rulesOf(changePassword.shape.current)}>
            <Input.Password autoComplete="current-password" maxLength={200} />
          </Form.Item>
          <PasswordFields />
          <ErrorNotice error={change.refused} />
          <Button type="primary" htmlType="submit" loading={change.busy}>
            Change password
          </Button>
        </Form>
      </section>
      <section className={`sheet ${styles.padded}`} aria-labelledby="elsewhere">
        <h2 id="elsewhere">Other browsers</h2>
        <p>Left yourself signed in on the counter's machine? End your sessions in every other browser.</p>
        <AskFirst
          title="Sign out everywhere else?"
          follows="Every other browser asks for your password again. Nothing that was saved is lost."
          ok="Sign out everywhere else"
          run={() => leave.run(undefined)}
        >
          <Button loading={leave.busy}>Sign out everywhere else</Button>
        </AskFirst>
      </section>
    </div>
  )
}
