/** What a pattern's file is called: its title, without what some file systems refuse. */
export const fileName = (title: string, extension: string): string =>
  `${title.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'pattern'}.${extension}`
