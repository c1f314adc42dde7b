// @vitest-environment jsdom
import type { Frame, FrameChange, FrameList, SetDocument, StoredJob } from '@fendrix/contract';
import { demoJob, demoSet } from '@fendrix/demo';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { FramesView } from '../src/features/jobs/frames/FramesView';
import { openJob } from '../src/features/jobs/state/openJob';
import { devicesOff } from './devicesOff';
import { press } from './hands';
import { soon } from './soon';
import { standInServer } from './standInServer';

const JOB_ID = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';

const frame = (name: string, more: Partial<Frame> = {}): Frame => ({
  id: `id-${name}`,
  name,
  bytes: 1000,
  widthPx: 600,
  heightPx: 400,
  arrivedAt: '2026-11-30T09:00:00.000Z',
  takenAt: null,
  job: JOB_ID,
  shot: null,
  plate: null,
  take: null,
  placedBy: null,
  state: 'new',
  starred: false,
  gone: false,
  exposureS: 1 / 125,
  fNumber: 8,
  iso: 100,
  focalMm: null,
  body: null,
  ...more,
});

/** The place of frames over a server that keeps what it is told, or refuses it. */
async function openFrames(
  frames: Frame[],
  more: Partial<FrameList> = {},
  refuses = false,
  set: SetDocument | null = null,
) {
  const kept = new Map(frames.map((own) => [own.id, own]));
  const told: FrameChange[] = [];
  let held: (() => Promise<void>) | null = null;
  standInServer(async (request) => {
    const { pathname } = new URL(request.url);
    if (request.method === 'PATCH') {
      const change = (await request.json()) as FrameChange;
      told.push(change);
      if (refuses)
        return Response.json({ error: { code: 'storage', message: 'The disk is full.' } }, { status: 507 });
      const id = pathname.split('/').at(-1) as string;
      kept.set(id, { ...(kept.get(id) as Frame), ...(change as Partial<Frame>) });
      return Response.json(kept.get(id));
    }
    if (pathname === '/api/frames') {
      const list: FrameList = {
        folder: { path: '/studio/frames', there: true },
        job: null,
        reading: 0,
        unreadable: [],
        total: kept.size,
        frames: [...kept.values()],
        ...more,
      };
      const answer = Response.json(list);
      if (held) await held();
      return answer;
    }
    if (pathname === '/api/devices') return Response.json(devicesOff);
    if (pathname.startsWith('/api/sets/') && set)
      return Response.json({ id: JOB_ID, name: set.name, revision: 1, updatedAt: '', document: set });
    if (pathname.startsWith('/api/sets/'))
      return Response.json({ error: { code: 'not-found', message: 'gone' } }, { status: 404 });
    return Response.json({ jobs: [], total: 0 });
  });
  const { store } = createStore();
  const document = demoJob(() => JOB_ID);
  const stored: StoredJob = { id: JOB_ID, name: document.name, revision: 1, updatedAt: '', document };
  store.dispatch(openJob.open(stored, null));
  render(
    <Provider store={store}>
      <MemoryRouter initialEntries={[`/jobs/${JOB_ID}/frames`]}>
        <Routes>
          <Route path="/jobs/:jobId/frames" element={<FramesView />} />
        </Routes>
      </MemoryRouter>
    </Provider>,
  );
  await screen.findByRole('heading', { name: /^Frames \(/ });
  const hold = (until: (() => Promise<void>) | null) => {
    held = until;
  };
  return { told, shots: document.shots, hold };
}
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const chosen = () => screen.getByRole('region', { name: 'This frame' });
const key = (name: string) =>
  fireEvent.keyDown(document.body, {
    key: name,
    code: name.length === 1 ? `Key${name.toUpperCase()}` : name,
  });

test('with none it says where cameras are to write, and what could not be read', async () => {
  await openFrames([], { unreadable: [{ name: 'B.JPG', why: 'it is cut off' }] });
  expect(screen.getByText('/studio/frames')).toBeTruthy();
  expect(screen.getByText(/Not read: B.JPG \(it is cut off\)/)).toBeTruthy();
  cleanup();
  await openFrames([], { folder: { path: '/gone', there: false } });
  expect(screen.getByText(/The watched folder is not there: \/gone/)).toBeTruthy();
});

test('frames stand with their pictures; keys keep, put aside, star, go on and take back', async () => {
  const { told, shots } = await openFrames([
    frame('A.JPG', { shot: demoJob(() => JOB_ID).shots[0]?.id ?? null, placedBy: 'time' }),
    frame('B.JPG'),
    frame('C.JPG', { shot: 'gone' }),
  ]);
  const none = screen.getByRole('region', { name: 'Of no picture yet' });
  expect(within(none).getAllByRole('button')).toHaveLength(2);
  expect(screen.getByRole('region', { name: shots[0]?.name ?? '' })).toBeTruthy();
  expect(chosen().textContent).toContain('B.JPG');
  key('k');
  await screen.findByRole('button', { name: 'B.JPG, kept' });
  expect(chosen().textContent).toContain('C.JPG');
  key('r');
  await screen.findByRole('button', { name: 'C.JPG, not kept' });
  expect(chosen().textContent).toContain('By its time.');
  key('s');
  await screen.findByRole('button', { name: 'A.JPG, starred' });
  key('u');
  await screen.findByRole('button', { name: 'A.JPG' });
  key('u');
  await screen.findByRole('button', { name: 'C.JPG' });
  expect(told).toEqual([
    { state: 'kept' },
    { state: 'rejected' },
    { starred: true },
    { starred: false },
    { state: 'new' },
  ]);
});

test('a list that was asked for before a change never brings the old back', async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  let release: (() => void) | null = null;
  const { hold } = await openFrames([frame('A.JPG')]);
  // The next list is read at the server now, and comes only after the change was taken.
  hold(
    () =>
      new Promise<void>((come) => {
        release = come;
      }),
  );
  await vi.advanceTimersByTimeAsync(2500);
  await soon(() => expect(release).not.toBeNull());
  hold(null);
  key('k');
  await screen.findByRole('button', { name: 'A.JPG, kept' });
  await vi.advanceTimersByTimeAsync(200);
  (release as unknown as () => void)();
  await vi.advanceTimersByTimeAsync(50);
  expect(screen.getByRole('button', { name: 'A.JPG, kept' })).toBeTruthy();
  await vi.advanceTimersByTimeAsync(5000);
  expect(screen.getByRole('button', { name: 'A.JPG, kept' })).toBeTruthy();
});

test('a frame is moved to a picture by hand; what the server refuses is told and shown as it was', async () => {
  const { told, shots } = await openFrames([frame('A.JPG')], {}, true);
  fireEvent.change(screen.getByLabelText('Of the picture'), { target: { value: shots[1]?.id } });
  await screen.findByText(/The disk is full/);
  expect(told).toEqual([{ shot: shots[1]?.id, plate: null }]);
  expect(screen.getByRole('region', { name: 'Of no picture yet' })).toBeTruthy();
  press(/Keep/);
  await soon(() => expect(told).toHaveLength(2));
});

test('a frame is said to be a plate by hand, taken back in one; against that plate its settings are held', async () => {
  const set = demoSet('cordial-frost');
  const [label] = set.plates;
  const slow = { ...set, plates: [{ ...label, shutterS: 1 / 15 }] } as SetDocument;
  const { fNumber, shutterS, iso } = set.camera;
  const exposure = { fNumber, exposureS: shutterS, iso };
  const shot = demoJob(() => JOB_ID).shots[0]?.id as string;
  const { told } = await openFrames([frame('A.JPG', { shot, ...exposure })], {}, false, slow);
  const choice = await screen.findByLabelText('It is');
  expect(screen.queryByText(/is exposed at/)).toBeNull();
  fireEvent.change(choice, { target: { value: 'label' } });
  await soon(() => expect(told).toEqual([{ plate: 'label' }]));
  expect((await screen.findByText(/is exposed at/)).textContent).toMatch(/“Label” is exposed at .*1\/15 s/);
  press(/Take back/);
  await soon(() => expect(told.at(-1)).toEqual({ plate: null }));
  expect(screen.queryByText(/is exposed at/)).toBeNull();
});
