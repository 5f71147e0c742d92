import { newPassword } from '@tessellum/contract/people'
import { Form, Input } from 'antd'
import { rulesOf } from '../frame/contract-rules'

/** A new password, twice. */
export const PasswordFields = () => (
  <>
    <Form.Item
      label="New password"
      name="password"
      extra="At least 10 letters: a few words are easier to keep in mind than signs."
      rules={rulesOf(newPassword)}
    >
      <Input.Password autoComplete="new-password" maxLength={200} />
    </Form.Item>
    <Form.Item
      label="The same again"
      name="again"
      dependencies={['password']}
      rules={[
        { required: true, message: 'Give it a second time.' },
        ({ getFieldValue }) => ({
          validator: (_, value) =>
            !value || value === getFieldValue('password')
              ? Promise.resolve()
              : Promise.reject(new Error('These two are not the same.')),
        }),
      ]}
    >
      <Input.Password autoComplete="new-password" maxLength={200} />
    </Form.Item>
  </>
)
