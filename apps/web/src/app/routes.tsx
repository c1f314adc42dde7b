import LinearProgress from '@mui/material/LinearProgress';
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import { BenchView } from '../features/bench';
import { KitView } from '../features/kit';
import { FirstPage, SetListView } from '../features/sets';
import { BrokenPage } from './BrokenPage';
import { LostPage } from './LostPage';

/** All places, each with its address; a fault in any of them has a page of its own. */
export const routes: RouteObject[] = [
  {
    errorElement: <BrokenPage />,
    // While the first place is being loaded.
    hydrateFallbackElement: <LinearProgress aria-label="The page is being loaded" />,
    children: [
      { path: '/', element: <FirstPage /> },
      { path: '/sets', element: <SetListView /> },
      { path: '/sets/:id', element: <BenchView /> },
      {
        path: '/sets/:id/sheet',
        lazy: () =>
          import('../features/setSheet/pages').then(({ SetSheetView }) => ({ Component: SetSheetView })),
      },
      {
        path: '/sets/:id/rebuild',
        lazy: () =>
          import('../features/rebuild/pages').then(({ RebuildView }) => ({ Component: RebuildView })),
      },
      {
        path: '/sets/:id/build',
        lazy: () => import('../features/rebuild/pages').then(({ BuildView }) => ({ Component: BuildView })),
      },
      { path: '/kit', element: <KitView /> },
      {
        path: '/kit-tables',
        lazy: () => import('../features/kit/pages').then(({ KitTables }) => ({ Component: KitTables })),
      },
      {
        path: '/kit/calibration',
        lazy: () =>
          import('../features/calibration/pages').then(({ CalibrationView }) => ({
            Component: CalibrationView,
          })),
      },
      {
        path: '/room',
        lazy: () => import('../features/room').then(({ RoomView }) => ({ Component: RoomView })),
      },
      {
        path: '/log',
        lazy: () => import('../features/log/pages').then(({ LogPage }) => ({ Component: LogPage })),
      },
      {
        path: '/backups',
        lazy: () =>
          import('../features/backups/pages').then(({ BackupsView }) => ({ Component: BackupsView })),
      },
      // The places of a job come when they are asked for: the bench is there without them.
      {
        lazy: () => import('../features/jobs/pages').then(({ JobListView }) => ({ Component: JobListView })),
        path: '/jobs',
      },
      {
        lazy: () => import('../features/jobs/pages').then(({ JobFrame }) => ({ Component: JobFrame })),
        path: '/jobs/:jobId',
        children: [
          { index: true, element: <Navigate to="brief" replace /> },
          {
            path: 'brief',
            lazy: () => import('../features/jobs/pages').then(({ BriefView }) => ({ Component: BriefView })),
          },
          {
            path: 'products',
            lazy: () =>
              import('../features/jobs/pages').then(({ ProductsView }) => ({ Component: ProductsView })),
          },
          {
            path: 'pictures',
            lazy: () => import('../features/jobs/pages').then(({ ShotsView }) => ({ Component: ShotsView })),
          },
          {
            path: 'pictures/:shotId',
            lazy: () =>
              import('../features/jobs/pages').then(({ CameraView }) => ({ Component: CameraView })),
          },
          {
            path: 'day',
            lazy: () => import('../features/jobs/pages').then(({ DayView }) => ({ Component: DayView })),
          },
          {
            path: 'frames',
            lazy: () =>
              import('../features/jobs/pages').then(({ FramesView }) => ({ Component: FramesView })),
          },
          {
            path: 'log',
            lazy: () => import('../features/log/pages').then(({ LogOfJob }) => ({ Component: LogOfJob })),
          },
          {
            path: 'match',
            lazy: () =>
              import('../features/jobs/pages').then(({ SeriesMatch }) => ({ Component: SeriesMatch })),
          },
          {
            path: 'set-side',
            lazy: () =>
              import('../features/jobs/pages').then(({ SetSideView }) => ({ Component: SetSideView })),
          },
          {
            path: 'series',
            lazy: () =>
              import('../features/jobs/pages').then(({ SeriesView }) => ({ Component: SeriesView })),
          },
        ],
      },
      {
        path: '/set-side',
        lazy: () =>
          import('../features/jobs/pages').then(({ PairedSetSide }) => ({ Component: PairedSetSide })),
      },
      { path: '*', element: <LostPage /> },
    ],
  },
];

export const router = createBrowserRouter(routes);
