// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { CardsPanel } from '../src/features/bench/cards/CardsPanel';
import { OpenCards } from '../src/features/bench/cards/OpenCards';
import { RegionMarks } from '../src/features/bench/cards/RegionMarks';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';
import { PlanView } from '../src/features/bench/plan/PlanView';
import { benchActions } from '../src/features/bench/state/benchSlice';
import { changeLight, moveThing } from '../src/features/bench/state/edits';
import { edit } from '../src/features/bench/state/thunks';
import { press } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

const SLOW = { timeout: 60_000 };

/** The side of the bench on which a card is looked for, and the picture that is pointed into. */
function openCards(change?: Parameters<typeof openDemo>[1]) {
  const bench = openDemo('cordial', change);
  bench.show(
    <>
      <OpenCards />
      <CardsPanel />
      <PlanView kind="above" />
      <svg aria-hidden>
        <RegionMarks window={WHOLE_FRAME} width={300} height={200} />
      </svg>
    </>,
  );
  press('Place a card or flag (B)');
  const pointAt = (across: number, down: number) =>
    act(() => void bench.store.dispatch(benchActions.cardsPointed({ across, down })));
  const state = () => bench.store.getState().bench.cards;
  return { ...bench, pointAt, state };
}

const places = (kind: string) => Number(screen.getByTestId(`card-${kind}`).dataset.places);

describe('looking for a card', () => {
  test('a place is pointed out, what would do it is measured, shown in the plans, and put there in one step', async () => {
    const { pointAt, set, store } = openCards();
    expect((screen.getByRole('button', { name: 'Work it out' }) as HTMLButtonElement).disabled).toBe(true);
    pointAt(0.5, 0.6);
    await waitFor(() => expect(places('region')).toBeGreaterThan(10), SLOW);
    expect(screen.getByText(/^On Damson cordial bottle/)).toBeTruthy();
    press('Work it out');
    await waitFor(() => expect(screen.getByTestId('cards')).toBeTruthy(), SLOW);
    const before = set();
    fireEvent.click(screen.getAllByRole('button', { name: /^Show: / })[0] as HTMLElement);
    expect(set()).toBe(before);
    expect(within(screen.getByTestId('proposed-above')).queryByText('x')).toBeNull();
    expect(screen.getByTestId('proposed-above').childElementCount).toBe(1);
    fireEvent.click(screen.getAllByRole('button', { name: 'Put it there' })[0] as HTMLElement);
    expect(set().sheets.length).toBe(before.sheets.length + 1);
    expect(store.getState().bench.cards).toBeNull();
    expect(store.getState().bench.compare).toBeNull();
  });

  test('an answer of a set that has moved since is not offered any more', async () => {
    const { pointAt, store } = openCards();
    pointAt(0.5, 0.6);
    press('Work it out');
    await waitFor(() => expect(screen.getByTestId('cards')).toBeTruthy(), SLOW);
    act(() => void store.dispatch(edit(moveThing({ kind: 'light', key: 'A' }, [-0.9, -0.2, 0.5]))));
    expect(screen.queryByTestId('cards')).toBeNull();
    expect(screen.getByText(/The set has moved since/)).toBeTruthy();
  });

  test('what is painted adds up, and is cleared; what is left as it is is pointed out apart', async () => {
    const { pointAt, state } = openCards();
    fireEvent.change(screen.getByLabelText('Place'), { target: { value: 'brush' } });
    pointAt(0.45, 0.5);
    pointAt(0.5, 0.55);
    expect(state()?.region).toMatchObject({ by: 'brush', strokes: [{ across: 0.45 }, { across: 0.5 }] });
    expect(state()?.pointing).toBe('region');
    press('Point at what is left as it is');
    pointAt(0.1, 0.9);
    expect(state()?.spare).toMatchObject({ by: 'brush' });
    fireEvent.click(screen.getAllByRole('button', { name: 'Clear' })[0] as HTMLElement);
    expect(state()?.region).toBeNull();
    expect(state()?.spare).not.toBeNull();
  });

  test('with no light on there is nothing to keep off, and it says so', () => {
    const { store } = openCards();
    act(() => void store.dispatch(edit(changeLight('A', (light) => ({ ...light, on: false })))));
    expect(screen.getByText(/No light that is on stands anywhere/)).toBeTruthy();
  });

  test('each purpose asks only for what it needs', () => {
    openCards();
    const choose = (what: string) =>
      fireEvent.change(screen.getByLabelText('What for'), { target: { value: what } });
    choose('lift');
    expect(screen.getByLabelText('By stops')).toBeTruthy();
    expect(screen.queryByLabelText('Light')).toBeNull();
    choose('mirror');
    expect(screen.getByLabelText('Mirrors')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Point at what is left as it is' })).toBeNull();
    press('Close');
    expect(screen.queryByLabelText('What for')).toBeNull();
  });
});
