import '@fontsource/fraunces/600.css'
import '@fontsource-variable/source-sans-3/index.css'
import '@fontsource-variable/source-code-pro/index.css'
import './tokens.css'
import './base.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { ConfigProvider } from 'antd'
import type { ReactNode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { prefetchPages } from './frame/prefetch'
import { router, routes } from './routes'
import { queries } from './shop/queries'
import { theme } from './theme'

const root = document.getElementById('root')
if (!root) throw new Error('The page has no root.')
prefetchPages(routes)
const themed = (children: ReactNode) => <ConfigProvider theme={theme}>{children}</ConfigProvider>
// Messages and questions over the page come with what first needs them, outside of what is rendered here.
ConfigProvider.config({ holderRender: themed })
createRoot(root).render(
  themed(
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  ),
)
