import type { FetchQueryOptions, QueryKey } from '@tanstack/react-query'
import { createBrowserRouter, type RouteObject, redirect } from 'react-router'
import { Frame } from './frame/frame'
import type { Ahead } from './frame/prefetch'
import { Trouble } from './frame/trouble'
import { queries, read } from './shop/queries'

/** What a page reads first, by the number in its address. */
const first = <Data, Key extends QueryKey>(
  query: (id: number) => FetchQueryOptions<Data, Error, Data, Key>,
): Ahead => ({
  ahead: ({ id }) => void queries.prefetchQuery(query(Number(id))),
})

/** Every address of the application; the heavy screens come only when they are opened. */
export const routes: RouteObject[] = [
  {
    path: '/sign-in',
    errorElement: <Trouble />,
    lazy: async () => ({ Component: (await import('./people/sign-in')).SignInPage }),
  },
  {
    path: '/welcome',
    errorElement: <Trouble />,
    lazy: async () => ({ Component: (await import('./people/welcome-page')).WelcomePage }),
  },
  {
    path: '/begin',
    errorElement: <Trouble />,
    lazy: async () => ({ Component: (await import('./people/begin-page')).BeginPage }),
  },
  {
    element: <Frame />,
    errorElement: <Trouble />,
    hydrateFallbackElement: <></>,
    children: [
      {
        errorElement: <Trouble />,
        children: [
          { index: true, loader: () => redirect('/bench'), element: <></> },
          {
            path: 'bench',
            handle: first(() => read.bench),
            lazy: async () => ({ Component: (await import('./diary/bench-page')).BenchPage }),
          },
          { path: 'diary', lazy: async () => ({ Component: (await import('./diary/diary-page')).DiaryPage }) },
          {
            path: 'diary/classes/new',
            lazy: async () => ({ Component: (await import('./diary/class-form')).NewClassPage }),
          },
          {
            path: 'diary/classes/:id',
            handle: first(read.class),
            lazy: async () => ({ Component: (await import('./diary/class-page')).ClassPage }),
          },
          {
            path: 'diary/classes/:id/sheet',
            lazy: async () => ({ Component: (await import('./diary/class-sheet')).ClassSheetPage }),
          },
          {
            path: 'diary/orders',
            handle: first(() => read.orders),
            lazy: async () => ({ Component: (await import('./diary/orders-page')).OrdersPage }),
          },
          {
            path: 'patterns',
            lazy: async () => ({ Component: (await import('./patterns/patterns-page')).PatternsPage }),
          },
          {
            path: 'patterns/:id',
            handle: first(read.pattern),
            lazy: async () => ({ Component: (await import('./patterns/pattern-page')).PatternPage }),
          },
          {
            path: 'patterns/:id/colours',
            lazy: async () => ({ Component: (await import('./colours/colours-page')).ColoursPage }),
          },
          {
            path: 'patterns/:id/written',
            lazy: async () => ({ Component: (await import('./writing/written-page')).WrittenPage }),
          },
          {
            path: 'patterns/:id/walk',
            lazy: async () => ({ Component: (await import('./patterns/walk-page')).WalkPage }),
          },
          {
            path: 'patterns/:id/sizes',
            lazy: async () => ({ Component: (await import('./patterns/sizes-page')).SizesPage }),
          },
          {
            path: 'patterns/:id/makers',
            lazy: async () => ({ Component: (await import('./patterns/makers-page')).MakersPage }),
          },
          {
            path: 'patterns/:id/pictures',
            lazy: async () => ({ Component: (await import('./pictures/pictures-page')).PicturesPage }),
          },
          {
            path: 'patterns/:id/versions',
            lazy: async () => ({ Component: (await import('./patterns/versions-page')).VersionsPage }),
          },
          { path: 'desk', lazy: async () => ({ Component: (await import('./desk/desk-page')).DeskPage }) },
          { path: 'stock', lazy: async () => ({ Component: (await import('./stock/stock-page')).StockPage }) },
          {
            path: 'stock/count',
            lazy: async () => ({ Component: (await import('./stock/count-page')).CountsPage }),
          },
          {
            path: 'stock/count/:id',
            lazy: async () => ({ Component: (await import('./stock/count-page')).CountPage }),
          },
          {
            path: 'stock/files',
            lazy: async () => ({ Component: (await import('./stock/files-page')).StockFilesPage }),
          },
          {
            path: 'stock/:id',
            handle: first(read.item),
            lazy: async () => ({ Component: (await import('./stock/item-page')).ItemPage }),
          },
          {
            path: 'kits',
            handle: first(() => read.batches),
            lazy: async () => ({ Component: (await import('./kits/batches-page')).BatchesPage }),
          },
          {
            path: 'kits/:id/change',
            lazy: async () => ({ Component: (await import('./kits/plan-page')).ChangePlanPage }),
          },
          { path: 'kits/plan', lazy: async () => ({ Component: (await import('./kits/plan-page')).PlanPage }) },
          { path: 'kits/make', lazy: async () => ({ Component: (await import('./kits/make-page')).MakePage }) },
          {
            path: 'kits/shortage/:itemId',
            lazy: async () => ({ Component: (await import('./kits/shortage-page')).ShortagePage }),
          },
          {
            path: 'customers',
            lazy: async () => ({ Component: (await import('./customers/customers-page')).CustomersPage }),
          },
          {
            path: 'customers/:id',
            lazy: async () => ({ Component: (await import('./customers/customer-page')).CustomerPage }),
          },
          {
            path: 'suppliers',
            lazy: async () => ({ Component: (await import('./suppliers/suppliers-page')).SuppliersPage }),
          },
          {
            path: 'suppliers/:id',
            lazy: async () => ({ Component: (await import('./suppliers/supplier-page')).SupplierPage }),
          },
          {
            path: 'counter/prices',
            lazy: async () => ({ Component: (await import('./counter/prices-page')).PricesPage }),
          },
          { path: 'counter', lazy: async () => ({ Component: (await import('./counter/counter-page')).CounterPage }) },
          { path: 'help', loader: () => redirect('/help/first-walk'), element: <></> },
          { path: 'help/:page', lazy: async () => ({ Component: (await import('./help/help-page')).HelpPage }) },
          { path: 'settings', loader: () => redirect('/settings/profile'), element: <></> },
          {
            path: 'settings/costs',
            lazy: async () => ({ Component: (await import('./settings/costs-page')).CostsPage }),
          },
          {
            path: 'settings/:part',
            lazy: async () => ({ Component: (await import('./settings/settings-page')).SettingsPage }),
          },
          { path: 'people', lazy: async () => ({ Component: (await import('./people/people-page')).PeoplePage }) },
          { path: 'account', lazy: async () => ({ Component: (await import('./people/account-page')).AccountPage }) },
          { path: 'audit', lazy: async () => ({ Component: (await import('./audit/audit-page')).AuditPage }) },
          {
            path: 'stand-ins',
            lazy: async () => ({ Component: (await import('./devices/stand-ins-page')).StandInsPage }),
          },
          { path: 'kits/buy', lazy: async () => ({ Component: (await import('./buying/buy-page')).BuyPage }) },
          {
            path: 'kits/:id/pack',
            lazy: async () => ({ Component: (await import('./packing/packing-page')).PackingPage }),
          },
          {
            path: 'kits/:id',
            handle: first(read.batch),
            lazy: async () => ({ Component: (await import('./kits/batch-page')).BatchPage }),
          },
          { path: '*', lazy: async () => ({ Component: (await import('./frame/nothing-here')).NothingHere }) },
        ],
      },
    ],
  },
]

export const router = createBrowserRouter(routes)
