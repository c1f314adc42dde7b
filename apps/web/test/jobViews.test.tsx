// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import type { Job, StoredJob } from '@fendrix/contract';
import { boomLoad, planSeries, productBounds, sharpestStop, stageSet } from '@fendrix/core';
import { demoJob, demoSet } from '@fendrix/demo';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { openJob } from '../src/features/jobs';
import { BriefView } from '../src/features/jobs/brief/BriefView';
import { FormatDrawings } from '../src/features/jobs/brief/FormatDrawings';
import { DayView } from '../src/features/jobs/day/DayView';
import { ProductsView } from '../src/features/jobs/products/ProductsView';
import { SeriesView } from '../src/features/jobs/series/SeriesView';
import { seriesPictures } from '../src/features/jobs/series/seriesPictures';
import { SetSideView } from '../src/features/jobs/setSide/SetSideView';
import { DepthDesk } from '../src/features/jobs/shots/DepthDesk';
import { Overhead } from '../src/features/jobs/shots/Overhead';
import { PlaceChecks } from '../src/features/jobs/shots/PlaceChecks';
import { kitApi, type NamedEquipment } from '../src/features/kit';
import { press, type } from './hands';
import { standInServer } from './standInServer';

const SET_ID = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';
const kit = defaultKit();

/** A store with the demo job open and a kit that is answered at once. */
function openDemo(changes: Partial<Job> = {}) {
  const { store } = createStore();
  void store.dispatch(kitApi.util.upsertQueryData('readKit', undefined, { revision: 0, document: kit }));
  const document = { ...demoJob(() => SET_ID), ...changes };
  const stored: StoredJob = { id: SET_ID, name: document.name, revision: 1, updatedAt: '', document };
  store.dispatch(openJob.open(stored, null));
  const job = (): Job => {
    const open = openJob.documentOf(store.getState());
    if (!open) throw new Error('a job is open');
    return open;
  };
  const show = (view: ReactNode) =>
    render(
      <Provider store={store}>
        <MemoryRouter>{view}</MemoryRouter>
      </Provider>,
    );
  return { store, job, show };
}

beforeEach(() => {
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  vi.stubGlobal('fetch', () => new Promise(() => {}));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the brief', () => {
  test('answers go into the job, and the questions they answer go', () => {
    const { job, show } = openDemo({ client: '' });
    show(<BriefView />);
    expect(screen.getByText('Who is the client?')).toBeTruthy();
    type('client', 'Oddvane Larder');
    expect(job().client).toBe('Oddvane Larder');
    expect(screen.queryByText('Who is the client?')).toBeNull();
    type('pictures agreed', '6');
    expect(job().brief.pictures).toBe(6);
    expect(screen.getByText(/6 pictures are agreed and 4 are listed/)).toBeTruthy();
  });

  test('the day goes by Enter, and goes away when it is emptied', () => {
    const { job, show } = openDemo();
    show(<BriefView />);
    type('due on', '2027-03-04');
    expect(job().dueOn).toBe('2027-03-04');
    type('due on', '');
    expect('dueOn' in job()).toBe(false);
  });

  test('a format more is the next usual one; undo takes it back', () => {
    const { store, job, show } = openDemo();
    show(<BriefView />);
    press('Add a format');
    expect(job().brief.deliverables.at(-1)).toMatchObject({
      id: 'square-post',
      widthPx: 1080,
      heightPx: 1080,
    });
    store.dispatch(openJob.undo());
    expect(job().brief.deliverables).toHaveLength(3);
  });
});

describe('formats as they are cut', () => {
  test('each is drawn with its margin and its place for words, by name and ratio', () => {
    const formats = demoJob(() => SET_ID).brief.deliverables;
    const { container } = render(<FormatDrawings formats={formats} />);
    const drawn = [...container.querySelectorAll('li')];
    expect(drawn.map((item) => item.textContent)).toEqual([
      'Shop page1 : 1',
      'Upright story9 : 16',
      'Wide banner19 : 8',
    ]);
    const rects = (at: number) => [...(drawn[at]?.querySelectorAll('svg > rect') ?? [])];
    // Without words two: the frame and what the margin leaves; with words the place that they take first.
    expect(rects(0)).toHaveLength(2);
    expect(rects(1)).toHaveLength(3);
    const number = (rect: Element | undefined, name: string) => Number(rect?.getAttribute(name));
    const [words, frame, free] = rects(1);
    expect(number(words, 'height') / number(frame, 'height')).toBeCloseTo(0.3, 6);
    expect(number(free, 'y')).toBeCloseTo(0.3 * number(frame, 'height'), 6);
    expect(number(frame, 'width') / number(frame, 'height')).toBeCloseTo(1080 / 1920, 6);
  });

  test('without any there is nothing', () => {
    expect(render(<FormatDrawings formats={[]} />).container.childElementCount).toBe(0);
  });
});

describe('the series as pictures', () => {
  test('each product stands on its riser before the one camera, in the middle', () => {
    const job = demoJob(() => SET_ID);
    const items = job.products.map(({ id, body }) => ({
      id,
      bounds: productBounds({ ...body, positionM: [0, 0, 0] }),
    }));
    const framing = job.shots.find((shot) => shot.framing)?.framing;
    if (!framing) throw new Error('the demo job has a camera');
    const { body, lens } = framing;
    const series = planSeries(items, {
      body,
      lens,
      fillPart: 0.6,
      fNumber: 11,
      tiltDeg: 0,
      align: 'centre',
      formats: [],
    });
    const pictures = seriesPictures(job, series);
    expect(pictures.map(({ id }) => id)).toEqual(series.places.map(({ id }) => id));
    for (const [at, { set }] of pictures.entries()) {
      const liftM = series.places[at]?.liftM ?? 0;
      const [own, riser] = set.products;
      expect(own?.positionM[2]).toBeCloseTo(liftM, 9);
      if (liftM > 0) expect(riser).toMatchObject({ kind: 'box', heightM: liftM });
      else expect(riser).toBeUndefined();
      expect(set.camera.positionM).toEqual(series.placed.camera.positionM);
    }
    expect(series.places.some(({ liftM }) => liftM > 0)).toBe(true);
  });
});

describe('products', () => {
  test('arrow keys move a point of the outline by 1 mm, with Shift by 1 cm', () => {
    const { job, show } = openDemo();
    show(<ProductsView />);
    const radius = () => {
      const [{ body } = { body: null }] = job().products;
      return body?.kind === 'turned' ? body.profile[3]?.radiusM : undefined;
    };
    const before = radius() ?? 0;
    const point = screen.getByRole('button', { name: /^Point 4: / });
    fireEvent.keyDown(point, { key: 'ArrowRight' });
    expect(radius()).toBeCloseTo(before + 0.001, 9);
    fireEvent.keyDown(screen.getByRole('button', { name: /^Point 4: / }), {
      key: 'ArrowLeft',
      shiftKey: true,
    });
    expect(radius()).toBeCloseTo(before - 0.009, 9);
  });

  test('proposed steps are added once, ticked, changed and taken off', () => {
    const { job, show } = openDemo();
    show(<ProductsView />);
    const count = () => job().products[0]?.steps.length ?? 0;
    press('Propose steps');
    const proposed = count();
    expect(proposed).toBeGreaterThan(4);
    press('Propose steps');
    expect(count()).toBe(proposed);
    fireEvent.click(screen.getByLabelText('Done: Turn the label square to the lens'));
    expect(job().products[0]?.steps.find(({ text }) => text.includes('label square'))?.done).toBe(true);
    press('Remove step: Put on cotton gloves');
    expect(count()).toBe(proposed - 1);
  });

  test('products taken out leave the pictures that show them; a picture of nothing else goes too', () => {
    const { job, show } = openDemo();
    show(<ProductsView />);
    press(/^Remove Damson cordial/);
    expect(job().products.map(({ id }) => id)).not.toContain('bottle');
    expect(job().shots.map(({ id }) => id)).not.toContain('cordial');
    expect(job().shots).toHaveLength(3);
  });

  test('cautions stand with the products they belong to', () => {
    const { show } = openDemo();
    show(<ProductsView />);
    expect(screen.getByText(/Glass breaks/)).toBeTruthy();
    fireEvent.click(screen.getByText('Beet and walnut tart'));
    expect(screen.getByText(/Knives lie flat/)).toBeTruthy();
    expect(screen.queryByText(/Glass breaks/)).toBeNull();
  });

  test('without any, the page says what to do', () => {
    const { show } = openDemo({ products: [], shots: [] });
    show(<ProductsView />);
    expect(screen.getByText(/Add what is to be photographed/)).toBeTruthy();
  });
});

describe('lens and place', () => {
  const { studio } = kit;
  const staged = (id: string) => {
    const job = demoJob(() => SET_ID);
    const shot = job.shots.find((candidate) => candidate.id === id);
    if (!shot?.framing) throw new Error(`the demo job has a picture ${id}`);
    return stageSet(job, shot, shot.framing, studio);
  };

  test('the depth desk names the sharpest stop of the core, and takes it', () => {
    const { show } = openDemo();
    const { placed, set } = staged('mill');
    const onStop = vi.fn();
    const stops = [2.8, 4, 5.6, 8, 11, 16, 22];
    show(<DepthDesk staged={{ placed, set }} fits={[]} onStop={onStop} />);
    press(/^Take f\/\d/);
    const [taken] = onStop.mock.lastCall as [number];
    const { best } = sharpestStop(placed.camera, placed.nearM, placed.farM, [...stops, taken]);
    expect(best.fNumber).toBe(taken);
    const spots = screen.getByRole('table', { name: 'Blur at spots' });
    expect(within(spots).getAllByRole('row').length).toBeGreaterThan(3);
  });

  test('the curves are there as a table too', () => {
    const { show } = openDemo();
    const onStop = vi.fn();
    show(<DepthDesk staged={staged('mill')} fits={[]} onStop={onStop} />);
    const [first] = screen.getAllByRole('button', { name: 'As a table' });
    fireEvent.click(first as HTMLElement);
    expect(screen.getByRole('cell', { name: 'f/11' })).toBeTruthy();
    press('Take f/11');
    expect(onStop).toHaveBeenLastCalledWith(11.31);
    press('As curves');
    expect(screen.queryByRole('cell', { name: 'f/11' })).toBeNull();
  });

  test('overhead: the factor shown is that of the moments, and too much load is told', () => {
    const { show } = openDemo();
    const { set } = staged('tart');
    const stand = {
      kind: 'support',
      id: 'boom',
      name: 'Boom',
      lowestM: 0.5,
      highestM: 2.5,
      mostLoadKg: 5,
      ownKg: 6,
      baseRadiusM: 0.4,
      boomM: 1.2,
    } as NamedEquipment<'support'>;
    show(<Overhead supports={[stand]} camera={set.camera} benchHeightM={0.75} />);
    const expected = boomLoad(
      { loadKg: 1.8, armKg: 1.2, armM: 1.2, behindM: 0.5, baseRadiusM: 0.4, standKg: 11 },
      2,
    ).factor;
    expect(screen.getByText(expected.toFixed(1))).toBeTruthy();
    type('camera and lens', '4 kg');
    expect(screen.getByText(/the stand is made for 5 kg/)).toBeTruthy();
  });

  test('what is not met comes first, with a lens of the kit that meets it', () => {
    const { show } = openDemo();
    const lenses = kit.entries.flatMap((entry) =>
      entry.what === 'equipment' && entry.thing.kind === 'lens'
        ? [{ ...entry.thing, id: entry.id, name: entry.name }]
        : [],
    );
    const { framing } = demoJob(() => SET_ID).shots[0] as Job['shots'][number];
    if (!framing) throw new Error('the first picture is framed');
    const onTakeLens = vi.fn();
    show(
      <PlaceChecks
        checks={[
          { what: 'ceiling', met: true, value: 1, limit: 2.4 },
          { what: 'room-behind', met: false, value: -0.3, limit: 0.75, focalLengthM: 0.052 },
        ]}
        lenses={lenses}
        framing={framing}
        onTakeLens={onTakeLens}
      />,
    );
    expect(screen.getAllByRole('listitem')[0]?.textContent).toMatch(/Room behind the camera/);
    press(/^Take /);
    expect(onTakeLens.mock.lastCall?.[0].focalLengthM).toBeCloseTo(0.052, 6);
  });
});

describe('a series', () => {
  test('lists the largest first and follows what is chosen', async () => {
    const { store, job, show } = openDemo();
    show(<SeriesView />);
    await screen.findByRole('table', { name: 'Series' });
    const rows = () => within(screen.getByRole('table', { name: 'Series' })).getAllByRole('row');
    expect(rows()).toHaveLength(5);
    expect(rows()[1]?.textContent).toMatch(/^Damson cordial/);
    press('Damson cordial');
    expect(rows()).toHaveLength(4);
    expect(rows()[1]?.textContent).not.toMatch(/^Damson cordial/);
    expect(job().series?.products).toEqual(['mill', 'tart', 'mould']);
    act(() => void store.dispatch(openJob.undo()));
    expect(rows()).toHaveLength(5);
  });

  test('without products it says what to do first', () => {
    const { show } = openDemo({ products: [], shots: [] });
    show(<SeriesView />);
    expect(screen.getByText(/Add products first/)).toBeTruthy();
  });
});

describe('the day', () => {
  const setOf = {
    cordial: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11',
    mill: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b12',
    tart: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b13',
  } as const;

  /** The day of a job of three pictures, their sets on the server. */
  async function openDay(more: (shot: Job['shots'][number]) => object = () => ({}), view = <DayView />) {
    standInServer((request) => {
      const id = request.url.split('/').at(-1);
      const name = (Object.keys(setOf) as (keyof typeof setOf)[]).find((own) => setOf[own] === id);
      const document = name && demoSet(name);
      return name
        ? Response.json({ id, name, revision: 1, updatedAt: '', document })
        : Response.json({ error: 'gone' }, { status: 404 });
    });
    const full = demoJob((name) => setOf[name as keyof typeof setOf] ?? SET_ID);
    const shots = full.shots
      .slice(0, 3)
      .map((shot, i) => ({ ...shot, setId: Object.values(setOf)[i] as string }))
      .map((shot) => ({ ...shot, ...more(shot) }));
    const bench = openDemo({ shots });
    bench.show(view);
    await (view.type === DayView ? screen.findByTestId('day') : screen.findByRole('heading', { level: 1 }));
    return bench;
  }
  const rows = () =>
    within(screen.getByTestId('day'))
      .getAllByRole('rowheader')
      .map(({ textContent }) => textContent);

  test('is put in the best order, with its clock and what is done between', async () => {
    await openDay();
    expect(rows()).toHaveLength(3);
    await screen.findByText('No other order is over sooner.');
    expect(screen.getByTestId('day-sum').textContent).toMatch(/Done at \d\d:\d\d/);
    expect(screen.getByTestId('day').textContent).toContain('light A');
  });

  test('an own order is kept, says what it costs, and gives way to the best one', async () => {
    const { job } = await openDay();
    await screen.findByText('No other order is over sooner.');
    const before = rows();
    fireEvent.click(screen.getAllByRole('button', { name: /: later$/ })[0] as HTMLElement);
    expect(rows()[0]).not.toBe(before[0]);
    expect(job().day.order).toHaveLength(3);
    press('Take the best order');
    expect(job().day.order).toEqual([]);
    expect(rows()).toEqual(before);
  });

  test('on the band a picture is moved by the arrow keys and locked to its time, and both are undone', async () => {
    const { job, store } = await openDay();
    await screen.findByText('No other order is over sooner.');
    const [first, second] = rows();
    const block = () => screen.getByRole('button', { name: new RegExp(`^${first}, .*arrow keys`) });
    fireEvent.keyDown(block(), { key: 'ArrowRight' });
    expect(rows().slice(0, 2)).toEqual([second, first]);
    await screen.findByLabelText(/^Best order: /);
    fireEvent.keyDown(block(), { key: 'l' });
    const locked = job().shots.find(({ name }) => name === first);
    expect(block().getAttribute('aria-label')).toContain(
      `${locked?.notBefore} to ${locked?.endedBy}, locked`,
    );
    fireEvent.keyDown(block(), { key: 'l' });
    expect(job().shots.find(({ name }) => name === first)?.notBefore).toBeUndefined();
    for (let i = 0; i < 3; i++) act(() => void store.dispatch(openJob.undo()));
    expect(rows().slice(0, 2)).toEqual([first, second]);
  });

  test('what spills goes last; times that cannot be kept are told, and the picture that is too late', async () => {
    const { job } = await openDay();
    const [first] = rows();
    fireEvent.click(screen.getByLabelText(`${first}: last, as it spills, wets or wilts`));
    expect(job().shots.some(({ last }) => last)).toBe(true);
    await vi.waitFor(() => expect(rows().at(-1)).toBe(first));
    fireEvent.change(screen.getByLabelText(`${first}: ended by`), { target: { value: '09:10' } });
    await screen.findByText(/No order keeps all times/);
    expect(screen.getByTestId('day').textContent).toContain('too late');
  });

  test('pictures without a set are told apart; with none at all it says what to do', async () => {
    await openDay((shot) => (shot.id === 'mill' ? { setId: undefined } : {}));
    expect(screen.getByText(/Not in the order, as they have no set yet/)).toBeTruthy();
    cleanup();
    openDemo({ shots: [] }).show(<DayView />);
    expect(screen.getByText(/A day is made of pictures that are set up/)).toBeTruthy();
  });

  test('lunch is kept free and told; the calendar waits for the day itself', async () => {
    const { job } = await openDay();
    await screen.findByText('No other order is over sooner.');
    const done = () => screen.getByTestId('day-sum').textContent;
    const before = done();
    fireEvent.change(screen.getByLabelText('Lunch'), { target: { value: '10:00' } });
    expect(job().day.pause).toEqual({ at: '10:00', minutes: 45 });
    await screen.findByText('lunch until 10:45');
    expect(done()).not.toBe(before);
    const calendar = () => screen.getByRole('button', { name: 'Export calendar' }) as HTMLButtonElement;
    expect(calendar().disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('On'), { target: { value: '2026-12-03' } });
    expect(calendar().disabled).toBe(false);
    fireEvent.change(screen.getByLabelText('Lunch'), { target: { value: '' } });
    expect(job().day.pause).toBeUndefined();
    expect(done()).toBe(before);
  });

  test('on the day itself late running is told, and the rest is planned from now at a press', async () => {
    vi.useFakeTimers({ now: new Date(2026, 11, 3, 13, 0), toFake: ['Date'] });
    try {
      const { job } = await openDay();
      await screen.findByText('No other order is over sooner.');
      expect(screen.queryByTestId('day-late')).toBeNull();
      fireEvent.change(screen.getByLabelText('On'), { target: { value: '2026-12-03' } });
      expect(screen.getByTestId('day-late').textContent).toMatch(/was to be taken by \d\d:\d\d: \d h/);
      press('Plan the rest from now');
      expect(job().day.startsAt).toBe('13:00');
      expect(screen.queryByTestId('day-late')).toBeNull();
      fireEvent.change(screen.getByLabelText('On'), { target: { value: '2026-12-04' } });
      expect(screen.queryByRole('button', { name: 'Plan the rest from now' })).toBeNull();
    } finally {
      vi.useRealTimers();
    }
  });

  test('one picture comes after another on request', async () => {
    const { job } = await openDay();
    await screen.findByText('No other order is over sooner.');
    const [first, second] = rows();
    const idOf = (name: string | null | undefined) =>
      job().shots.find((shot) => shot.name === name)?.id as string;
    fireEvent.change(screen.getByLabelText(`${first}: after`), { target: { value: idOf(second) } });
    expect(job().shots.find(({ name }) => name === first)?.after).toEqual([idOf(second)]);
    await vi.waitFor(() =>
      expect(rows().indexOf(first as string)).toBeGreaterThan(rows().indexOf(second as string)),
    );
    fireEvent.change(screen.getByLabelText(`${first}: after`), { target: { value: '' } });
    await vi.waitFor(() => expect(rows()[0]).toBe(first));
  });

  test('the packing list names what the kit has not first, with what could stand in', async () => {
    await openDay();
    const names = within(await screen.findByTestId('packing')).getAllByRole('rowheader');
    expect(names[0]?.textContent).toContain('Not in the kit; could stand in:');
    expect(names.at(-1)?.textContent).not.toContain('Not in the kit');
    expect(names.map(({ textContent }) => textContent).join(' ')).toContain('Macro 100 mm');
  });

  test('build lists say where each thing stands by two tapes; a tick is kept, and goes with what it was for', async () => {
    const { job } = await openDay();
    await screen.findByText('No other order is over sooner.');
    const [first] = screen.getAllByLabelText(/: done$/);
    fireEvent.click(first as HTMLElement);
    const built = () => job().shots.flatMap((shot) => shot.built);
    expect(built()).toHaveLength(1);
    expect(screen.getAllByText(/1 of \d+ done, from an empty table/)).toHaveLength(1);
    expect(screen.getAllByText(/from table, front left corner/).length).toBeGreaterThan(2);
    fireEvent.click(first as HTMLElement);
    expect(built()).toEqual([]);
  });

  test('tapes are laid from other marks; from one mark alone nothing is fixed, and that is said', async () => {
    const { job } = await openDay();
    fireEvent.change(screen.getByLabelText('First tape from'), { target: { value: 'centre' } });
    expect(job().day.tapesFrom).toEqual(['centre', 'table-front-right']);
    expect(screen.getAllByText(/from centre of the set/).length).toBeGreaterThan(2);
    fireEvent.change(screen.getByLabelText('Second tape from'), { target: { value: 'centre' } });
    await screen.findByText(/Both tapes begin at one mark/);
    expect(screen.getAllByText(/seen from it/).length).toBeGreaterThan(2);
  });

  test('set side goes step by step, by a press or a foot switch, and on to the next picture', async () => {
    const { job } = await openDay(() => ({}), <SetSideView />);
    const title = () => screen.getByRole('heading', { level: 1 }).textContent;
    const steps = Number(/of (\d+)/.exec(screen.getByRole('status').textContent ?? '')?.[1]);
    const [begun, picture] = [title(), screen.getByRole('status').parentElement?.textContent];
    press('Done');
    expect(title()).not.toBe(begun);
    fireEvent.keyDown(window, { key: 'PageUp' });
    expect(title()).toBe(begun);
    for (let i = 0; i < steps; i++) fireEvent.keyDown(window, { key: 'PageDown' });
    expect(title()).toBe('Take it');
    expect(screen.getByTestId('set-side-numbers').textContent).toMatch(/f\/.*shutter.*ISO/);
    expect(job().shots.some(({ done }) => done)).toBe(false);
    press('Taken');
    const taken = job().shots.filter(({ done }) => done);
    expect(taken).toHaveLength(1);
    expect(job().day.stands).toBe(taken[0]?.setId);
    await vi.waitFor(() =>
      expect(screen.getByRole('status').parentElement?.textContent?.slice(0, 4)).not.toBe(
        picture?.slice(0, 4),
      ),
    );
    // The next one is told by what differs from the set that stands there.
    expect(title()).not.toBe('Table');
    // A press too many is taken back.
    press('Back');
    expect(job().shots.some(({ done }) => done)).toBe(false);
    expect(job().day.stands).toBeUndefined();
    await vi.waitFor(() => expect(title()).toBe('Take it'));
  });

  test('with all pictures taken set side says so, and with none at all what to do', () => {
    const { shots } = demoJob(() => SET_ID);
    openDemo({ shots: shots.map((shot) => ({ ...shot, done: true })) }).show(<SetSideView />);
    expect(screen.getByText('All pictures are taken.')).toBeTruthy();
    cleanup();
    openDemo({ shots: [] }).show(<SetSideView />);
    expect(screen.getByText(/There is nothing to build yet/)).toBeTruthy();
  });
});
