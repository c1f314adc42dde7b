// @vitest-environment jsdom
import type { Product } from '@fendrix/contract';
import { thingsInFrame } from '@fendrix/core';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { PickSources } from '../src/features/bench/spot/PickSources';
import { benchActions, benchSet } from '../src/features/bench/state/benchSlice';
import { reflectorBehind, standReflectorBehind } from '../src/features/bench/state/placing';
import { useBenchKeys } from '../src/features/bench/state/useBenchKeys';
import { InFrameNote } from '../src/features/bench/views/thing/InFrameNote';
import { ThingPanel } from '../src/features/bench/views/thing/ThingPanel';
import { press } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

const side = () => screen.getByRole('region', { name: 'On the set' });

describe('what stands on the set, while nothing is selected', () => {
  test('everything is listed by tag and name, and pressed it is selected; back again by a press', () => {
    const { store, set, show } = openDemo('mill');
    show(<ThingPanel />);
    const rows = within(side()).getAllByRole('button');
    const { products, lights, sheets } = set();
    expect(rows).toHaveLength(products.length + lights.length + sheets.length + 3 + (set().room ? 1 : 0));
    fireEvent.click(within(side()).getByRole('button', { name: /gradient card left/ }));
    expect(store.getState().bench.selected).toEqual({ kind: 'sheet', key: '1' });
    press('‹ all on the set');
    expect(store.getState().bench.selected).toBeNull();
    expect(side()).toBeTruthy();
  });

  test('a light that is off is told; what comes into the picture as well, once workers have looked', async () => {
    const { set, show, tracing } = openDemo('mill', (whole) => ({
      ...whole,
      lights: whole.lights.map((light, i) => ({ ...light, on: i > 0 })),
    }));
    show(<ThingPanel />);
    const inFrame = thingsInFrame(tracing).filter(({ kind }) => kind === 'sheet');
    expect(inFrame.length).toBeGreaterThan(0);
    for (const { key } of inFrame) {
      const name = set().sheets.find((sheet) => sheet.tag === key)?.name ?? '';
      await waitFor(() =>
        expect(within(side()).getByRole('button', { name: new RegExp(name) }).textContent).toContain(
          'in the picture',
        ),
      );
    }
    expect(within(side()).getAllByRole('button', { name: /, off$/ })).toHaveLength(1);
  });

  test('the note at a sheet speaks of that sheet alone', async () => {
    const { show, tracing, set } = openDemo('mill');
    const seen = new Set(thingsInFrame(tracing).flatMap(({ kind, key }) => (kind === 'sheet' ? [key] : [])));
    for (const { tag } of set().sheets) {
      const { unmount } = show(<InFrameNote thing={{ kind: 'sheet', key: tag }} />);
      if (seen.has(tag)) await screen.findByText('It comes into the picture.');
      else {
        await act(async () => {
          await new Promise((resolve) => setTimeout(resolve, 60));
        });
        expect(screen.queryByText('It comes into the picture.')).toBeNull();
      }
      unmount();
    }
  });
});

describe('Escape', () => {
  function Keys() {
    useBenchKeys();
    return null;
  }

  test('leaves what was begun first, and what is selected after it', () => {
    const { store, show } = openDemo('cordial');
    show(<Keys />);
    const leave = () => act(() => void fireEvent.keyDown(document.body, { key: 'Escape', code: 'Escape' }));
    act(() => {
      store.dispatch(benchActions.selected({ kind: 'light', key: 'A' }));
      store.dispatch(benchActions.pinningChanged(true));
    });
    leave();
    expect(store.getState().bench.pinning).toBe(false);
    expect(store.getState().bench.selected).toEqual({ kind: 'light', key: 'A' });
    leave();
    expect(store.getState().bench.selected).toBeNull();
  });
});

describe('the piece that is pointed at', () => {
  test('is named, and made of another material, and only it; in one step of undo', async () => {
    const { store, set, show, pointAt } = openDemo('cordial');
    const before = set().products[0] as Extract<Product, { kind: 'turned' }>;
    show(<PickSources />);
    pointAt(0.5, 0.5);
    // The stand-in for a worker says 10 cm above the table, on the axis: the label in front there, or the glass.
    const pick = store.getState().bench.pick;
    act(
      () =>
        void store.dispatch(
          benchActions.picked({ pick: { ...pick, pointM: [0, -0.036, 0.07] } as never, at: [0.5, 0.5] }),
        ),
    );
    const label = before.labels.find(({ fromM, toM }) => fromM <= 0.07 && toM >= 0.07);
    const list = await screen.findByRole('combobox', { name: new RegExp(label?.name ?? 'none') });
    fireEvent.mouseDown(list);
    fireEvent.click(await screen.findByRole('option', { name: 'Kraft paper' }));
    const after = set().products[0] as typeof before;
    const changed = after.labels.filter((own, i) => own.material !== before.labels[i]?.material);
    expect(changed).toHaveLength(1);
    expect(changed[0]?.material).toMatchObject({ kind: 'matte', reflectance: [0.42, 0.29, 0.17] });
    expect({ ...after, labels: [] }).toEqual({ ...before, labels: [] });
    act(() => void store.dispatch(benchSet.undo()));
    expect(set().products[0]).toEqual(before);
  });
});

describe('a reflector behind a drink', () => {
  test('takes a free tag of the set as it is by then; behind what is opaque or gone there is none', () => {
    const { set } = openDemo('cordial');
    const [bottle] = set().products;
    const id = bottle?.id ?? '';
    const more = { ...set(), sheets: [...set().sheets, { ...set().sheets[0], tag: '3' }] } as ReturnType<
      typeof set
    >;
    expect(standReflectorBehind(id)(more).sheets.at(-1)).toMatchObject({ kind: 'cut-out', tag: '4' });
    expect(reflectorBehind({ ...set(), products: [] }, id)).toBeNull();
    const gone = { ...set(), products: [] };
    expect(standReflectorBehind(id)(gone)).toBe(gone);
  });
});
