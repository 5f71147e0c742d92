import { settings as schema } from '@tessellum/contract/settings'
import { usualSettings } from '@tessellum/contract/usual-settings'
import { type Field, type PartName, parts, spoken, unspoken, usually } from '../src/settings/parts'

const names = Object.keys(parts) as PartName[]
const fieldsOf = (name: PartName) => Object.entries(parts[name].fields as Readonly<Record<string, Field>>)

test.each(names)('every setting of %s can be changed, and what a person types is kept as it was meant', (name) => {
  const usual: Readonly<Record<string, unknown>> = usualSettings[name]
  expect(
    fieldsOf(name)
      .map(([key]) => key)
      .sort(),
  ).toEqual(Object.keys(schema.shape[name].shape).sort())
  const typed = Object.fromEntries(fieldsOf(name).map(([key, field]) => [key, spoken(field, usual[key])]))
  const kept = Object.fromEntries(fieldsOf(name).map(([key, field]) => [key, unspoken(field, typed[key])]))
  expect(kept).toEqual(usual)
  expect(schema.shape[name].parse(kept)).toEqual(usual)
})

test('what is usual is told as it is typed', () => {
  expect(usually('thread', 'tailMm')).toBe('Usually 15 cm.')
  expect(usually('kits', 'smallShare')).toBe('Usually 10 %.')
  expect(usually('documents', 'language')).toBe('Usually English.')
  expect(usually('profile', 'name')).toBe('')
})

test('a choice offers what the shop may settle', () => {
  for (const name of names)
    for (const [key, { kind, choices }] of fieldsOf(name))
      for (const { value } of choices ?? [])
        expect([
          key,
          value,
          schema.shape[name].safeParse({ ...usualSettings[name], [key]: kind === 'choices' ? [value] : value }).success,
        ]).toEqual([key, value, true])
})
