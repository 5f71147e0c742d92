import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Upload } from 'antd'
import { ErrorNotice } from '../frame/error-notice'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { logoAt } from '../writing/picture-files'
import styles from './settings.module.css'

/** The shop's sign, on written patterns and receipts. */
export function LogoField() {
  const mayKeep = useMay('settings.keep')
  const client = useQueryClient()
  const { data } = useQuery(read.logo)
  const keep = (answer: Awaited<ReturnType<typeof call<'GET /api/logo'>>>) =>
    client.setQueryData(read.logo.queryKey, answer)
  const save = useIdempotentMutation((file: File) => call('POST /api/logo', { file }), {
    stale: ['editions'],
    said: 'Logo saved.',
    after: keep,
  })
  const remove = useIdempotentMutation((_: undefined) => call('POST /api/logo/remove'), {
    stale: ['editions'],
    after: keep,
  })
  return (
    <section className="sheet pad stack" aria-label="Logo">
      <h2>Logo</h2>
      <p className="quiet">On the cover and the last page of written patterns, and on receipts. JPEG, PNG or WebP.</p>
      {data?.logo && <img className={styles.logo} src={logoAt(data.logo.digest)} alt="The shop’s logo" />}
      <ErrorNotice error={save.refused ?? remove.refused} />
      {mayKeep && (
        <div className="hands">
          <Upload
            accept=".jpg,.jpeg,.png,.webp"
            showUploadList={false}
            beforeUpload={(file) => {
              save.run(file)
              return false
            }}
          >
            <Button loading={save.busy}>{data?.logo ? 'Choose another' : 'Choose a picture'}</Button>
          </Upload>
          {data?.logo && (
            <Button onClick={() => remove.run(undefined)} loading={remove.busy}>
              Remove
            </Button>
          )}
        </div>
      )}
    </section>
  )
}
