// @vitest-environment jsdom
import { demoSet } from '@fendrix/demo';
import { setSheetWords, sheetMarks } from '@fendrix/words';
import { render, screen, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { SetSheetView } from '../src/features/setSheet/pages';
import { standInBrowser } from './openBench';
import { standInServer } from './standInServer';

standInBrowser();
afterEach(() => vi.unstubAllGlobals());

const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

function open() {
  const { store } = createStore();
  render(
    <Provider store={store}>
      <MemoryRouter initialEntries={['/sets/one/sheet']}>
        <Routes>
          <Route path="/sets/:id/sheet" element={<SetSheetView />} />
        </Routes>
      </MemoryRouter>
    </Provider>,
  );
}

describe('the set sheet on its page', () => {
  const set = demoSet('cordial');
  const words = setSheetWords(set, {
    spots: [],
    tolerances: [
      {
        thing: { kind: 'light', key: 'A' },
        way: 'out',
        most: 0.0321,
        isBound: false,
        limit: { kind: 'spot', name: 'label' },
      },
    ],
    marks: sheetMarks(set),
  });

  test('while it is worked out that is said, and nothing can be printed', () => {
    standInServer(() => new Promise<Response>(() => undefined));
    open();
    expect(screen.getByRole('progressbar', { name: 'The set sheet is being worked out' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Print' })).toBeNull();
    expect(screen.getByRole('link', { name: 'Back to the bench' }).getAttribute('href')).toBe('/sets/one');
  });

  test('then things, what has to be held closest, drawings and both papers are there', async () => {
    standInServer(() => json(words));
    open();
    expect(await screen.findByRole('heading', { name: set.name })).toBeTruthy();
    const row = screen.getByRole('rowheader', { name: /^A: / }).closest('tr') as HTMLElement;
    expect(within(row).getByText('distance 3.2 cm')).toBeTruthy();
    expect(screen.getByText(/then “label” has changed by a tenth of a stop/)).toBeTruthy();
    expect(screen.getByRole('img', { name: 'The set from above' }).getAttribute('src')).toBe(
      '/api/sets/one/sheet/above',
    );
    for (const paper of ['A4', 'Letter'])
      expect(screen.getByRole('link', { name: `PDF, ${paper}` }).getAttribute('href')).toContain(
        `paper=${paper}`,
      );
    expect(screen.getByText(/No spot is pinned/)).toBeTruthy();
  });

  test('a set that is gone is told in the words of the server', async () => {
    standInServer(() =>
      json(
        {
          error: {
            code: 'not-found',
            message: 'There is no set with this address.',
            hint: 'It may have been deleted.',
          },
        },
        404,
      ),
    );
    open();
    expect(
      await screen.findByText(/There is no set with this address. It may have been deleted./),
    ).toBeTruthy();
  });
});
