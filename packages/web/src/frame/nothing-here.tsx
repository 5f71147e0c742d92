import { Link } from 'react-router'

export const NothingHere = () => (
  <div className="empty">
    <h2>There is nothing at this address</h2>
    <p>
      It may have moved. Go to the <Link to="/patterns">patterns</Link>, the <Link to="/stock">stock</Link> or the{' '}
      <Link to="/kits">kits</Link>.
    </p>
  </div>
)
