/** The header by which the server says with every answer which build of the pages it gives out. */
export const pageBuildHeader = 'x-page-build'

/**
 * A build goes by the name of its first script, which is another when anything that the pages load is another.
 *
 * @param page its HTML, or the address of that script
 */
export const pageBuildOf = (page: string): string | undefined => /\/assets\/(index-[\w-]+)\.js/.exec(page)?.[1]
