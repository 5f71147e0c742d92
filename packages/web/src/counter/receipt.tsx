import { useQuery } from '@tanstack/react-query'
import type { Sale } from '@tessellum/contract/sales'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useMoney, useShopSettings } from '../settings/use-shop-settings'
import { addressOf } from '../shop/api'
import { read } from '../shop/queries'
import { logoAt } from '../writing/picture-files'
import styles from './counter.module.css'

/** What a customer takes along; patterns as PDF with the buyer's name on every page. */
export function Receipt({ sale, close }: { sale: Sale; close: () => void }) {
  const money = useMoney()
  const { profile } = useShopSettings()
  const { data: sign } = useQuery(read.logo)
  const logo = sign?.logo
  const total = sale.lines.reduce((sum, { price }) => sum + price, 0)
  const tax = sale.lines.reduce((sum, line) => sum + line.tax, 0)
  const refunded = sale.lines.reduce((sum, line) => sum + line.refunded, 0)
  return (
    <section className={`sheet pad ${styles.receipt}`} aria-label="Receipt">
      {logo && <img className={styles.logo} src={logoAt(logo.digest)} alt="" />}
      <h2>{profile.name}</h2>
      {profile.address && <p className={styles.address}>{profile.address}</p>}
      <p className="figures">
        Sale {sale.id}, {dayjs(sale.at).format('D MMMM YYYY, HH:mm')}
        {sale.customer && `, for ${sale.customer}`}
      </p>
      <table className={styles.sold}>
        <tbody>
          {sale.lines.map((line) => (
            <tr key={line.id}>
              <td>
                {line.name}
                {line.returned > 0 && (
                  <span className="quiet">, {sayQuantity(line.returned, line.unit)} of it came back</span>
                )}
                {line.patternId !== null && line.version !== null && (
                  <>
                    {' '}
                    <a
                      className="no-print"
                      href={addressOf('GET /api/patterns/:id/document.pdf', {
                        params: { id: line.patternId },
                        query: { version: line.version, buyer: sale.customer },
                      })}
                    >
                      PDF
                    </a>
                  </>
                )}
              </td>
              <td className="figures">{sayQuantity(line.quantity, line.unit)}</td>
              <td className="figures">{money.say(line.price)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">Total</th>
            <td />
            <td className="figures">
              <strong>{money.say(total)}</strong>
            </td>
          </tr>
          {tax > 0 && (
            <tr>
              <th scope="row">Tax in it</th>
              <td />
              <td className="figures">{money.say(tax)}</td>
            </tr>
          )}
          {refunded > 0 && (
            <tr>
              <th scope="row">Given back</th>
              <td />
              <td className="figures">{money.say(refunded)}</td>
            </tr>
          )}
        </tfoot>
      </table>
      <p className="quiet">Served by {sale.by}</p>
      <div className="hands no-print">
        <Button onClick={() => window.print()}>Print</Button>
        <Button type="primary" onClick={close}>
          Next customer
        </Button>
      </div>
    </section>
  )
}
