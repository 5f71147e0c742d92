import { Button } from 'antd'
import { useRouteError } from 'react-router'
import { isUnreachable, ShopError } from '../shop/api'

/** A page that cannot be shown, and what can be done about it. */
export function Trouble({ error: given }: { error?: unknown }) {
  const thrown = useRouteError()
  const error = given ?? thrown
  const away = isUnreachable(error)
  const told = error instanceof ShopError
  return (
    <div className="empty" role="alert">
      <h2>{away ? 'The shop’s records cannot be reached' : told ? error.message : 'This page crashed'}</h2>
      <p>
        {away
          ? 'This page opens as soon as they can be reached. Nothing has been lost.'
          : told
            ? error.hint
            : 'Something went wrong on our side. What was saved is safe; reload the page.'}
      </p>
      <Button onClick={() => window.location.reload()}>Reload the page</Button>
    </div>
  )
}
