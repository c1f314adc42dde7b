// @vitest-environment jsdom
import { act, fireEvent, screen } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import MovementDesk from '../src/features/bench/desk/MovementDesk';
import { benchActions, benchSet } from '../src/features/bench/state/benchSlice';
import { selectLit, selectReadings } from '../src/features/bench/state/hooks';
import { ThingPanel } from '../src/features/bench/views/thing/ThingPanel';
import { press, type } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name: label }), { target: { value } });

function openPanel(kind: 'backdrop' | 'bench' | 'room' | 'light' | 'sheet', key = '') {
  const bench = openDemo('cordial');
  bench.store.dispatch(benchActions.selected({ kind, key }));
  bench.show(<ThingPanel />);
  return bench;
}

describe('the figures of what the set stands on, before and in', () => {
  test('a background becomes another kind and material, and is taken off, each as one step of undo', async () => {
    const { set, store } = openPanel('backdrop');
    const before = set().backdrop;
    choose('kind', before?.kind === 'sweep' ? 'panel' : 'sweep');
    expect(set().backdrop?.kind).not.toBe(before?.kind);
    await screen.findByRole('option', { name: 'Black velvet' });
    choose('material', 'Black velvet');
    expect(set().backdrop?.material).not.toEqual(before?.material);
    const of = screen.getByRole<HTMLSelectElement>('combobox', { name: 'material' });
    expect(of.selectedOptions[0]?.textContent).toBe('Black velvet');
    press('Take off the set');
    expect(set().backdrop).toBeUndefined();
    for (let i = 0; i < 3; i++) act(() => void store.dispatch(benchSet.undo()));
    expect(set().backdrop).toEqual(before);
  });

  test('what cannot be is refused at the field, and nothing is changed', () => {
    const { set } = openPanel('backdrop');
    const before = set();
    type('width', '0');
    expect(screen.getByLabelText('width').getAttribute('aria-invalid')).toBe('true');
    expect(set()).toBe(before);
    fireEvent.keyDown(screen.getByLabelText('width'), { key: 'Escape' });
    type('width', '1m80');
    expect(set().backdrop?.widthM).toBeCloseTo(1.8, 9);
  });

  test('the table is changed and moved by its figures', () => {
    const { set } = openPanel('bench');
    type('front to back', '70 cm');
    type('top over the floor', '90 cm');
    type('middle to the right', '-5 cm');
    expect(set().bench).toMatchObject({
      depthM: expect.closeTo(0.7, 9),
      centreM: [-0.05, expect.any(Number)],
    });
    expect(set().mark.heightAboveFloorM).toBe(0.9);
  });

  test('walls are white, grey or dark, by name', () => {
    const { set } = openPanel('room');
    choose('walls', 'dark');
    expect(set().room?.walls).toEqual({ kind: 'matte', reflectance: 0.05 });
    type('mark to left wall', '9 m');
    expect(screen.getByText(/outside of the room/)).toBeTruthy();
    expect(set().room?.markFromLeftM).toBeLessThan(9);
  });
});

describe('what a light faces', () => {
  test('is chosen, typed as bearing and tilt, and as a point', () => {
    const { set } = openPanel('light', 'A');
    const aim = () => {
      const [light] = set().lights;
      if (!light || !('aimM' in light)) throw new Error('the light is aimed');
      return light;
    };
    choose('faces', 'lens');
    expect(aim().aimM).toEqual(set().camera.positionM);
    type('tilted', 'level');
    expect(aim().aimM[2]).toBeCloseTo(aim().positionM[2], 9);
    type('turned to', 'behind');
    expect(aim().aimM[0]).toBeCloseTo(aim().positionM[0], 9);
    expect(aim().aimM[1]).toBeGreaterThan(aim().positionM[1]);
    type('aims at height', '12 cm');
    expect(aim().aimM[2]).toBeCloseTo(0.12, 9);
    type('right of the mark', '20 cm');
    expect(aim().aimM[0]).toBeCloseTo(0.2, 9);
    const before = set();
    type('tilted', '95 down');
    expect(screen.getByText('It goes from -90° to 90°.')).toBeTruthy();
    expect(set()).toBe(before);
  });

  test('a card is put at the lens again after the camera has moved', () => {
    const { set, store } = openPanel('sheet', '2');
    const { camera } = set();
    act(
      () =>
        void store.dispatch(benchSet.edit((old) => ({ ...old, camera: { ...camera, aimM: [0.2, 0, 0.1] } }))),
    );
    press('Put it at the lens');
    const card = set().sheets.find(({ tag }) => tag === '2');
    expect(card?.aimM).toEqual([0.2, 0, 0.1]);
  });
});

test('what is typed on a desk stays while another one is open', () => {
  const { show } = openDemo('cordial');
  const first = show(<MovementDesk />);
  type('falls, from spout to where it is seen', '40 cm');
  expect(screen.getByText('2.80 m/s')).toBeTruthy();
  first.unmount();
  show(<MovementDesk />);
  expect(screen.getByText('2.80 m/s')).toBeTruthy();
});

test('a light alone: readings and picture are as if all others were off, the document is not touched', () => {
  const { store, set, stops } = openDemo('perry');
  const before = set();
  const all = stops(before.spots[0]?.name ?? '');
  const [first] = before.lights;
  if (!first || before.lights.length < 2) throw new Error('there are two lights');
  store.dispatch(benchActions.aloneToggled(first.tag));
  const lit = selectLit(store.getState());
  expect(lit?.lights.map(({ on }) => on)).toEqual(before.lights.map(({ tag }) => tag === first.tag));
  const alone = selectReadings(store.getState()).find(({ name }) => name === before.spots[0]?.name);
  expect(alone?.stopsFromMidTone).toBeLessThanOrEqual(all);
  expect(set()).toBe(before);
  store.dispatch(benchActions.aloneToggled(first.tag));
  expect(selectLit(store.getState())).toBe(before);
  store.dispatch(benchActions.aloneToggled('Q'));
  expect(selectLit(store.getState())).toBe(before);
});
