import { useQuery } from '@tanstack/react-query'
import { mayDo, type Right } from '@tessellum/contract/rights'
import { read } from '../shop/queries'

/** Whether the person signed in may do something: what they may not is not shown. */
export function useMay(right: Right): boolean {
  const { data } = useQuery(read.me)
  return !!data && mayDo(data.roles, right)
}
