// @vitest-environment jsdom
import type { Frame, FrameFigures, StoredJob } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { laidOver } from '../src/features/jobs/match/RegisteredFrame';
import { SeriesMatch } from '../src/features/jobs/match/SeriesMatch';
import { openJob } from '../src/features/jobs/state/openJob';
import { standInServer } from './standInServer';

const JOB = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';
const OLD_JOB = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b12';
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const frame = (id: string, more: Partial<Frame> = {}): Frame =>
  ({
    id,
    name: `${id}.JPG`,
    widthPx: 600,
    heightPx: 400,
    job: JOB,
    shot: 'mill',
    plate: null,
    state: 'kept',
    gone: false,
    ...more,
  }) as Frame;
const FIGURES: FrameFigures = {
  product: 'Mill',
  heightM: 0.2,
  outline: { left: 0.4, top: 0.2, right: 0.6, bottom: 0.8 },
  leanDeg: 0,
  groundStops: 1,
  labelStops: null,
  groundRgb: [1, 1, 1],
  shadow: null,
  highlights: [],
  frameWidthM: 0.5,
  frameHeightM: 0.33,
  depthM: 1.2,
  whiteBalanceK: 5500,
};

function open(frames: Record<string, Frame[]>, figures: Record<string, FrameFigures | 'fails'>) {
  const asked: string[] = [];
  standInServer(async (request) => {
    const { pathname, searchParams } = new URL(request.url);
    asked.push(pathname);
    if (pathname === '/api/frames') {
      const own = frames[searchParams.get('job') ?? ''] ?? [];
      return Response.json({ frames: own, total: own.length, reading: 0, unreadable: [], job: null });
    }
    if (pathname === '/api/jobs')
      return Response.json({
        total: 2,
        jobs: [
          { id: JOB, name: 'Autumn' },
          { id: OLD_JOB, name: 'Spring' },
        ],
      });
    const found = figures[pathname.split('/')[3] ?? ''];
    if (found === 'fails')
      return Response.json(
        { error: { code: 'bad-input', message: 'The set of this frame shows no product.' } },
        { status: 400 },
      );
    return found ? Response.json(found) : new Promise<Response>(() => undefined);
  });
  const { store } = createStore();
  const document = demoJob(() => JOB);
  const stored: StoredJob = { id: JOB, name: document.name, revision: 1, updatedAt: '', document };
  store.dispatch(openJob.open(stored, null));
  render(
    <Provider store={store}>
      <MemoryRouter initialEntries={[`/jobs/${JOB}/match`]}>
        <Routes>
          <Route path="/jobs/:jobId/match" element={<SeriesMatch />} />
        </Routes>
      </MemoryRouter>
    </Provider>,
  );
  return { asked };
}

describe('a series held together', () => {
  test('says what to do where nothing is kept yet', async () => {
    open({ [JOB]: [frame('a', { state: 'new' })] }, {});
    expect(await screen.findByText(/^No frame of this job is kept yet/)).toBeTruthy();
  });

  test('the first kept frame is what they are to be like; what is off says what to change', async () => {
    // The newest comes first from the server; plates and what is not kept are no pictures of the series.
    open(
      {
        [JOB]: [
          frame('c'),
          frame('p', { plate: 'label' }),
          frame('n', { state: 'rejected' }),
          frame('b'),
          frame('a'),
        ],
      },
      {
        a: FIGURES,
        b: { ...FIGURES, groundStops: 0.5, outline: { left: 0.43, top: 0.2, right: 0.63, bottom: 0.8 } },
        c: FIGURES,
      },
    );
    const table = await screen.findByTestId('redo these');
    expect(within(table).getAllByRole('row')).toHaveLength(2);
    expect(within(table).getByText('all lights +0.5 stops')).toBeTruthy();
    expect(within(table).getByText('push the product 1.5 cm to camera left')).toBeTruthy();
    expect(screen.getByText('They are to be like this one.')).toBeTruthy();
    const off = screen.getByTestId('figures b.JPG');
    expect(within(off).getByText('3.0 % right · off')).toBeTruthy();
    expect(within(off).getAllByText('not told').length).toBeGreaterThan(1);
    expect(within(screen.getByTestId('figures c.JPG')).queryByText(/off$/)).toBeNull();
  });

  test('while one is measured the others are told, and what cannot be measured says why', async () => {
    open({ [JOB]: [frame('d'), frame('c'), frame('b'), frame('a')] }, { a: FIGURES, b: FIGURES, c: 'fails' });
    expect(await screen.findByTestId('figures b.JPG')).toBeTruthy();
    expect(screen.getByLabelText('d.JPG is being measured')).toBeTruthy();
    expect(await screen.findByText(/shows no product/)).toBeTruthy();
    expect(screen.getByRole('heading', { name: 'Redo these: 1 of 3 measured' })).toBeTruthy();
  });

  test('an earlier job can be what they are to be like', async () => {
    const { asked } = open(
      { [JOB]: [frame('b'), frame('a')], [OLD_JOB]: [frame('old', { job: OLD_JOB, shot: null })] },
      { a: FIGURES, b: FIGURES, old: { ...FIGURES, leanDeg: 2 } },
    );
    await screen.findByText('None: all are alike in what was measured.');
    fireEvent.change(screen.getByLabelText('To be like a frame of'), { target: { value: OLD_JOB } });
    const table = await screen.findByTestId('redo these');
    // Both frames of this job are now held against the old one.
    expect(within(table).getAllByText(/^lean the product 2.0° to camera right/)).toHaveLength(2);
    expect(asked).toContain('/api/frames/old/figures');
  });

  test('frames are laid so that foot, middle and height agree', async () => {
    const own = { left: 0.5, top: 0.4, right: 0.6, bottom: 0.9 };
    const there = { left: 0.4, top: 0.2, right: 0.6, bottom: 0.8 };
    const [right, down, scale] = (/\((.*)%, (.*)%\) scale\((.*)\)/.exec(laidOver(own, there)) ?? [])
      .slice(1)
      .map(Number) as [number, number, number];
    expect(scale * own.top + down / 100).toBeCloseTo(there.top, 9);
    expect(scale * own.bottom + down / 100).toBeCloseTo(there.bottom, 9);
    expect(scale * 0.55 + right / 100).toBeCloseTo(0.5, 9);
    open({ [JOB]: [frame('b'), frame('a')] }, { a: FIGURES, b: { ...FIGURES, outline: own } });
    await screen.findByTestId('figures b.JPG');
    expect(screen.getByAltText('b.JPG').style.transform).toBe('');
    fireEvent.click(screen.getByLabelText('laid so that foot and height agree'));
    expect(screen.getByAltText('b.JPG, laid over the one it is to be like').style.transform).toContain(
      'scale(1.2',
    );
  });
});
