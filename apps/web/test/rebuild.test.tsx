// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import type { FrameList, SetDocument } from '@fendrix/contract';
import { type RebuildWish, type Rebuilt, rebuildWith } from '@fendrix/core';
import { demoJob, demoSet } from '@fendrix/demo';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { SnackbarProvider } from 'notistack';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { BuildView, RebuildView } from '../src/features/rebuild/pages';
import { press } from './hands';
import { standInBrowser } from './openBench';
import { standInServer } from './standInServer';

standInBrowser();
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const OLD = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';
const NEW = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b12';
const stored = (id: string, document: SetDocument) => ({
  id,
  name: document.name,
  revision: 1,
  updatedAt: '',
  document,
});
const jar = defaultKit().entries.find(({ name }) => name === 'Jar with lid');
if (jar?.what !== 'product') throw new Error('no jar');

/** Both places over a server that works rebuilding out as the real one does, when it is let. */
function open(address: string, { old = demoSet('mill'), frames = [] as FrameList['frames'] } = {}) {
  const sets = new Map([[OLD, old]]);
  const asked: RebuildWish[] = [];
  const made: SetDocument[] = [];
  const waiting: (() => void)[] = [];
  let holds = false;
  standInServer(async (request) => {
    const { pathname } = new URL(request.url);
    if (pathname === '/api/kit') return json({ revision: 0, document: defaultKit() });
    if (pathname === '/api/jobs') return json({ total: 1, jobs: [{ id: 'job', name: 'Autumn shelf' }] });
    if (pathname === '/api/jobs/job') {
      const document = demoJob(() => OLD);
      return json({ id: 'job', name: document.name, revision: 1, updatedAt: '', document });
    }
    if (pathname === '/api/frames') return json({ frames, total: frames.length });
    if (pathname.endsWith('/rebuild')) {
      const wish = (await request.json()) as RebuildWish;
      asked.push(wish);
      if (holds) await new Promise<void>((resolve) => waiting.push(resolve));
      return json(rebuildWith(old, wish) as Rebuilt);
    }
    if (pathname === '/api/sets' && request.method === 'POST') {
      const { document } = (await request.json()) as { document: SetDocument };
      made.push(document);
      sets.set(NEW, document);
      return json(stored(NEW, document), 201);
    }
    const own = sets.get(pathname.split('/')[3] ?? '');
    return own ? json(stored(pathname.split('/')[3] ?? '', own)) : json({ error: { message: 'gone' } }, 404);
  });
  let at = '';
  const Where = () => {
    const { pathname, search } = useLocation();
    at = pathname + search;
    return null;
  };
  const { store } = createStore();
  render(
    <Provider store={store}>
      <SnackbarProvider>
        <MemoryRouter initialEntries={[address]}>
          <Where />
          <Routes>
            <Route path="/sets/:id/rebuild" element={<RebuildView />} />
            <Route path="/sets/:id/build" element={<BuildView />} />
          </Routes>
        </MemoryRouter>
      </SnackbarProvider>
    </Provider>,
  );
  return {
    asked,
    made,
    at: () => at,
    hold: () => {
      holds = true;
    },
    letGo: () => {
      holds = false;
      for (const go of waiting.splice(0)) go();
    },
  };
}

const choose = async (label: string, words: string) => {
  const select = (await screen.findByLabelText(label)) as HTMLSelectElement;
  await waitFor(() => expect([...select.options].map(({ text }) => text)).toContain(words));
  const option = [...select.options].find(({ text }) => text === words);
  fireEvent.change(select, { target: { value: option?.value } });
};

describe('an old set with another product', () => {
  test('says what must change and what stays, then makes the set and goes on to build it', async () => {
    const { made, at } = open(`/sets/${OLD}/rebuild?frame=f1`);
    expect(await screen.findByText(/^Choose the new product/)).toBeTruthy();
    await choose('New product', 'Jar with lid');
    const change = await screen.findByRole('region', { name: 'What must change' });
    expect(within(change).getByText(/^The new product is 11.5 cm high/)).toBeTruthy();
    expect(within(change).getByText(/Jar with lid in the place of Brass nutmeg mill/)).toBeTruthy();
    const stays = screen.getByRole('region', { name: 'What stays' });
    expect(within(stays).getAllByText(/as it did\.$/)).toHaveLength(2);
    press('Make this set and build it');
    await waitFor(() => expect(at()).toBe(`/sets/${NEW}/build?from=${OLD}&frame=f1`));
    expect(made[0]?.name).toMatch(/Jar with lid$/);
    expect(made[0]?.products[0]?.name).toBe('Jar with lid');
  });

  test('products of a job can take the place; the middles are on one line by a riser', async () => {
    const { asked } = open(`/sets/${OLD}/rebuild`);
    await choose('Products of', 'Autumn shelf');
    const [first] = demoJob(() => OLD).products;
    await choose('New product', first?.name ?? '');
    await waitFor(() => expect(asked.at(-1)?.with.name).toBe(first?.body.name));
    await choose('Products of', 'the kit');
    await choose('New product', 'Jar with lid');
    await choose('On one line', 'the middles, by a riser');
    await screen.findByText(/^It stands on a riser of /);
    expect(asked.at(-1)?.align).toBe('centre');
  });

  test('what was worked out for another product is not shown for this one', async () => {
    const { hold, letGo } = open(`/sets/${OLD}/rebuild`);
    await choose('New product', 'Jar with lid');
    await screen.findByText(/^The new product is 11.5 cm high/);
    hold();
    await choose('New product', 'Polished cylinder');
    expect(await screen.findByLabelText('The set is being rebuilt')).toBeTruthy();
    expect(screen.queryByText(/11.5 cm high/)).toBeNull();
    letGo();
    expect(await screen.findByText(/^The new product is /)).toBeTruthy();
  });

  test('a set without products, and one that is gone, say so', async () => {
    open(`/sets/${OLD}/rebuild`, { old: { ...demoSet('mill'), products: [], highlights: [] } });
    expect(await screen.findByText(/^Nothing stands on this set/)).toBeTruthy();
    cleanup();
    open('/sets/none/rebuild');
    expect(await screen.findByText(/gone/)).toBeTruthy();
  });
});

describe('building it', () => {
  test('ticks are kept on this device; a step with other figures is open again', async () => {
    open(`/sets/${OLD}/build`);
    fireEvent.click(await screen.findByLabelText(/^Camera.*: done$/));
    expect(screen.getByText(/^1 of \d+ done$/)).toBeTruthy();
    cleanup();
    const set = demoSet('mill');
    open(`/sets/${OLD}/build`);
    expect(await screen.findByText(/^1 of \d+ done$/)).toBeTruthy();
    cleanup();
    open(`/sets/${OLD}/build`, {
      old: { ...set, camera: { ...set.camera, positionM: [0, -1.9, 0.2] } },
    });
    expect(await screen.findByText(/^0 of \d+ done$/)).toBeTruthy();
    fireEvent.click(screen.getByLabelText(/^Camera.*: done$/));
    fireEvent.click(screen.getByLabelText(/^Camera.*: done$/));
    expect(screen.getByText(/^0 of \d+ done$/)).toBeTruthy();
  });

  test('the old frame lies over the plan or the newest frame at half its strength', async () => {
    const frame = { id: 'f2', name: 'NEW.JPG' } as FrameList['frames'][number];
    open(`/sets/${OLD}/build?frame=f1`, { frames: [frame] });
    const over = await screen.findByAltText('The old frame');
    expect(over.getAttribute('src')).toBe('/api/frames/f1/large');
    expect(getComputedStyle(over).opacity).toBe('0.5');
    expect(screen.getByAltText('The new set as planned').getAttribute('src')).toContain(`/api/sets/${OLD}/`);
    expect(screen.getByText(/^The pictures are being traced/)).toBeTruthy();
    await choose('Over', 'the newest frame, NEW.JPG');
    expect(screen.getByAltText('The newest frame, NEW.JPG').getAttribute('src')).toBe('/api/frames/f2/large');
    fireEvent.load(over);
    fireEvent.load(screen.getByAltText('The newest frame, NEW.JPG'));
    expect(screen.queryByText(/^The pictures are being traced/)).toBeNull();
  });

  test('without an old picture it says where one comes from', async () => {
    open(`/sets/${OLD}/build`);
    expect(await screen.findByText('Rebuild with another product')).toBeTruthy();
  });
});
