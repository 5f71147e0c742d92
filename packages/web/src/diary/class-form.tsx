import { useQuery } from '@tanstack/react-query'
import { type ClassAnswer, saveClass } from '@tessellum/contract/classes'
import { Button, DatePicker, Form, Input, Modal, Select, TimePicker } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { Link, useNavigate } from 'react-router'
import { asHour, rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm, useKept } from '../frame/kept-form'
import { Loading } from '../frame/loading'
import { NumberField } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { isWhole, type LineFields, LineForm } from '../kits/line-form'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { call, ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './class-form.module.css'
import { ClassMoveNotice } from './class-move'

interface Fields {
  readonly title: string
  readonly day: Dayjs
  readonly hour: Dayjs
  readonly moreDays?: readonly { readonly day?: Dayjs; readonly hour?: Dayjs }[]
  readonly minutes: number
  readonly place: string
  readonly seats: number
  readonly teacherId: number
  readonly spareKits: number
  readonly price: number
  readonly note: string
}

export function NewClassPage() {
  usePageTitle('Offer a class')
  const navigate = useNavigate()
  return (
    <div className="page stack">
      <PageHead title="Offer a class">
        <Link to="/diary">The diary</Link>
      </PageHead>
      <ClassForm done={({ id }) => void navigate(`/diary/classes/${id}`)} />
    </div>
  )
}

export const ChangeClass = ({ offered, close }: { offered: ClassAnswer; close: () => void }) => (
  <Modal
    open
    title={`Change ${offered.title}`}
    width={860}
    footer={null}
    onCancel={close}
    className={styles.dialog ?? ''}
  >
    <ClassForm offered={offered} done={close} />
  </Modal>
)

/** When, where, for whom, and what can be chosen: sizes and colourways of one pattern. */
function ClassForm({ offered, done }: { offered?: ClassAnswer; done: (answer: ClassAnswer) => void }) {
  const money = useMoney()
  const today = useToday()
  const { data: teachers } = useQuery(read.teachers)
  const name = `class-${offered?.id ?? 'new'}`
  const kept = useKept<readonly LineFields[]>(
    `${name}-offers`,
    offered
      ? offered.offers.map(({ size, colourwayId }) => ({
          patternId: offered.patternId,
          version: offered.version,
          size,
          colourwayId,
          kits: 1,
        }))
      : [{ kits: 1 }],
  )
  const { value: offers, change: setOffers } = kept
  const save = useIdempotentMutation(
    ({ day, hour, price, moreDays = [], ...rest }: Fields) => {
      const [first] = offers
      const read = saveClass.safeParse({
        ...rest,
        heldOn: day.format('YYYY-MM-DD'),
        beginsAt: hour.format('HH:mm'),
        moreDays: moreDays.map((each) => ({
          heldOn: each.day?.format('YYYY-MM-DD'),
          beginsAt: each.hour?.format('HH:mm'),
        })),
        price: Math.round(price * 100),
        note: rest.note ?? '',
        patternId: first?.patternId,
        version: first?.version,
        offers: offers.map(({ size = '', colourwayId }) => ({ size, colourwayId })),
      })
      if (!read.success) {
        const [issue] = read.error.issues
        throw new ShopError({ code: 'bad-input', message: issue?.message ?? 'Something is missing.' })
      }
      return offered
        ? call('PUT /api/classes/:id', { params: { id: offered.id }, body: read.data })
        : call('POST /api/classes', { body: read.data })
    },
    {
      // Its batch goes along to another day.
      stale: ['classes', 'diary', 'bench', 'batches', 'buy-list'],
      said: ({ title }) => `${title} saved.`,
      after: (answer) => {
        forgetForm(name)
        kept.forget()
        done(answer)
      },
    },
  )
  if (!teachers) return <Loading what="Fetching who teaches" />
  return (
    <KeptForm<Fields>
      name={name}
      beside={kept}
      layout="vertical"
      requiredMark={false}
      className="sheet pad"
      onFinish={save.run}
      initialValues={
        offered
          ? {
              ...offered,
              day: dayjs(offered.heldOn),
              hour: dayjs(`2000-01-01T${offered.beginsAt}`),
              moreDays: offered.moreDays.map(({ heldOn, beginsAt }) => ({
                day: dayjs(heldOn),
                hour: dayjs(`2000-01-01T${beginsAt}`),
              })),
              price: offered.price / 100,
            }
          : {
              day: today.add(21, 'day'),
              hour: dayjs('2000-01-01T10:00'),
              minutes: 180,
              seats: 8,
              spareKits: 1,
              price: 0,
            }
      }
    >
      <div className="fields">
        <Form.Item label="Class" name="title" rules={rulesOf(saveClass.shape.title)}>
          <Input autoFocus maxLength={80} placeholder="First bezel" />
        </Form.Item>
        <Form.Item label="On" name="day" rules={rulesOf(saveClass.shape.heldOn)}>
          <DatePicker format="ddd, D MMM YYYY" allowClear={false} />
        </Form.Item>
        <Form.Item label="From" name="hour" rules={rulesOf(saveClass.shape.beginsAt, asHour)}>
          <TimePicker format="HH:mm" minuteStep={15} allowClear={false} needConfirm={false} />
        </Form.Item>
        <Form.Item label="Minutes" name="minutes" rules={rulesOf(saveClass.shape.minutes)}>
          <NumberField step={15} />
        </Form.Item>
        <Form.Item label="Where" name="place" rules={rulesOf(saveClass.shape.place)}>
          <Input maxLength={80} placeholder="the long table" />
        </Form.Item>
        <Form.Item label="Who teaches" name="teacherId" rules={rulesOf(saveClass.shape.teacherId)}>
          <Select options={teachers.map(({ id, name }) => ({ value: id, label: name }))} />
        </Form.Item>
        <Form.Item label="Seats" name="seats" rules={rulesOf(saveClass.shape.seats)}>
          <NumberField />
        </Form.Item>
        <Form.Item label="Spare kits" name="spareKits">
          <NumberField min={0} max={200} precision={0} />
        </Form.Item>
        <Form.Item label={`A seat costs, ${money.sign}`} name="price">
          <NumberField min={0} step={0.5} precision={2} />
        </Form.Item>
      </div>
      {offered && <ClassMoveNotice offered={offered} />}
      <Form.List name="moreDays">
        {(days, { add, remove }) => (
          <>
            {days.map(({ key, name: at }) => (
              <div className={`hands ${styles.above}`} key={key}>
                <span>and on</span>
                <Form.Item name={[at, 'day']} className={styles.beside ?? ''} rules={rulesOf(saveClass.shape.heldOn)}>
                  <DatePicker
                    aria-label={`Further day ${at + 1}`}
                    className={styles.day ?? ''}
                    format="ddd, D MMM YYYY"
                    allowClear={false}
                  />
                </Form.Item>
                <span>from</span>
                <Form.Item
                  name={[at, 'hour']}
                  className={styles.beside ?? ''}
                  rules={rulesOf(saveClass.shape.beginsAt, asHour)}
                >
                  <TimePicker
                    aria-label={`Hour of further day ${at + 1}`}
                    className={styles.hour ?? ''}
                    format="HH:mm"
                    minuteStep={15}
                    allowClear={false}
                    needConfirm={false}
                  />
                </Form.Item>
                <Button onClick={() => remove(at)} aria-label={`Remove further day ${at + 1}`}>
                  Remove
                </Button>
              </div>
            ))}
            <p>
              <Button onClick={() => add({ hour: dayjs('2000-01-01T10:00') })}>A further day</Button>{' '}
              <span className="quiet">Each day is as long as the first.</span>
            </p>
          </>
        )}
      </Form.List>
      <h2>What can be chosen</h2>
      <p className="quiet">Of one pattern; a seat that has chosen nothing yet gets the first.</p>
      <div className="stack">
        {offers.map((offer, i) => (
          <LineForm
            key={i}
            line={offer}
            withKits={false}
            change={(change, byItself) =>
              setOffers((before) => {
                const next = change(before[i] ?? offer)
                // All offers are of one pattern.
                const others = i === 0 && next.patternId !== before[0]?.patternId
                return before.map((each, at) =>
                  at === i ? next : others ? { kits: 1, patternId: next.patternId } : each,
                )
              }, byItself)
            }
            remove={offers.length > 1 ? () => setOffers(offers.filter((_, at) => at !== i)) : undefined}
          />
        ))}
      </div>
      <p className={styles.below}>
        <Button
          disabled={offers[0]?.patternId === undefined}
          onClick={() =>
            setOffers([
              ...offers,
              { kits: 1, patternId: offers[0]?.patternId, version: offers[0]?.version, size: offers[0]?.size },
            ])
          }
        >
          Another choice
        </Button>
      </p>
      <Form.Item label="Note for the teacher" name="note">
        <Input.TextArea rows={2} maxLength={1000} />
      </Form.Item>
      <ErrorNotice error={save.refused} />
      <Button
        type="primary"
        size="large"
        htmlType="submit"
        loading={save.busy}
        // What is chosen by itself takes a moment to be fetched.
        disabled={!offers.every((offer) => offer.patternId === undefined || isWhole(offer))}
      >
        Save the class
      </Button>
    </KeptForm>
  )
}
