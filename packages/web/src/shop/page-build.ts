import { pageBuildHeader, pageBuildOf } from '@tessellum/contract/page-build'

const script = globalThis.document?.querySelector<HTMLScriptElement>('script[type=module][src]')
const own = script ? pageBuildOf(script.src) : undefined

/** Whether an answer comes from a server that gives out these very pages, so that they know all it can say. */
export const isOfOwnBuild = ({ headers }: Response): boolean => {
  const build = headers.get(pageBuildHeader)
  return build !== null && build === own
}
