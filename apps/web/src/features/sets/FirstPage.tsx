import { Navigate } from 'react-router';
import { setsApi } from './api';

/** Opens the set worked on last; with none yet the jobs, where the work begins. */
export function FirstPage() {
  const { data, isLoading } = setsApi.useListSetsQuery({ search: '', offset: 0, limit: 1 });
  if (isLoading) return null;
  const last = data?.sets[0];
  return <Navigate to={last ? `/sets/${last.id}` : '/jobs'} replace />;
}
