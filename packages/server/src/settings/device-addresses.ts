import type { Settings } from '@tessellum/contract/settings'
import type { Config } from '../config'
import type { Database } from '../database/connect'
import type { Revision } from '../database/revision'
import { settingsNow } from './store'

export type Addresses = Settings['devices']

/** Where devices and the suppliers' service are: as the shop has settled, or else as the server was told when it was started; empty without one. */
export function deviceAddresses(
  shop: { readonly db: Database; readonly revision: Revision },
  { SCALE, PRINTER, SCANNER, SUPPLIER }: Pick<Config, 'SCALE' | 'PRINTER' | 'SCANNER' | 'SUPPLIER'>,
) {
  return async (): Promise<Addresses> => {
    const { scale, printer, scanner, supplier } = (await settingsNow(shop)).devices
    return {
      scale: scale || SCALE,
      printer: printer || PRINTER,
      scanner: scanner || SCANNER,
      supplier: supplier || SUPPLIER,
    }
  }
}
