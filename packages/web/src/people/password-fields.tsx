import { newPassword } from '@tessellum/contract/people'
import { Form, Input } from 'antd'
import { rulesOf } from '../frame/contract-rules'

/** A new password, twice. */
export const PasswordFields = () => (
  <>
    <Form.Item
      label="New password"
      name="password"
      extra="At least 10 characters: a few words are easier to remember than symbols."
      rules={rulesOf(newPassword)}
    >
      <Input.Password autoComplete="new-password" maxLength={200} />
    </Form.Item>
    <Form.Item
      label="Repeat the password"
      name="again"
      dependencies={['password']}
      rules={[
        { required: true, message: 'Enter it again.' },
        ({ getFieldValue }) => ({
          validator: (_, value) =>
            !value || value === getFieldValue('password')
              ? Promise.resolve()
              : Promise.reject(new Error('The passwords do not match.')),
        }),
      ]}
    >
      <Input.Password autoComplete="new-password" maxLength={200} />
    </Form.Item>
  </>
)
