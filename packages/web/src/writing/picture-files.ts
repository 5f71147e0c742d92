/** A written pattern as a file of its own has its pictures in it. */
import { addressOf } from '../shop/api'

/** Where the page finds a picture. */
export const pictureAt = (id: number): string =>
  addressOf('GET /api/pictures/:id/:size', { params: { id, size: 'medium' } })

export const logoAt = (digest: string): string => addressOf('GET /api/logo/:digest', { params: { digest } })

const anyPicture = /\/api\/(?:pictures\/\d+\/medium|logo\/[0-9a-f]+)/g

/**
 * The same text with every picture's bytes where its address stood.
 *
 * @throws Error where one cannot be fetched
 */
export async function withPictures(text: string): Promise<string> {
  const bytes = new Map<string, string>()
  for (const address of new Set(text.match(anyPicture))) bytes.set(address, await asData(address))
  return text.replace(anyPicture, (address) => bytes.get(address) ?? address)
}

async function asData(address: string): Promise<string> {
  const response = await fetch(address).catch(() => undefined)
  if (!response?.ok) throw new Error('A picture could not be fetched. Try again in a moment.')
  const blob = await response.blob()
  return new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result))
    reader.onerror = () => reject(new Error('A picture could not be read.'))
    reader.readAsDataURL(blob)
  })
}
