import { personRoles } from './roles'
import { z } from './zod'

const personRole = z.enum(personRoles)

const oneOrMoreRoles = z
  .array(personRole, 'Choose at least one role.')
  .min(1, 'Choose at least one role.')
  .refine((roles) => new Set(roles).size === roles.length, 'Choose each role once.')

const fullName = z.string('Enter a name.').trim().min(1, 'Enter a name.').max(80, 'A name has at most 80 letters.')

/** Somebody who is to sign in; they choose their own password by a link. */
export const newPerson = z.object({
  name: z
    .string('Give a sign-in name.')
    .trim()
    .toLowerCase()
    .min(2, 'A sign-in name has at least 2 letters.')
    .max(60, 'A sign-in name has at most 60 letters.')
    .regex(/^[a-z0-9][a-z0-9.-]*$/, 'A sign-in name has small letters, figures, dots and hyphens only.'),
  fullName,
  roles: oneOrMoreRoles,
})
export type NewPerson = z.infer<typeof newPerson>

export const changePerson = z.object({ fullName, roles: oneOrMoreRoles })
export type ChangePerson = z.infer<typeof changePerson>

export const newPassword = z
  .string('Enter a new password.')
  .min(10, 'A password has at least 10 characters.')
  .max(200, 'A password has at most 200 characters.')

/** A one-time link with which somebody chooses a password. */
export const passwordLink = z.object({
  /** Of the page that it opens, within the shop. */
  path: z.string(),
  /** ISO 8601. */
  expiresAt: z.string(),
})
export type PasswordLink = z.infer<typeof passwordLink>

const token = z.string('The link is not whole.').min(1, 'The link is not whole.').max(100, 'The link is not whole.')
export const openLink = z.object({ token })
export const welcomed = z.object({ name: z.string(), fullName: z.string() })
export const choosePassword = z.object({ token, password: newPassword })
export const changePassword = z.object({
  current: z.string('Enter your password.').min(1, 'Enter your password.').max(200, 'That is not your password.'),
  password: newPassword,
})

export const signIn = z.object({
  name: z
    .string('Enter your sign-in name.')
    .trim()
    .min(1, 'Enter your sign-in name.')
    .max(60, 'A sign-in name has at most 60 letters.'),
  password: z
    .string('Enter your password.')
    .min(1, 'Enter your password.')
    .max(200, 'A password has at most 200 characters.'),
})
export type SignIn = z.infer<typeof signIn>

/** Somebody of the shop, as the owner sees them. */
export const person = z.object({
  id: z.number(),
  name: z.string(),
  fullName: z.string(),
  roles: z.array(personRole),
  disabled: z.boolean(),
  /** They have not chosen a password yet. */
  waiting: z.boolean(),
  /** In how many browsers they are signed in. */
  sessions: z.number(),
})
export type Person = z.infer<typeof person>

export const me = z.object({
  id: z.number(),
  name: z.string(),
  fullName: z.string(),
  roles: z.array(personRole),
  /** Goes back in the header x-csrf-token of everything that changes something. */
  csrfToken: z.string(),
})
export type Me = z.infer<typeof me>
