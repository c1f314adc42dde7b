// @vitest-environment jsdom
import type { Job } from '@fendrix/contract';
import { demoJob, demoSet } from '@fendrix/demo';
import { act, cleanup, fireEvent, screen, within } from '@testing-library/react';
import { describe, expect, test, vi } from 'vitest';
import { openJob } from '../src/features/jobs';
import { DayView } from '../src/features/jobs/day/DayView';
import { SetSideView } from '../src/features/jobs/setSide/SetSideView';
import { press, type } from './hands';
import { kit, openDemo, SET_ID, standInPage } from './openDemo';
import { soon } from './soon';
import { standInServer } from './standInServer';

standInPage();

describe('the day', () => {
  const setOf = {
    cordial: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11',
    mill: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b12',
    tart: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b13',
  } as const;

  /** The day of a job of three pictures, their sets on the server. */
  async function openDay(
    more: (shot: Job['shots'][number]) => object = () => ({}),
    view = <DayView />,
    changes: Partial<Job> = {},
    own = kit,
  ) {
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
    const bench = openDemo({ shots, ...changes }, own);
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
    await soon(() => expect(rows().at(-1)).toBe(first));
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
    await soon(() =>
      expect(rows().indexOf(first as string)).toBeGreaterThan(rows().indexOf(second as string)),
    );
    fireEvent.change(screen.getByLabelText(`${first}: after`), { target: { value: '' } });
    await soon(() => expect(rows()[0]).toBe(first));
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
    await soon(() =>
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
    await soon(() => expect(title()).toBe('Take it'));
  });

  test('with all pictures taken set side says so, and with none at all what to do', () => {
    const { shots } = demoJob(() => SET_ID);
    openDemo({ shots: shots.map((shot) => ({ ...shot, done: true })) }).show(<SetSideView />);
    expect(screen.getByText('All pictures are taken.')).toBeTruthy();
    cleanup();
    openDemo({ shots: [] }).show(<SetSideView />);
    expect(screen.getByText(/There is nothing to build yet/)).toBeTruthy();
  });

  test('what is taken stands with its minutes, and is taken back at a press', async () => {
    const at = (minutes: number) => new Date(Date.UTC(2026, 10, 30, 9, minutes)).toISOString();
    const { job } = await openDay((shot) =>
      shot.id === 'mill' ? { done: true, begunAt: at(0), takenAt: at(34), tries: 3 } : {},
    );
    const row = within(screen.getByTestId('taken')).getAllByRole('row')[1] as HTMLElement;
    expect(row.textContent).toMatch(/Nutmeg mill.*34 min.*3/);
    press(/: not taken yet$/);
    expect(job().shots.some(({ done }) => done)).toBe(false);
    expect(screen.queryByTestId('taken')).toBeNull();
  });

  test('what does not last is foreseen to come to an end, and counted', async () => {
    const { products } = demoJob(() => SET_ID);
    const lasting = products.map((product) =>
      product.id === 'tart' ? { ...product, minutesOnSet: 8, spares: 1, usedUp: 0 } : product,
    );
    const { job } = await openDay(() => ({}), <DayView />, { products: lasting });
    expect(screen.getByText(/will come to an end with “Tart from above”: 2 at hand, 4 needed/)).toBeTruthy();
    press('Beet and walnut tart: one more used up');
    expect(job().products.find(({ id }) => id === 'tart')?.usedUp).toBe(1);
    expect(screen.getByText(/1 at hand, 4 needed/)).toBeTruthy();
  });

  test('window light asks where the room is, and then tells when sun comes in', async () => {
    await openDay();
    expect(screen.getByText(/Say in the/).textContent).toContain('latitude and longitude');
    cleanup();
    if (!kit.studio) throw new Error('the kit has a studio');
    const windows = kit.studio.windows.map((own) => ({ ...own, facesDeg: 180 }));
    const studio = { ...kit.studio, windows, latitudeDeg: 51.5, longitudeDeg: 0 };
    const day = { on: '2026-03-20' };
    const { job } = await openDay(
      () => ({}),
      <DayView />,
      { day: { ...demoJob(() => SET_ID).day, ...day } },
      { ...kit, studio },
    );
    expect(screen.getByText(/no sun comes in, its light is soft all day/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Sky'), { target: { value: 'clear' } });
    expect(screen.getByText(/sun comes in \d\d:\d\d to \d\d:\d\d/)).toBeTruthy();
    // Metered: what comes later is counted from it.
    vi.setSystemTime(new Date(2026, 2, 20, 10, 30));
    type('the settings are off now by', '+0.5');
    expect(job().day.metered).toMatchObject({ at: '10:30', stops: 0.5 });
    expect(
      screen.getByText(/^Metered at 10:30\. With the same settings it is then \+0\.[5-9] at 11:00/),
    ).toBeTruthy();
    type('the settings are off now by', '');
    expect(job().day.metered).toBeUndefined();
    vi.useRealTimers();
  });
});
