/** What a person of the shop may be: one or several of these. */
export const personRoles = ['owner', 'designer', 'stockroom', 'teacher', 'counter'] as const
export type PersonRole = (typeof personRoles)[number]
