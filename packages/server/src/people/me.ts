import type { Me } from '@tessellum/contract/people'
import type { SignedIn } from '../context'

/** Who is signed in, as their page is told. */
export const meOf = ({ id, name, fullName, roles }: SignedIn, csrfToken: string): Me => ({
  id,
  name,
  fullName,
  roles: [...roles],
  csrfToken,
})
