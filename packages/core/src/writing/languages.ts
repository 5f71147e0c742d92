import type { UnitSystem } from '../measure/units'
import { dutch } from './dutch/dutch'
import { english, englishIn } from './english/english'
import { french } from './french/french'
import { german } from './german/german'
import type { Language, LanguageCode } from './language'

/** Every language a pattern can be written in. Another is a folder and a line here. */
export const languages: Readonly<Record<LanguageCode, Language>> = { en: english, de: german, fr: french, nl: dutch }

/** A language as it measures: those but English are read with metric measures alone. */
export const languageIn = (code: LanguageCode, units: UnitSystem): Language =>
  code === 'en' ? englishIn(units) : languages[code]
