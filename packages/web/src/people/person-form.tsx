import { newPerson, type Person } from '@tessellum/contract/people'
import { personRoles } from '@tessellum/contract/roles'
import { Button, Checkbox, Form, Input, Modal } from 'antd'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './person-form.module.css'

interface Fields {
  readonly fullName: string
  readonly name: string
  readonly roles: Person['roles']
}

const does: Readonly<Record<Person['roles'][number], string>> = {
  owner: 'owner: everything, people and costs too',
  designer: 'designer: patterns, colourways, classes and orders',
  stockroom: 'stockroom: stock, buying and packing',
  teacher: 'teacher: classes, and the log of samples',
  counter: 'counter: selling, and taking back what was sold',
}

interface PersonFormProps {
  /** Undefined for somebody new. */
  readonly person?: Person | undefined
  readonly close: () => void
  readonly done: (id: number) => void
}

/** Somebody new, or another name or other roles for somebody who is there. */
export function PersonForm({ person, close, done }: PersonFormProps) {
  const formName = `person ${person?.id ?? 'new'}`
  const save = useIdempotentMutation(
    ({ fullName, name, roles }: Fields) =>
      person
        ? call('PUT /api/people/:id', { params: { id: person.id }, body: { fullName, roles } })
        : call('POST /api/people', { body: { fullName, name, roles } }),
    {
      stale: ['people'],
      after: ({ id }) => {
        forgetForm(formName)
        done(id)
      },
    },
  )
  return (
    <Modal title={person ? person.fullName : 'Add somebody'} open onCancel={close} footer={null} destroyOnHidden>
      <KeptForm<Fields>
        name={formName}
        layout="vertical"
        requiredMark={false}
        initialValues={person ?? { fullName: '', name: '', roles: [] }}
        onFinish={(fields) => save.run(fields)}
      >
        <Form.Item label="Name" name="fullName" rules={rulesOf(newPerson.shape.fullName)}>
          <Input autoFocus autoComplete="off" maxLength={80} />
        </Form.Item>
        {!person && (
          <Form.Item
            label="Sign-in name"
            name="name"
            extra="Lowercase letters, digits, dots and hyphens. It stays as it is."
            rules={rulesOf(newPerson.shape.name)}
          >
            <Input autoComplete="off" autoCapitalize="none" maxLength={60} />
          </Form.Item>
        )}
        <Form.Item label="Roles" name="roles" rules={rulesOf(newPerson.shape.roles)}>
          <Checkbox.Group
            className={`${styles.roles}`}
            options={personRoles.map((value) => ({ value, label: does[value] }))}
          />
        </Form.Item>
        {person && (
          <p className="quiet">With other roles they are signed out, and sign in again with what they may do then.</p>
        )}
        <ErrorNotice error={save.refused} />
        <Button type="primary" htmlType="submit" loading={save.busy}>
          {person ? 'Save' : 'Add'}
        </Button>
      </KeptForm>
    </Modal>
  )
}
