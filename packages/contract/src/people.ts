import { z } from 'zod'

export const personRole = z.enum(['owner', 'designer', 'stockroom', 'teacher'])
export type PersonRole = z.infer<typeof personRole>

export const signIn = z.object({
  name: z
    .string('Give your sign-in name.')
    .trim()
    .min(1, 'Give your sign-in name.')
    .max(60, 'A sign-in name has at most 60 letters.'),
  password: z
    .string('Give your password.')
    .min(1, 'Give your password.')
    .max(200, 'A password has at most 200 letters.'),
})
export type SignIn = z.infer<typeof signIn>

/** Somebody of the shop, as the owner sees them. */
export const person = z.object({
  id: z.number(),
  name: z.string(),
  fullName: z.string(),
  role: personRole,
  disabled: z.boolean(),
  /** In how many browsers they are signed in. */
  sessions: z.number(),
})
export type Person = z.infer<typeof person>

export const me = z.object({
  id: z.number(),
  name: z.string(),
  fullName: z.string(),
  role: personRole,
  /** Goes back in the header x-csrf-token of everything that changes something. */
  csrfToken: z.string(),
})
export type Me = z.infer<typeof me>
