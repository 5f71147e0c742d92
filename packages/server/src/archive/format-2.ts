/** Archives of format 2: everybody had one role. */

/** @returns tables as they are archived now */
export const fromFormat2 = (
  tables: ReadonlyMap<string, Record<string, unknown>[]>,
): Map<string, Record<string, unknown>[]> =>
  new Map(tables).set(
    'person',
    (tables.get('person') ?? []).map(({ role, ...person }) => ({ ...person, roles: [role] })),
  )
