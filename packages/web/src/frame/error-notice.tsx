import type { ShopError } from '../shop/api'

/** What the shop would not do, and how to mend it. */
export const ErrorNotice = ({ error }: { error: ShopError | null | undefined }) =>
  error ? (
    <div role="alert" className="notice trouble">
      {error.message} {error.hint}
    </div>
  ) : null
