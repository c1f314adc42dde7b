import { afterEach, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { jobsApi } from '../src/features/jobs/api';
import { setsApi } from '../src/features/sets';
import { soon } from './soon';
import { standInServer } from './standInServer';

afterEach(() => void vi.unstubAllGlobals());

test('lists are read anew after a job has come in: it brings sets with it', async () => {
  const asked: string[] = [];
  standInServer((request) => {
    const { pathname } = new URL(request.url);
    asked.push(`${request.method} ${pathname}`);
    const answer = request.method === 'GET' ? { jobs: [], sets: [], total: 0 } : { id: 'new' };
    return new Response(JSON.stringify(answer), { headers: { 'content-type': 'application/json' } });
  });
  const { store } = createStore();
  const page = { search: '', offset: 0, limit: 20 };
  const lists = [
    store.dispatch(setsApi.endpoints.listSets.initiate(page)),
    store.dispatch(jobsApi.endpoints.listJobs.initiate({ ...page, archived: 'no' })),
  ];
  await Promise.all(lists);
  expect(asked.sort()).toEqual(['GET /api/jobs', 'GET /api/sets']);
  for (const bring of [
    () => store.dispatch(jobsApi.endpoints.importJob.initiate(new Blob(['archive']))),
    () => store.dispatch(jobsApi.endpoints.createDemoJob.initiate()),
  ]) {
    asked.splice(0);
    await bring();
    await soon(() =>
      expect(asked.filter((one) => one.startsWith('GET')).sort()).toEqual(['GET /api/jobs', 'GET /api/sets']),
    );
  }
  for (const list of lists) list.unsubscribe();
});
