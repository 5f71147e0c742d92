import { useQuery } from '@tanstack/react-query'
import { type ChangeSettings, type Settings, settings as settingsSchema } from '@tessellum/contract/settings'
import { Button, ColorPicker, DatePicker, Form, Input, Select } from 'antd'
import dayjs from 'dayjs'
import { useParams } from 'react-router'
import type { z } from 'zod'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NothingHere } from '../frame/nothing-here'
import { NumberField } from '../frame/number-field'
import { PageLoading } from '../frame/page-loading'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { call, ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { LogoField } from './logo-field'
import { type Field, type PartName, parts, spoken, unspoken, usually } from './parts'
import styles from './settings.module.css'
import { SettingsFrame } from './settings-frame'

type Values = Record<string, unknown>

/** One part of how the shop does things. */
export function SettingsPage() {
  const { part = 'profile' } = useParams()
  const { data, error } = useQuery(read.settings)
  if (!(part in parts)) return <NothingHere />
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the settings" />
  return <PartForm key={part} name={part as PartName} settings={data} />
}

function PartForm({ name, settings }: { name: PartName; settings: Settings }) {
  const mayKeep = useMay('settings.keep')
  const { title, about } = parts[name]
  const fields = Object.entries(parts[name].fields as Readonly<Record<string, Field>>)
  const kept = settings[name] as Values
  const formName = `settings-${name}`
  const save = useIdempotentMutation(
    (values: Values) => {
      const changed = Object.fromEntries(fields.map(([key, field]) => [key, unspoken(field, values[key])]))
      const read = settingsSchema.shape[name].safeParse(changed)
      if (!read.success)
        throw new ShopError({ code: 'bad-input', message: read.error.issues[0]?.message ?? 'Something is missing.' })
      return call('PUT /api/settings', { body: { [name]: read.data } as ChangeSettings })
    },
    {
      stale: ['settings', 'shop', 'batches', 'buy-list', 'bench', 'diary', 'editions', 'stock', 'classes', 'sales'],
      said: 'The settings are saved.',
      after: () => forgetForm(formName),
    },
  )
  return (
    <SettingsFrame title={title}>
      {about && <p className="quiet">{about}</p>}
      <KeptForm<Values>
        name={formName}
        className="sheet pad"
        layout="vertical"
        requiredMark={false}
        disabled={!mayKeep}
        initialValues={Object.fromEntries(fields.map(([key, field]) => [key, spoken(field, kept[key])]))}
        onFinish={save.run}
      >
        {fields.map(([key, field]) => (
          <Form.Item
            key={key}
            name={key}
            label={field.label}
            className={styles.field ?? ''}
            extra={`${field.says} ${usually(name, key)}`}
            {...(field.kind === 'colour' ? { getValueFromEvent: (_: unknown, css: string) => css } : {})}
            rules={rulesOf(
              (settingsSchema.shape[name].shape as Readonly<Record<string, z.ZodType>>)[key] as z.ZodType,
              (typed) => unspoken(field, typed),
            )}
          >
            {control(field)}
          </Form.Item>
        ))}
        <ErrorNotice error={save.refused} />
        {mayKeep ? (
          <Button type="primary" htmlType="submit" loading={save.busy}>
            Save
          </Button>
        ) : (
          <p className="quiet">The owner of the shop can change these.</p>
        )}
      </KeptForm>
      {name === 'profile' && <LogoField />}
    </SettingsFrame>
  )
}

function control({ kind, choices, unit, step, most }: Field) {
  switch (kind) {
    case 'line':
      return <Input maxLength={80} />
    case 'lines':
      return <Input.TextArea autoSize={{ minRows: 2, maxRows: 6 }} maxLength={400} />
    case 'colour':
      return <ColorPicker showText disabledAlpha format="hex" />
    case 'choice':
      return <Select showSearch={(choices?.length ?? 0) > 20} options={choices?.map((each) => ({ ...each })) ?? []} />
    case 'choices':
      return (
        <Select
          mode="multiple"
          showSearch={{ optionFilterProp: 'label' }}
          options={choices?.map((each) => ({ ...each })) ?? []}
        />
      )
    case 'days':
      return <DaysField />
    case 'figure':
      return (
        <NumberField
          min={0}
          max={most ?? Number.MAX_SAFE_INTEGER}
          step={step ?? 1}
          suffix={unit}
          className={styles.figure ?? ''}
        />
      )
  }
}

/** Several days, kept as YYYY-MM-DD. */
function DaysField({
  value = [],
  onChange,
  id,
}: {
  value?: readonly string[]
  onChange?: (days: readonly string[]) => void
  id?: string
}) {
  return (
    <DatePicker
      multiple
      {...(id ? { id } : {})}
      format="D MMM YYYY"
      maxTagCount={12}
      placeholder="Choose days"
      value={value.map((day) => dayjs(day))}
      onChange={(days) => onChange?.((days ?? []).map((day) => day.format('YYYY-MM-DD')).sort())}
    />
  )
}
