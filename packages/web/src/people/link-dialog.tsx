import { useQuery } from '@tanstack/react-query'
import type { Person } from '@tessellum/contract/people'
import { Modal, Typography } from 'antd'
import dayjs from 'dayjs'
import { Loading } from '../frame/loading'
import { Trouble } from '../frame/trouble'
import { read } from '../shop/queries'
import styles from './link-dialog.module.css'

/** A new link, shown once, for the owner to hand on. */
export function LinkDialog({ person, close }: { person: Pick<Person, 'id' | 'fullName'>; close: () => void }) {
  const { data, error } = useQuery(read.link(person.id))
  const address = data && `${window.location.origin}${data.path}`
  return (
    <Modal title={`A link for ${person.fullName}`} open onCancel={close} footer={null} destroyOnHidden>
      {error && <Trouble error={error} />}
      {!data && !error && <Loading what="Making the link" />}
      {address && (
        <>
          <p>Give it to {person.fullName}. With it they choose a password and are signed in.</p>
          <Typography.Paragraph copyable={{ text: address }} className={styles.link ?? ''}>
            {address}
          </Typography.Paragraph>
          <p className="quiet">
            It works once, until {dayjs(data.expiresAt).format('D MMMM YYYY')}. It is not shown again; you can make
            another, and this one then stops working.
          </p>
        </>
      )}
    </Modal>
  )
}
