import '@fontsource-variable/source-sans-3/index.css'
import '@fontsource-variable/fraunces/index.css'
import '@fontsource-variable/source-code-pro/index.css'
import './tokens.css'
import './base.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { App as AntApp, ConfigProvider } from 'antd'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { prefetchPages } from './frame/prefetch'
import { router, routes } from './routes'
import { queries } from './shop/queries'
import { theme } from './theme'

const root = document.getElementById('root')
if (!root) throw new Error('The page has no root.')
prefetchPages(routes)
createRoot(root).render(
  <ConfigProvider theme={theme}>
    <AntApp style={{ height: '100%' }}>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </AntApp>
  </ConfigProvider>,
)
