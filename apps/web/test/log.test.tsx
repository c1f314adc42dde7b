// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import type { Kit, LogEntry, LogList, LogStatistics } from '@fendrix/contract';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { SnackbarProvider } from 'notistack';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { LogOfJob, LogPage } from '../src/features/log/pages';
import { standInBrowser } from './openBench';
import { soon } from './soon';
import { standInServer } from './standInServer';

standInBrowser();
afterEach(() => vi.unstubAllGlobals());

const entry = (id: string, change: Partial<LogEntry> = {}): LogEntry => ({
  id,
  name: `${id}.JPG`,
  gone: false,
  job: 'job',
  jobName: 'Autumn shelf',
  client: 'Oddvane Larder',
  shot: id,
  shotName: `Picture ${id}`,
  plate: null,
  take: null,
  at: '2026-05-01T10:00:00Z',
  products: ['Damson cordial bottle'],
  lights: ['Softbox 60 x 90'],
  look: 'Soft',
  tone: 'neutral mood, background white',
  minutes: 42,
  plannedMinutes: 30,
  tries: 3,
  verdicts: ['burnt'],
  measured: null,
  note: '',
  retouchMinutes: null,
  set: 'set',
  setName: 'Cordial',
  exposureS: 1 / 125,
  fNumber: 8,
  iso: 100,
  focalMm: 100,
  body: null,
  ...change,
});
const STATISTICS: LogStatistics = {
  pictures: [
    {
      job: 'job',
      shot: 'a',
      name: 'Picture a',
      at: '2026-05-01T10:00:00Z',
      planned: 30,
      building: 25.2,
      shooting: 9.6,
      retouching: null,
    },
  ],
  judged: 2,
  verdicts: [{ kind: 'burnt', pictures: 2 }],
  prices: [{ step: 'light-added', usual: 5, learned: 7.26, error: 1.1, times: 4 }],
};
let statistics = STATISTICS;
afterEach(() => {
  statistics = STATISTICS;
});
const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

/** The log over a server that notes what it is asked and what it is sent. */
function open(list: LogList, address = '/log') {
  const asked: { what: string; query: URLSearchParams; body: unknown }[] = [];
  standInServer(async (request) => {
    const { pathname, searchParams } = new URL(request.url);
    const text = request.method === 'GET' ? '' : await request.text();
    asked.push({
      what: `${request.method} ${pathname}`,
      query: searchParams,
      body: text === '' ? null : JSON.parse(text),
    });
    if (pathname === '/api/log/statistics') return json(statistics);
    if (pathname === '/api/kit')
      return json({
        revision: 3,
        document: request.method === 'PUT' ? JSON.parse(text).document : defaultKit(),
      });
    if (pathname.endsWith('/set')) return json({ id: 'opened' }, 201);
    if (request.method === 'PATCH') return json(list.entries[0]);
    return json(list);
  });
  const { store } = createStore();
  render(
    <Provider store={store}>
      <SnackbarProvider>
        <MemoryRouter initialEntries={[address]}>
          <Routes>
            <Route path="/log" element={<LogPage />} />
            <Route path="/jobs/:jobId/log" element={<LogOfJob />} />
            <Route path="/sets/:id" element={<p>the bench</p>} />
          </Routes>
        </MemoryRouter>
      </SnackbarProvider>
    </Provider>,
  );
  return asked;
}
const LIST: LogList = { total: 2, entries: [entry('a'), entry('b', { verdicts: [], tries: 1 })] };
const panel = () => within(screen.getByRole('region', { name: 'This kept frame' }));

describe('the log on its page', () => {
  test('empty it says how frames come to it; searched in vain it says that', async () => {
    open({ total: 0, entries: [] });
    expect(await screen.findByText(/Nothing is kept yet/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText(/Find by product/), { target: { value: 'submarine' } });
    expect(await screen.findByText(/No kept frame has all of that/)).toBeTruthy();
  });

  test('words and days are asked of the server, always from the first page on', async () => {
    const asked = open(LIST);
    await screen.findByRole('button', { name: /Picture a/ });
    fireEvent.change(screen.getByLabelText(/Find by product/), { target: { value: 'brass rim' } });
    fireEvent.change(screen.getByLabelText('From day'), { target: { value: '2026-05-01' } });
    expect(screen.getByRole('link', { name: 'Export CSV' }).getAttribute('href')).toBe(
      '/api/log/table?search=brass+rim&from=2026-05-01',
    );
    await soon(() => {
      const last = asked.at(-1);
      expect(Object.fromEntries(last?.query ?? [])).toEqual({
        search: 'brass rim',
        from: '2026-05-01',
        limit: '24',
        offset: '0',
      });
    });
  });

  test('the chosen one is told whole; what was not told or not measured is said to be missing', async () => {
    open({ total: 2, entries: [entry('a'), entry('b', { minutes: null, verdicts: null, gone: true })] });
    expect(await screen.findByText('42 min, planned 30 min')).toBeTruthy();
    expect(panel().getByText(/f\/8 +1\/125 s +ISO 100 +100 mm/)).toBeTruthy();
    expect(panel().getByText('burnt out')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /Picture b/ }));
    expect(panel().getByText('not told, planned 30 min')).toBeTruthy();
    expect(panel().getByText('being worked out')).toBeTruthy();
    expect(panel().getByText(/not held against its plan yet/)).toBeTruthy();
    expect(panel().getByText(/b.JPG is not in the folder of the camera any more/)).toBeTruthy();
  });

  test('plan against measured is told by spot and by light', async () => {
    const measured = {
      exposedAsFrame: true,
      spots: [
        { name: 'label', plan: 1.1, frame: 0.7 },
        { name: 'sweep', plan: 1.8, frame: null },
      ],
      lights: [{ tag: 'A', name: 'Softbox', stops: -0.4, error: 0.1, isOff: true }],
    };
    open({ total: 1, entries: [entry('a', { measured })] });
    const row = async (name: string) =>
      (await screen.findByRole('rowheader', { name })).closest('tr')?.textContent;
    expect(await row('label')).toBe('label+1.1+0.7');
    expect(await row('sweep')).toBe('sweep+1.8clipped or black');
    expect(await row('A: Softbox')).toBe('A: Softboxas planned−0.4 off');
  });

  test('a note is kept when its field is left, minutes only where they are some', async () => {
    const asked = open(LIST);
    const note = await screen.findByLabelText('Note');
    fireEvent.change(note, { target: { value: 'Client liked the rim' } });
    fireEvent.blur(note);
    const minutes = screen.getByLabelText('Retouching, minutes');
    fireEvent.change(minutes, { target: { value: 'long' } });
    fireEvent.blur(minutes);
    expect(screen.getByText('Minutes as a number, such as 12.')).toBeTruthy();
    fireEvent.change(minutes, { target: { value: '12,5' } });
    fireEvent.blur(minutes);
    await soon(() =>
      expect(asked.filter(({ what }) => what === 'PATCH /api/log/a').map(({ body }) => body)).toEqual([
        { note: 'Client liked the rim' },
        { retouchMinutes: 12.5 },
      ]),
    );
  });

  test('a note is kept while one types too, the last of it and once', async () => {
    const asked = open(LIST);
    const note = await screen.findByLabelText('Note');
    for (const value of ['Ri', 'Rim', 'Rim hot']) fireEvent.change(note, { target: { value } });
    const sent = () => asked.filter(({ what }) => what === 'PATCH /api/log/a').map(({ body }) => body);
    await soon(() => expect(sent()).toEqual([{ note: 'Rim hot' }]), 3000);
    fireEvent.blur(note);
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(sent()).toHaveLength(1);
  });

  test('its set opens as it was', async () => {
    const asked = open(LIST);
    fireEvent.click(await screen.findByRole('button', { name: 'Open the set as it was' }));
    expect(await screen.findByText('the bench')).toBeTruthy();
    expect(asked.some(({ what }) => what === 'POST /api/log/a/set')).toBe(true);
  });

  test('within a job only its own are asked for', async () => {
    const asked = open(LIST, '/jobs/seven/log');
    await screen.findByRole('button', { name: /Picture a/ });
    expect(asked[0]?.query.get('job')).toBe('seven');
  });
});

describe('statistics of the log', () => {
  test.each([
    [0, 'Not worked out yet.'],
    [1, 'None was open. Judged so far: 1 of 1.'],
  ])('with %s pictures judged and nothing open it says so', async (judged, words) => {
    statistics = { ...STATISTICS, judged, verdicts: [] };
    open(LIST);
    fireEvent.click(await screen.findByRole('button', { name: 'Minutes and verdicts' }));
    expect(await screen.findByText(words)).toBeTruthy();
  });

  test('minutes, verdicts and learned steps are read as tables too', async () => {
    open(LIST);
    fireEvent.click(await screen.findByRole('button', { name: 'Minutes and verdicts' }));
    fireEvent.click(await screen.findByRole('button', { name: 'As a table' }));
    expect(screen.getByRole('row', { name: 'Picture a 30 25 10 not told' })).toBeTruthy();
    expect(screen.getByRole('rowheader', { name: 'burnt out' }).closest('tr')?.textContent).toBe(
      'burnt out2',
    );
    expect(screen.getByText('7.3 ± 1.1')).toBeTruthy();
  });

  test('learned minutes are given to the day when that is said, to half a minute', async () => {
    const asked = open(LIST);
    fireEvent.click(await screen.findByRole('button', { name: 'Minutes and verdicts' }));
    fireEvent.click(await screen.findByRole('button', { name: 'Use these for the day' }));
    await soon(() => {
      const saved = asked.find(({ what }) => what === 'PUT /api/kit')?.body as { document: Kit } | undefined;
      expect(saved?.document.changeMinutes).toEqual({ 'light-added': 7.5 });
    });
  });
});
