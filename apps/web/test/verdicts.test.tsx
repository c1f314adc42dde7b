// @vitest-environment jsdom
import { seenBy, type TracedView, traceKey, traceView } from '@fendrix/core';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';
import { benchActions } from '../src/features/bench/state/benchSlice';
import { moveThing } from '../src/features/bench/state/edits';
import { edit } from '../src/features/bench/state/thunks';
import { VerdictCount } from '../src/features/bench/verdicts/VerdictCount';
import { VerdictPanel } from '../src/features/bench/verdicts/VerdictPanel';
import { VerdictPlaces } from '../src/features/bench/verdicts/VerdictPlaces';
import { VerdictsProvider } from '../src/features/bench/verdicts/verdictsContext';
import { ThingPanel } from '../src/features/bench/views/thing/ThingPanel';
import { press } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

/** The view of the set as it is in the demo, traced once. */
let seen: TracedView | null = null;

/** The side of the bench with the cordial judged: its label is burnt on the left. */
async function openJudged() {
  const bench = openDemo('cordial');
  const judge = (view: TracedView) =>
    act(() => bench.figures.set('view', { key: traceKey(bench.set()), view }));
  seen ??= traceView(bench.tracing, bench.set(), { samples: 3 });
  judge(seen);
  bench.show(
    <VerdictsProvider>
      <VerdictCount />
      <VerdictPanel />
      <svg aria-hidden>
        <VerdictPlaces window={WHOLE_FRAME} width={300} height={200} />
      </svg>
    </VerdictsProvider>,
  );
  await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('1 verdict'), SLOW);
  return { ...bench, judge };
}

/** Cures are tried in the page's own thread here: what follows waits for them. */
const SLOW = { timeout: 30_000 };

const burnt = () => screen.getByRole('button', { name: /burnt out/ });
const names = () => within(screen.getByTestId('verdicts')).queryAllByRole('button').length;

test('products in a row are put in order by one press each, and undone', () => {
  const { show, set } = openDemo('cordial', (start) => {
    const [bottle] = start.products;
    const at = (id: string, x: number, y: number) =>
      bottle && { ...bottle, id, positionM: [x, y, 0] as [number, number, number], turnDeg: 30 };
    return { ...start, products: [at('a', -0.3, 0), at('b', -0.1, 0.05), at('c', 0.3, 0)] as never };
  });
  show(<ThingPanel />);
  press('Space evenly');
  expect(set().products[1]?.positionM[0]).toBeCloseTo(0, 6);
  press('Line up');
  const front = set().products.map(({ positionM }) => positionM[1]);
  expect(new Set(front.map((y) => y.toFixed(4))).size).toBe(1);
  press('Turn labels to the lens');
  expect(set().products[1]?.turnDeg).toBeCloseTo(0, 0);
  expect(screen.queryByRole('button', { name: 'Space evenly' })).toBeNull();
});

describe('verdicts on the bench', () => {
  test('one that is pressed shows its place, its cause and the cures that were tried; one is taken in one step', async () => {
    const { set } = await openJudged();
    const before = set().lights[0]?.powerStops ?? 0;
    expect(screen.queryByTestId('verdict-places')).toBeNull();
    fireEvent.click(burnt());
    expect(screen.getByTestId('verdict-places')).toBeTruthy();
    await waitFor(() => expect(screen.getByTestId('cures')).toBeTruthy(), SLOW);
    const [cure] = within(screen.getByTestId('cures')).getAllByRole('button');
    if (!cure) throw new Error('a cure is offered');
    expect(cure.textContent).toContain('A −');
    fireEvent.click(cure);
    expect(set().lights[0]?.powerStops).toBeLessThan(before);
    await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('nothing wrong'), SLOW);
  });

  test('a cure is shown as before and after without being taken', async () => {
    const { store, set } = await openJudged();
    const before = set();
    fireEvent.click(burnt());
    await waitFor(() => expect(screen.getByTestId('cures')).toBeTruthy(), SLOW);
    fireEvent.click(screen.getAllByRole('button', { name: /^Show: A −/ })[0] as HTMLElement);
    expect(store.getState().bench.compare).toMatchObject({ mode: 'wipe', against: { kind: 'change' } });
    expect(set()).toBe(before);
  });

  test('what is wanted so is settled with a note, and can be opened again', async () => {
    const { set } = await openJudged();
    fireEvent.click(burnt());
    press('I want this');
    expect(set().settled).toMatchObject([{ as: 'wanted', note: '' }]);
    await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('nothing wrong'), SLOW);
    const note = screen.getByLabelText('note');
    fireEvent.focus(note);
    fireEvent.change(note, { target: { value: 'the client likes it' } });
    expect(set().settled[0]?.note).toBe('the client likes it');
    press('Open again');
    await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('1 verdict'), SLOW);
  });

  test('left for retouching it counts its minutes', async () => {
    const { set } = await openJudged();
    fireEvent.click(burnt());
    press('Leave for retouching, 15 min');
    expect(set().settled).toMatchObject([{ as: 'retouching', minutes: 15 }]);
    await waitFor(() => expect(screen.getByText(/Settled, 1: 15 min in retouching/)).toBeTruthy(), SLOW);
  });

  test('a wish is changed in two presses and judged at once, without a ray', async () => {
    const { set, ask } = await openJudged();
    const asked = ask.mock.calls.length;
    press('more');
    press('Background: as it comes');
    fireEvent.click(screen.getByRole('menuitem', { name: 'white' }));
    expect(set().wishes.ground).toBe('white');
    await waitFor(() => expect(screen.getByText('The background is not white')).toBeTruthy(), SLOW);
    expect(ask.mock.calls.length).toBe(asked);
  });

  test('a wish that is a figure is typed, counts at once, and is emptied again', async () => {
    const { set } = await openJudged();
    press('more');
    const field = screen.getByLabelText('Brightest') as HTMLInputElement;
    const type = (text: string) => {
      fireEvent.focus(field);
      fireEvent.change(field, { target: { value: text } });
      fireEvent.keyDown(field, { key: 'Enter' });
    };
    type('4');
    expect(set().wishes.brightestStops).toBe(4);
    await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('nothing wrong'), SLOW);
    type('');
    expect(set().wishes.brightestStops).toBeUndefined();
    await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('1 verdict'), SLOW);
  });

  test('of several products each may hold tones of its own; emptied it is as the others', () => {
    const { show, set } = openDemo('cordial', (start) => ({
      ...start,
      products: ['one', 'two'].map((id) => ({ ...start.products[0], id, name: `Bottle ${id}` })) as never,
    }));
    show(
      <VerdictsProvider>
        <VerdictPanel />
      </VerdictsProvider>,
    );
    press('more');
    const type = (text: string) => {
      const field = screen.getByLabelText('Darkest, Bottle two');
      fireEvent.focus(field);
      fireEvent.change(field, { target: { value: text } });
      fireEvent.keyDown(field, { key: 'Enter' });
    };
    type('-7');
    expect(set().wishes.held).toEqual([{ product: 'two', darkestStops: -7 }]);
    type('');
    expect(set().wishes.held).toEqual([]);
  });

  test('of a set that has moved on the verdicts of before stay until its own view is there', async () => {
    const { store, figures, set, judge, tracing } = await openJudged();
    const old = figures.get('view');
    act(() => void store.dispatch(edit(moveThing({ kind: 'light', key: 'A' }, [-0.9, 0, 0.4]))));
    act(() => old && figures.set('view', { ...old }));
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(names()).toBe(1);
    expect(figures.get('view')?.key).not.toBe(traceKey(set()));
    judge(traceView(tracing, set(), { samples: 3 }));
    await waitFor(() => expect(figures.get('view')?.key).toBe(traceKey(set())));
  });

  test('of a set that is just opened nothing is said before its light has been seen', async () => {
    const bench = openDemo('cordial');
    const key = traceKey(bench.set());
    const view = traceView(bench.tracing, bench.set(), { samples: 0 });
    act(() => bench.figures.set('maps', { key, view }));
    bench.show(
      <VerdictsProvider>
        <VerdictCount />
        <VerdictPanel />
      </VerdictsProvider>,
    );
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect(screen.queryByTestId('verdict-count')).toBeNull();
    expect(screen.getByText('The picture is being judged')).toBeTruthy();
  });

  test('after a move what is seen is judged at once, and what needs light stays until it has been traced', async () => {
    const { store, figures, set, tracing } = await openJudged();
    act(() => void store.dispatch(edit((now) => ({ ...now, camera: { ...now.camera, rollDeg: 2 } }))));
    const view = traceView(seenBy(tracing, set().camera), set(), { samples: 0 });
    act(() => figures.set('maps', { key: traceKey(set()), view }));
    await waitFor(() => expect(screen.getByText('The camera is held askew')).toBeTruthy(), SLOW);
    expect(burnt()).toBeTruthy();
  });

  test('a spot that was moved is not judged by what was read at its old place', async () => {
    const { store, figures, set } = await openJudged();
    const wanted = { from: -3, to: -2.8 };
    const spotsWith = (more: object) =>
      act(
        () =>
          void store.dispatch(
            edit((now) => ({
              ...now,
              spots: now.spots.map((spot) => (spot.name === 'label' ? { ...spot, ...more } : spot)),
            })),
          ),
      );
    spotsWith({ target: wanted });
    await waitFor(() => expect(screen.getByText('Spot “label” is off its tone')).toBeTruthy());
    act(() => figures.unsettle());
    const [x = 0, y = 0, z = 0] = set().spots.find(({ name }) => name === 'label')?.pointM ?? [];
    spotsWith({ pointM: [x, y, z + 0.03] });
    await waitFor(() => expect(screen.getByTestId('verdict-count').textContent).toBe('1 verdict'));
  });

  test('the list makes way for what is selected', async () => {
    const { store } = await openJudged();
    act(() => void store.dispatch(benchActions.selected({ kind: 'light', key: 'A' })));
    expect(screen.queryByTestId('verdicts')).toBeNull();
    fireEvent.click(screen.getByTestId('verdict-count'));
    expect(names()).toBe(1);
  });
});
