import { createBrowserRouter } from 'react-router'
import { ErrorPage } from './common/ErrorPage'
import { ShelfPage } from './shelf/ShelfPage'

/** Every screen has an address; all but the Shelf are loaded when they are first opened. */
export const router = createBrowserRouter([
  {
    errorElement: <ErrorPage />,
    children: [
      { path: '/', element: <ShelfPage /> },
      { path: '/scene/:id', lazy: async () => ({ Component: (await import('./workbench/WorkbenchPage')).WorkbenchPage }) },
      { path: '/scene/:id/export', lazy: async () => ({ Component: (await import('./export/ExportPage')).ExportPage }) },
      {
        path: '/scene/:id/field/:effectId',
        lazy: async () => ({ Component: (await import('./fieldStudio/FieldStudioPage')).FieldStudioPage }),
      },
      { path: '*', element: <ErrorPage message="There is no page at this address." /> },
    ],
  },
])
