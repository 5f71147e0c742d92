/** What is typed into a form outlives whatever happens to the page, until it is sent or thrown away. */
import { act, renderHook, screen, waitFor } from '@testing-library/react'
import { Button, DatePicker, Form, Input } from 'antd'
import dayjs from 'dayjs'
import { forgetForm, KeptForm, useKept } from '../src/frame/kept-form'
import { keepSession } from '../src/shop/api'
import { show } from './on-screen'

const note = (sent: (given: unknown) => void = () => {}) => (
  <KeptForm name="note" initialValues={{ what: 'as it was', day: dayjs('2026-03-01') }} onFinish={sent}>
    <Form.Item label="What" name="what">
      <Input />
    </Form.Item>
    <Form.Item label="Day" name="day">
      <DatePicker format="D MMM YYYY" />
    </Form.Item>
    <Button htmlType="submit">Send</Button>
  </KeptForm>
)
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label).value

test('what was typed is there again, told as such, and a day is a day', async () => {
  const { person, unmount } = show(note())
  expect(screen.queryByRole('status')).toBeNull()
  await person.clear(screen.getByLabelText('What'))
  await person.type(screen.getByLabelText('What'), 'forty of the brass')
  unmount()
  const sent = jest.fn()
  const { person: later } = show(note(sent))
  expect(field('What')).toBe('forty of the brass')
  expect(screen.getByRole('status').textContent).toContain('What you had typed is still here.')
  await later.click(screen.getByRole('button', { name: 'Send' }))
  await waitFor(() => expect(sent).toHaveBeenCalled())
  const [given] = sent.mock.calls[0] as [{ what: string; day: unknown }]
  expect(given.what).toBe('forty of the brass')
  expect(dayjs.isDayjs(given.day)).toBe(true)
  expect(dayjs(given.day as dayjs.Dayjs).format('YYYY-MM-DD')).toBe('2026-03-01')
})

test('begun again, the form is as it was, and nothing is kept', async () => {
  const { person, unmount } = show(note())
  await person.type(screen.getByLabelText('What'), ', and more')
  unmount()
  const { person: later, unmount: left } = show(note())
  await later.click(screen.getByRole('button', { name: 'Start again' }))
  await later.click(await screen.findByRole('button', { name: 'Throw it away' }))
  await waitFor(() => expect(field('What')).toBe('as it was'))
  expect(screen.queryByText('What you had typed is still here.', { exact: false })).toBeNull()
  left()
  show(note())
  expect(field('What')).toBe('as it was')
})

test('who signs in after them on the same machine does not find it; once it is sent, nobody does', async () => {
  const { person, unmount } = show(note())
  await person.type(screen.getByLabelText('What'), ', for odile')
  unmount()
  keepSession({ csrfToken: 'token', name: 'corin' })
  const { unmount: left } = show(note())
  expect(field('What')).toBe('as it was')
  left()
  keepSession({ csrfToken: 'token', name: 'odile' })
  forgetForm('note')
  show(note())
  expect(field('What')).toBe('as it was')
})

test('what is typed just before something is filled in by itself is not lost with it', () => {
  const line: { version?: number; kits?: number } = {}
  const { result, unmount } = renderHook(() => useKept('line', line))
  // Both know only the page as it was rendered last.
  const { change } = result.current
  act(() => {
    change((before) => ({ ...before, kits: 24 }))
    change((before) => ({ ...before, version: 2 }), true)
  })
  expect(result.current.value).toEqual({ kits: 24, version: 2 })
  unmount()
  expect(renderHook(() => useKept('line', line)).result.current).toMatchObject({ value: { kits: 24 }, kept: true })
})
