import { createBrowserRouter } from 'react-router'
import { ErrorPage } from './common/ErrorPage'
import { ShelfPage } from './shelf/ShelfPage'

/** Every screen has an address; all but the Shelf are loaded when they are first opened. The screens of a scene share the open scene. */
export const router = createBrowserRouter([
  {
    errorElement: <ErrorPage />,
    hydrateFallbackElement: <></>,
    children: [
      { path: '/', element: <ShelfPage /> },
      {
        path: '/scene/:id',
        lazy: async () => ({ Component: (await import('./scene/SceneRoute')).SceneRoute }),
        children: [
          { index: true, lazy: async () => ({ Component: (await import('./workbench/WorkbenchPage')).WorkbenchPage }) },
          { path: 'trials', lazy: async () => ({ Component: (await import('./trials/TrialsPage')).TrialsPage }) },
          { path: 'recipes', lazy: async () => ({ Component: (await import('./recipes/RecipesPage')).RecipesPage }) },
          { path: 'export', lazy: async () => ({ Component: (await import('./export/ExportPage')).ExportPage }) },
          {
            path: 'field/:effectId',
            lazy: async () => ({ Component: (await import('./fieldStudio/FieldStudioPage')).FieldStudioPage }),
          },
        ],
      },
      { path: '/recipes', lazy: async () => ({ Component: (await import('./recipes/LatestRecipes')).LatestRecipes }) },
      { path: '/batch', lazy: async () => ({ Component: (await import('./batch/BatchPage')).BatchPage }) },
      { path: '*', element: <ErrorPage message="There is no page at this address." /> },
    ],
  },
])
