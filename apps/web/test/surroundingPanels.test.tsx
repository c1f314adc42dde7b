// @vitest-environment jsdom
import { act, fireEvent, screen } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import MovementDesk from '../src/features/bench/desk/MovementDesk';
import { benchActions, benchSet } from '../src/features/bench/state/benchSlice';
import type { ThingRef } from '../src/features/bench/state/edits';
import { readingsOf, selectLit } from '../src/features/bench/state/hooks';
import { BenchCautions } from '../src/features/bench/views/BenchCautions';
import { ThingPanel } from '../src/features/bench/views/thing/ThingPanel';
import { press, type } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name: label }), { target: { value } });

/** Opens a list of materials and takes one, as by hand. */
async function pick(label: string, name: string) {
  fireEvent.mouseDown(screen.getByRole('combobox', { name: label }));
  fireEvent.click(await screen.findByRole('option', { name }));
}

const chooseKind = (name: string) => fireEvent.click(screen.getByRole('radio', { name }));

function openPanel(kind: ThingRef['kind'], key = '') {
  const bench = openDemo('cordial');
  bench.store.dispatch(benchActions.selected({ kind, key }));
  bench.show(<ThingPanel />);
  return bench;
}

describe('the figures of what the set stands on, before and in', () => {
  test('a background becomes another kind and material, and is taken off, each as one step of undo', async () => {
    const { set, store } = openPanel('backdrop');
    const before = set().backdrop;
    chooseKind(before?.kind === 'sweep' ? 'flat, upright' : 'paper bent up behind');
    expect(set().backdrop?.kind).not.toBe(before?.kind);
    await pick('material', 'Black velvet');
    expect(set().backdrop?.material).not.toEqual(before?.material);
    expect(screen.getByRole('combobox', { name: 'material' }).textContent).toBe('Black velvet');
    press('Remove from the set');
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
    type('top above the floor', '90 cm');
    type('middle to the right', '-5 cm');
    expect(set().bench).toMatchObject({
      depthM: expect.closeTo(0.7, 9),
      centreM: [-0.05, expect.any(Number)],
    });
    expect(set().mark.heightAboveFloorM).toBe(0.9);
  });

  test('walls are white, grey or dark, by name', async () => {
    const { set } = openPanel('room');
    await pick('walls', 'dark');
    expect(set().room?.walls).toEqual({ kind: 'matte', reflectance: 0.05 });
    type('centre to left wall', '9 m');
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
    type('right of centre', '20 cm');
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
    choose('put it', 'lens');
    const card = set().sheets.find(({ tag }) => tag === '2');
    expect(card?.aimM).toEqual([0.2, 0, 0.1]);
  });

  test('it goes along an edge of the table, parallel to another, and once more on the other side', () => {
    const { set } = openPanel('sheet', '2');
    const card = (tag = '2') => {
      const sheet = set().sheets.find((one) => one.tag === tag);
      if (!sheet) throw new Error('the card is there');
      return sheet;
    };
    choose('put it', 'left');
    const [x] = card().positionM;
    expect(x).toBeLessThan(-0.3);
    choose('faces', 'sheet 1');
    const [words] = screen.getByRole<HTMLSelectElement>('combobox', { name: 'faces' }).selectedOptions;
    expect(words?.textContent).toMatch(/^parallel to 1 /);
    press('Put the same on the other side');
    expect(card('3').positionM).toEqual([-x, card().positionM[1], card().positionM[2]]);
    expect(screen.getByRole('heading', { level: 2 }).textContent).toBe(card('3').name);
  });
});

describe('boards in an L', () => {
  test('each board has its own material', async () => {
    const { set } = openPanel('backdrop');
    chooseKind('two boards in an L');
    await pick('lying board', 'Black acrylic');
    const { backdrop } = set();
    if (backdrop?.kind !== 'boards') throw new Error('it is two boards');
    expect(backdrop.lyingMaterial.kind).toBe('coated');
    expect(backdrop.material).not.toEqual(backdrop.lyingMaterial);
    expect(screen.queryByLabelText('radius of the bend')).toBeNull();
  });
});

describe('a product', () => {
  test('its body, cap, label and liquid are chosen by name; a label keeps its print, a liquid is light or deep', async () => {
    const { set } = openPanel('product', 'bottle');
    const bottle = () => {
      const [product] = set().products;
      if (product?.kind !== 'turned') throw new Error('a turned bottle');
      return product;
    };
    await pick('material', 'Amber glass');
    expect(bottle().material).toMatchObject({ kind: 'dielectric', absorptionPerCm: [0.6, 2.2, 9] });
    choose('colour of material', 'deep');
    expect(bottle().material).toMatchObject({ absorptionPerCm: [1.5, 5.5, 22.5] });
    expect(screen.getByRole('combobox', { name: 'material' }).textContent).toBe('Amber glass');
    await pick('cap', 'Polished brass');
    expect(bottle().parts.find(({ name }) => name === 'cap')?.material).toMatchObject({ metal: 'brass' });
    await pick('liquid', 'Water');
    expect(bottle().hollow?.liquid?.material.index).toBe(1.333);
    expect(screen.queryByLabelText('colour of liquid')).toBeNull();
  });

  test('its outline is scaled as a whole, by width and by height', () => {
    const { set } = openPanel('product', 'bottle');
    type('height over all', '40 cm');
    const [scaled] = set().products;
    if (scaled?.kind !== 'turned') throw new Error('a turned bottle');
    expect(scaled.profile.at(-1)?.heightM).toBeCloseTo(0.4, 9);
    type('width over all', '2 m');
    expect(screen.getByLabelText('width over all')).toBeTruthy();
  });

  test('stands on a plinth by one press, and down again by one step of undo', () => {
    const { set, store } = openPanel('product', 'bottle');
    const before = set().products;
    press('Stand it on a plinth');
    expect(set().products.map(({ id }) => id)).toEqual([...before.map(({ id }) => id), 'plinth']);
    expect(set().products[0]?.positionM[2]).toBeCloseTo((before[0]?.positionM[2] ?? 0) + 0.1, 9);
    act(() => void store.dispatch(benchSet.undo()));
    expect(set().products).toEqual(before);
  });
});

describe('what the set does not show', () => {
  test('how soft the shadow is, and when daylight is metered again', () => {
    const { set, store } = openPanel('light', 'A');
    expect(screen.getByText('soft edge of the shadow')).toBeTruthy();
    const window = {
      kind: 'window' as const,
      tag: 'W',
      name: 'Window',
      positionM: [-1.4, 0, 0.6],
      aimM: [0, 0, 0.3],
      rollDeg: 0,
      widthM: 1,
      heightM: 1,
      sky: 'even',
      driftStopsPerHour: 0,
      output: { kind: 'luminance', luminanceCdM2: 3000 },
      powerStops: 0,
      on: true,
      stand: false,
    } as never;
    act(() => {
      store.dispatch(benchSet.edit((old) => ({ ...old, lights: [...old.lights, window] })));
      store.dispatch(benchActions.selected({ kind: 'light', key: 'W' }));
    });
    expect(screen.queryByText('meter again after')).toBeNull();
    type('daylight changes by', '-0.5');
    expect(set().lights.at(-1)).toMatchObject({ driftStopsPerHour: -0.5 });
    expect(screen.getByText('40 min')).toBeTruthy();
  });

  test('a camera that is released by hand is said to shake while the shutter is slow', () => {
    const { set, store } = openPanel('camera');
    act(
      () =>
        void store.dispatch(benchSet.edit((old) => ({ ...old, camera: { ...old.camera, shutterS: 0.5 } }))),
    );
    expect(screen.getByText(/the finger on the button shakes it/)).toBeTruthy();
    choose('released', 'self-timer');
    expect(set().camera.release).toBe('self-timer');
    expect(screen.queryByText(/the finger on the button shakes it/)).toBeNull();
  });

  test('what else calls for care is named by one press, and its caution shown', () => {
    const { store, set, show } = openDemo('cordial');
    show(<BenchCautions />);
    press('dry ice');
    expect(set().hazards).toEqual(['dry-ice']);
    expect(screen.getByText(/thick gloves and tongs/)).toBeTruthy();
    press('dry ice');
    expect(set().hazards).toEqual([]);
    act(() => void store.dispatch(benchSet.undo()));
    expect(set().hazards).toEqual(['dry-ice']);
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
  const { store, figures, set, stops } = openDemo('perry');
  const before = set();
  const all = stops(before.spots[0]?.name ?? '');
  const [first] = before.lights;
  if (!first || before.lights.length < 2) throw new Error('there are two lights');
  store.dispatch(benchActions.aloneToggled(first.tag));
  const lit = selectLit(store.getState());
  expect(lit?.lights.map(({ on }) => on)).toEqual(before.lights.map(({ tag }) => tag === first.tag));
  const alone = readingsOf(selectLit(store.getState()), figures.get('spots')?.traces ?? []).find(
    ({ name }) => name === before.spots[0]?.name,
  );
  expect(alone?.stopsFromMidTone).toBeLessThanOrEqual(all);
  expect(set()).toBe(before);
  store.dispatch(benchActions.aloneToggled(first.tag));
  expect(selectLit(store.getState())).toBe(before);
  store.dispatch(benchActions.aloneToggled('Q'));
  expect(selectLit(store.getState())).toBe(before);
});
