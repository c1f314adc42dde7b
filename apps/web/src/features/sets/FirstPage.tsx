import { Navigate } from 'react-router';
import { setsApi } from './api';
import { SetListView } from './SetListView';

/** Opens the set worked on last; with none yet, the list that explains itself. */
export function FirstPage() {
  const { data, isLoading } = setsApi.useListSetsQuery({ search: '', offset: 0, limit: 1 });
  if (isLoading) return null;
  const last = data?.sets[0];
  return last ? <Navigate to={`/sets/${last.id}`} replace /> : <SetListView />;
}
