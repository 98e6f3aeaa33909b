import { Tooltip } from 'radix-ui'
import { lazy, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { createBrowserRouter, Link, RouterProvider } from 'react-router'
import { Toaster } from 'sonner'
import { store } from '../app/store'
import { AskRate } from './ask/AskRate'
import { Ghost } from './common/Ghost'
import { restoreLights } from './common/lights'
import './theme.css'

const ShotsPage = lazy(() => import('./shots/ShotsPage').then(m => ({ default: m.ShotsPage })))
const Workbench = lazy(() => import('./stage/Workbench').then(m => ({ default: m.Workbench })))
const GuidePage = lazy(() => import('./guide/GuidePage').then(m => ({ default: m.GuidePage })))
const ReportPage = lazy(() => import('./report/ReportPage').then(m => ({ default: m.ReportPage })))
const ExportPage = lazy(() => import('./export/ExportPage').then(m => ({ default: m.ExportPage })))

function Lost() {
  return (
    <main className="flex h-full flex-col items-center justify-center gap-4">
      <Ghost size={48} className="text-quiet" />
      <p>There is nothing here, or it has just broken.</p>
      <Link to="/" reloadDocument className="rounded-full bg-card px-4 py-1.5">
        Back to the shots
      </Link>
    </main>
  )
}

const router = createBrowserRouter([
  { path: '/', element: <ShotsPage />, errorElement: <Lost /> },
  {
    path: '/shot/:id',
    element: <Workbench />,
    errorElement: <Lost />,
    children: [{ path: 'report', element: <ReportPage /> }],
  },
  { path: '/shot/:id/export', element: <ExportPage />, errorElement: <Lost /> },
  { path: '/guide', element: <GuidePage />, errorElement: <Lost /> },
  { path: '*', element: <Lost /> },
])

restoreLights()
import('../app/engine/exports')
  .then(({ recallExports }) => recallExports())
  .catch(error => console.error('What was exported before cannot be listed:', error))
createRoot(document.getElementById('root')!).render(
  <Provider store={store}>
    <Tooltip.Provider delayDuration={500}>
      <Suspense fallback={null}>
        <RouterProvider router={router} />
      </Suspense>
      <AskRate />
      <Toaster
        // Over the bar: there it covers nothing that is worked on.
        position="top-center"
        offset={5}
        toastOptions={{
          classNames: {
            toast: '!bg-card !text-ink !border-line !font-text !rounded-2xl !px-4 !py-2',
            error: '!border-warn',
            closeButton: '!bg-raised !text-ink !border-line',
            actionButton: '!rounded-full !bg-lime !px-3 !py-1 !h-auto !font-bold !text-on-lime',
          },
        }}
      />
    </Tooltip.Provider>
  </Provider>,
)
