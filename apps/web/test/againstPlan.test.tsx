// @vitest-environment jsdom
import type { Frame, FrameAgainstPlan, FrameMoves, OfPlan, UnderWay } from '@fendrix/contract';
import { cleanup, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { afterEach, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { AgainstPlan } from '../src/features/jobs/frames/AgainstPlan';
import { press } from './hands';
import { soon } from './soon';
import { standInServer } from './standInServer';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const frame = { id: 'frame', name: 'A.JPG', widthPx: 600, heightPx: 400 } as Frame;

/** What a plan of a revision says: its light is that many tenths of a stop off. */
const against = (setRevision: number): OfPlan<FrameAgainstPlan> => ({
  setRevision,
  exposedAsFrame: true,
  lights: [{ tag: 'A', name: 'Softbox', stops: setRevision / 10, error: 0.01, isOff: false }],
  shift: null,
  products: [],
  sharpness: { products: [], resolvedPx: 3, isTooSmall: false, limitPx: 5 },
  verdicts: [],
  spots: [],
});
const nothing: FrameMoves = { moved: [], isExplained: true, atLens: [], untold: [] };

/** Holds the frame against plans, and its moves against others, in turn; the last of each stays. */
function hold(plans: number[], moves: OfPlan<FrameMoves | UnderWay>[]) {
  const asked: string[] = [];
  standInServer(async (request) => {
    const what = new URL(request.url).pathname.split('/').at(-1) as string;
    asked.push(what);
    if (what === 'against-plan')
      return Response.json(against(plans.length > 1 ? (plans.shift() ?? 0) : (plans[0] ?? 0)));
    return Response.json(moves.length > 1 ? moves.shift() : moves[0]);
  });
  const { store } = createStore();
  render(
    <Provider store={store}>
      <AgainstPlan frame={frame} of="one" />
    </Provider>,
  );
  press('Hold it against the plan');
  return asked;
}

const nothingElsewhere = /^No card or light stands elsewhere/;

test('what stands elsewhere comes after the rest, of the same plan', async () => {
  const asked = hold(
    [1],
    [
      { part: 0.4, setRevision: 1 },
      { ...nothing, setRevision: 1 },
    ],
  );
  await soon(() =>
    expect(
      screen.getByRole('progressbar', { name: 'How much of it is done' }).getAttribute('aria-valuenow'),
    ).toBe('40'),
  );
  await soon(() =>
    expect(screen.getByRole('region', { name: 'What stands elsewhere' }).textContent).toMatch(
      nothingElsewhere,
    ),
  );
  expect(asked.filter((what) => what === 'against-plan')).toHaveLength(1);
  expect(screen.getByRole('img', { name: 'The plan' }).getAttribute('src')).toContain('of=1');
});

test('a set that is changed while things are looked for: all is held against the new plan, nothing of two plans is shown', async () => {
  const asked = hold(
    [1, 2],
    [
      { part: 0.4, setRevision: 1 },
      { part: 0.1, setRevision: 2 },
      { ...nothing, setRevision: 2 },
    ],
  );
  await soon(() => expect(screen.getByText(/\+0\.1 ±/)).toBeTruthy());
  await soon(() => expect(screen.getByText(/\+0\.2 ±/)).toBeTruthy());
  await soon(() =>
    expect(screen.getByRole('region', { name: 'What stands elsewhere' }).textContent).toMatch(
      nothingElsewhere,
    ),
  );
  expect(asked.filter((what) => what === 'against-plan')).toHaveLength(2);
  expect(screen.queryByText(/\+0\.1 ±/)).toBeNull();
  expect(screen.getByRole('img', { name: 'The plan' }).getAttribute('src')).toContain('of=2');
});
