import '@fontsource-variable/instrument-sans'
import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import CssBaseline from '@mui/material/CssBaseline'
import { ThemeProvider } from '@mui/material/styles'
import { IconContext } from '@phosphor-icons/react/dist/lib/context'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router/dom'
import { NoticeHost } from './common/NoticeHost'
import { router } from './router'
import { showSurround } from './common/surround'
import { styleNonce } from './common/styleNonce'
import { loadKeymap } from './keys/keymap'
import { watchKeys } from './keys/listener'
import { watchGestures } from './scene/gestures'
import { theme } from './theme'

const styles = createCache({ key: 'w', ...(styleNonce ? { nonce: styleNonce } : {}) })
// All data is local: nothing waits for a network.
const queries = new QueryClient({
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, networkMode: 'always' }, mutations: { networkMode: 'always' } },
})

watchGestures()
watchKeys()
loadKeymap().catch((error: unknown) => console.warn(error))
showSurround()
/** What a button does stands in its name; its icon is nothing that is read out. */
const icons = { 'aria-hidden': true, size: '1em' } as const
const root = document.getElementById('root')
if (!root) throw new Error('The page has no root element.')
createRoot(root).render(
  <StrictMode>
    <CacheProvider value={styles}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <QueryClientProvider client={queries}>
          <IconContext value={icons}>
            <RouterProvider router={router} />
            <NoticeHost />
          </IconContext>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
)
