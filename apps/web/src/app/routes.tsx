import { createBrowserRouter } from 'react-router';
import { BenchView } from '../features/bench';
import { KitView } from '../features/kit';
import { FirstPage, SetListView } from '../features/sets';
import { LostPage } from './LostPage';

export const router = createBrowserRouter([
  { path: '/', element: <FirstPage /> },
  { path: '/sets', element: <SetListView /> },
  { path: '/sets/:id', element: <BenchView /> },
  { path: '/kit', element: <KitView /> },
  { path: '*', element: <LostPage /> },
]);
