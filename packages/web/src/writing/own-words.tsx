import type { Pattern } from '@tessellum/contract/patterns'
import type { SaveWords } from '@tessellum/contract/words'
import { type StepKey, type StepWords, sameStep } from '@tessellum/core/writing/step-words'
import type { Step, WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { Button, Drawer, Input, Select } from 'antd'
import { useEffect, useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, useKept } from '../frame/kept-form'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './own-words.module.css'

interface OwnWordsProps {
  readonly pattern: Pattern
  readonly written: WrittenPattern
  readonly words: readonly StepWords[]
  readonly aside: readonly StepWords[]
  readonly close: () => void
}

/** The designer's own words, step by step; and those whose step is gone. */
export function OwnWords({ pattern, written, words, aside, close }: OwnWordsProps) {
  const save = useIdempotentMutation(
    (body: SaveWords) => call('PUT /api/patterns/:id/words', { params: { id: pattern.id }, body }),
    { stale: ['editions'], after: (_, { language, ...key }) => forgetForm(keptName(pattern.id, language, key)) },
  )
  // What is being typed is saved on leaving its field, and Escape leaves no field by itself.
  const leave = () => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    close()
  }
  const steps = written.parts.flatMap((part) => part.steps)
  return (
    <Drawer open onClose={leave} size={720} title={`Own words for ${pattern.title}`}>
      <p className="quiet">
        They stay with a step as long as its line says the same in notation. What is said of counts stays as it is.
      </p>
      <ErrorNotice error={save.refused} />
      {aside.map((each) => (
        <Aside
          key={JSON.stringify(each)}
          words={each}
          steps={steps}
          give={(key) => save.run({ ...each, ...key, from: { part: each.part, text: each.text, nth: each.nth } })}
          away={() => save.run({ ...each, instead: '', also: '' })}
        />
      ))}
      <ol className={styles.words} aria-label="Steps">
        {steps.map((step) => (
          <StepForm
            key={`${step.key.part} ${step.key.text} ${step.key.nth}`}
            step={step}
            name={keptName(pattern.id, written.language, step.key)}
            own={words.find((each) => each.language === written.language && sameStep(each, step.key))}
            save={(instead, also) => save.run({ ...step.key, language: written.language, instead, also })}
          />
        ))}
      </ol>
    </Drawer>
  )
}

/** Under which what is typed for a step is kept until it is saved. */
const keptName = (patternId: number, language: string, { part, text, nth }: StepKey) =>
  ['words', patternId, language, part, text, nth].join(' ')

interface StepFormProps {
  readonly step: Step
  readonly name: string
  readonly own: StepWords | undefined
  readonly save: (instead: string, also: string) => void
}

/** Saved on leaving a field, so that nothing typed is lost. */
function StepForm({ step, name, own, save }: StepFormProps) {
  const { value, change, kept } = useKept(name, { instead: own?.instead ?? '', also: own?.also ?? '' })
  const { instead, also } = value
  const [open, setOpen] = useState(own !== undefined || kept)
  const settle = () => {
    if (instead.trim() !== (own?.instead ?? '') || also.trim() !== (own?.also ?? '')) save(instead, also)
  }
  // What did not reach the shop last time is sent again.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it is shown
  useEffect(() => {
    if (kept) settle()
  }, [])
  return (
    <li>
      <strong className="figures">{step.number}</strong>
      <div>
        <code>{step.key.text}</code>
        <p>{step.replaced ?? step.text}</p>
        {open ? (
          <>
            <WordsField
              name={`Instead, step ${step.number}`}
              hint="Instead of this sentence"
              value={instead}
              change={(next) => change({ ...value, instead: next })}
              settle={settle}
            />
            <WordsField
              name={`Also, step ${step.number}`}
              hint="After it"
              value={also}
              change={(next) => change({ ...value, also: next })}
              settle={settle}
            />
          </>
        ) : (
          <Button size="small" onClick={() => setOpen(true)} aria-label={`Say step ${step.number} in your own words`}>
            In your own words
          </Button>
        )}
      </div>
    </li>
  )
}

interface WordsFieldProps {
  readonly name: string
  readonly hint: string
  readonly value: string
  readonly change: (value: string) => void
  readonly settle: () => void
}

const WordsField = ({ name, hint, value, change, settle }: WordsFieldProps) => (
  <Input.TextArea
    aria-label={name}
    placeholder={hint}
    autoSize
    maxLength={4000}
    value={value}
    onChange={(event) => change(event.target.value)}
    onBlur={settle}
    className={styles.field ?? ''}
  />
)

interface AsideProps {
  readonly words: StepWords
  readonly steps: readonly Step[]
  readonly give: (key: StepKey) => void
  readonly away: () => void
}

/** Words whose step is gone: they can be given to another, or thrown away. */
function Aside({ words, steps, give, away }: AsideProps) {
  return (
    <section className="notice" aria-label={`Words kept aside from "${words.text}"`}>
      <p>
        The line <code>{words.text}</code> is not in the pattern any more. Its words:
      </p>
      <blockquote>
        {words.instead}
        {words.instead && words.also ? ' / ' : ''}
        {words.also}
      </blockquote>
      <div className="hands">
        <Select
          aria-label="Give them to step"
          placeholder="Give them to another step"
          className={styles.step ?? ''}
          options={steps.map((step) => ({ value: step.number, label: `${step.number}: ${step.key.text}` }))}
          onChange={(number: number) => {
            const step = steps.find((each) => each.number === number)
            if (step) give(step.key)
          }}
        />
        <Button danger onClick={away}>
          Throw away
        </Button>
      </div>
    </section>
  )
}
