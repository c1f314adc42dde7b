// @vitest-environment jsdom
import { type DayAction, type DayAtTable, jobDocument } from '@fendrix/contract';
import { afterDayAction } from '@fendrix/core';
import { demoJob, demoSet } from '@fendrix/demo';
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { PairedSetSide } from '../src/features/jobs/setSide/PairedSetSide';
import { askServer, keepActions, keptActions } from '../src/features/jobs/setSide/pairedDay';
import { press, type } from './hands';
import { soon } from './soon';

const SET_ID = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';
const AT = '2026-11-30T09:00:00.000Z';
const tick = (step: string): DayAction => ({ kind: 'step', shot: 'one', step, done: true, at: AT });

/** A studio's machine that can be reached or not, knows one code, and writes down what it is told. */
function studio(set = demoSet('cordial')) {
  const { name, products, shots, day } = jobDocument.parse(demoJob(() => SET_ID));
  let job: DayAtTable['job'] = { name, products, shots: shots.slice(0, 1), day };
  let revision = 1;
  const state = { reachable: true, paired: false, told: [] as DayAction[] };
  const answer = (status: number, body?: unknown, headers = {}) =>
    new Response(body === undefined ? null : JSON.stringify(body), { status, headers });
  const ask = async (path: RequestInfo | URL, init?: RequestInit): Promise<Response> => {
    if (!state.reachable) throw new TypeError('no link');
    if (path === '/api/set-side/pair') {
      const { code } = JSON.parse(String(init?.body)) as { code: string };
      state.paired ||= code === 'apple tulip fox';
      return state.paired
        ? answer(204)
        : answer(401, { error: { code: 'not-paired', message: 'This code is not valid.' } });
    }
    if (!state.paired) return answer(401, {});
    if (path === '/api/set-side/actions') {
      const { actions } = JSON.parse(String(init?.body)) as { actions: DayAction[] };
      if (actions.some((action) => action.kind === 'step' && action.step === 'bad')) return answer(400, {});
      state.told.push(...actions);
      job = actions.reduce(afterDayAction, job);
      revision++;
      return answer(200, { revision });
    }
    const etag = `"${revision}"`;
    if (new Headers(init?.headers).get('if-none-match') === etag) return answer(304);
    return answer(200, { revision, job, sets: { [SET_ID]: set }, kit: {} }, { etag });
  };
  return { state, ask };
}

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('what a phone tells', () => {
  const list = (...actions: DayAction[]) => {
    let kept = actions;
    return {
      kept: () => kept,
      told(count: number) {
        kept = kept.slice(count);
      },
    };
  };

  test('is kept while the link is lost, and comes off the list when the studio has it', async () => {
    const { state, ask } = studio();
    state.paired = true;
    state.reachable = false;
    const { kept, told } = list(tick('A'), tick('B'));
    expect(await askServer(null, kept, told, ask)).toEqual({ link: 'lost', etag: null });
    expect(kept()).toHaveLength(2);
    state.reachable = true;
    const answer = await askServer(null, kept, told, ask);
    expect(answer.link).toBe('there');
    expect(answer.day?.revision).toBe(2);
    expect(kept()).toEqual([]);
    expect(await askServer(answer.etag, kept, told, ask)).toEqual({ link: 'there', etag: answer.etag });
  });

  test('has nowhere to go at another address of the studio', async () => {
    const nothing = async () => new Response('{}', { status: 404 });
    const { kept, told } = list();
    expect((await askServer(null, kept, told, nothing)).link).toBe('no-day');
    vi.stubGlobal('fetch', nothing);
    render(<PairedSetSide />);
    expect((await screen.findByRole('alert')).textContent).toContain('There is no day here');
  });

  test('is kept when the phone is thrown out', async () => {
    const { ask } = studio();
    const { kept, told } = list(tick('A'));
    expect((await askServer(null, kept, told, ask)).link).toBe('not-paired');
    expect(kept()).toHaveLength(1);
  });

  test('holds nothing up by what the studio will never take', async () => {
    const { state, ask } = studio();
    state.paired = true;
    const { kept, told } = list(tick('A'), tick('bad'), tick('B'));
    expect((await askServer(null, kept, told, ask)).link).toBe('there');
    expect(state.told).toEqual([tick('A'), tick('B')]);
    expect(kept()).toEqual([]);
  });

  test('outlives a reload; what is no list is none', () => {
    keepActions([tick('A')]);
    expect(keptActions()).toEqual([tick('A')]);
    localStorage.setItem('fendrix set side', '{broken');
    expect(keptActions()).toEqual([]);
  });
});

describe('a paired phone', () => {
  const step = () => screen.getByTestId('set-side-step').textContent;

  test('asks for the code, goes on while the link is lost, and catches up', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const { state, ask } = studio();
    vi.stubGlobal('fetch', ask);
    render(<PairedSetSide />);
    await soon(() => expect(screen.getByLabelText(/three words/)).toBeTruthy());
    type('The three words', 'apple tulip cat');
    press('Let me in');
    await soon(() => expect(screen.getByRole('alert').textContent).toContain('not valid'));
    type('The three words', 'apple tulip fox');
    press('Let me in');
    await soon(() => expect(step()).toMatch(/step 1 of/));
    state.reachable = false;
    press('Done');
    expect(step()).toMatch(/step 2 of/);
    await vi.advanceTimersByTimeAsync(4000);
    await soon(() =>
      expect(screen.getByRole('alert').textContent).toMatch(/link is lost.*1 of what you did is kept/),
    );
    press('Done');
    expect(keptActions()).toHaveLength(2);
    state.reachable = true;
    await vi.advanceTimersByTimeAsync(4000);
    await soon(() => expect(screen.getByTestId('link').textContent).toContain('all is told'));
    expect(state.told).toHaveLength(2);
    expect(step()).toMatch(/step 3 of/);
    expect(keptActions()).toEqual([]);
  });

  test('goes on to the next picture and not back, while the day is read anew', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const { state, ask } = studio();
    state.paired = true;
    let isSlow = false;
    vi.stubGlobal('fetch', async (path: RequestInfo | URL, init?: RequestInit) => {
      if (isSlow && path === '/api/set-side/day') await new Promise((read) => setTimeout(read, 60_000));
      return ask(path, init);
    });
    render(<PairedSetSide />);
    await soon(() => expect(step()).toMatch(/step 1 of/));
    const steps = Number(/of (\d+)/.exec(step() ?? '')?.[1]);
    for (let i = 0; i < steps; i++) press('Done');
    isSlow = true;
    press('Taken');
    await soon(() => expect(state.told.some(({ kind }) => kind === 'taken')).toBe(true));
    await vi.advanceTimersByTimeAsync(2000);
    expect(screen.getByText('All pictures are taken.')).toBeTruthy();
  });

  test('takes a picture of several frames one by one, and says what is other for each', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const { state, ask } = studio(demoSet('cordial-frost'));
    state.paired = true;
    vi.stubGlobal('fetch', ask);
    render(<PairedSetSide />);
    await soon(() => expect(step()).toMatch(/step 1 of/));
    while (screen.queryByRole('button', { name: 'Done' })) press('Done');
    expect(screen.getByRole('heading', { name: 'Take the frame of the set as it stands' })).toBeTruthy();
    press('This one is taken');
    expect(screen.getByRole('heading', { name: 'Take the plate “Label”' })).toBeTruthy();
    expect(screen.getByText(/^First: A .*Camera and products are not touched/)).toBeTruthy();
    press('This one is taken');
    // From the plate before it, not from the set: the left dish goes back.
    expect(screen.getByText(/^First: A .*, C /)).toBeTruthy();
    press('This one is taken');
    expect(step()).toBe('all frames are taken');
    expect(screen.getByText(/Then back as the set has it: C /)).toBeTruthy();
    press('Taken');
    await soon(() => expect(state.told.some(({ kind }) => kind === 'taken')).toBe(true));
    expect(state.told.filter((own) => own.kind === 'step' && own.step.startsWith('frame '))).toHaveLength(3);
  });

  test('is asked for a code again when it was thrown out, and loses nothing', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const { state, ask } = studio();
    state.paired = true;
    vi.stubGlobal('fetch', ask);
    render(<PairedSetSide />);
    await soon(() => expect(step()).toMatch(/step 1 of/));
    state.paired = false;
    press('Done');
    await vi.advanceTimersByTimeAsync(4000);
    await soon(() => expect(screen.getByText(/1 of what you did is kept here/)).toBeTruthy());
    type('The three words', 'apple tulip fox');
    press('Let me in');
    await soon(() => expect(step()).toMatch(/step 2 of/));
    expect(state.told).toHaveLength(1);
  });

  test('counts what is not kept, and tells how long a dish still lasts', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const { state, ask } = studio();
    state.paired = true;
    const lasting = async (path: RequestInfo | URL, init?: RequestInit) => {
      const answer = await ask(path, init);
      if (path !== '/api/set-side/day' || answer.status !== 200) return answer;
      const day = (await answer.json()) as DayAtTable;
      const [shot] = day.job.shots;
      const products = day.job.products.map((product) =>
        product.id === shot?.products[0] ? { ...product, minutesOnSet: 8, spares: 1 } : product,
      );
      return new Response(JSON.stringify({ ...day, job: { ...day.job, products } }), answer);
    };
    vi.stubGlobal('fetch', lasting);
    render(<PairedSetSide />);
    await soon(() => expect(screen.getByText(/lasts 8 min\. 1 more at hand/)).toBeTruthy());
    press('Under lights now');
    expect(screen.getByText(/[78] min left\. 1 more at hand/)).toBeTruthy();
    await vi.advanceTimersByTimeAsync(9 * 60_000);
    await soon(() => expect(screen.getByText(/over since/)).toBeTruthy());
    press('A fresh one');
    expect(screen.getByText(/[78] min left\. No other is at hand/)).toBeTruthy();
    const steps = Number(/of (\d+)/.exec(step() ?? '')?.[1]);
    for (let i = 0; i < steps; i++) press('Done');
    press('One more not kept');
    press('One more not kept');
    expect(screen.getByText(/Not kept so far/).textContent).toBe('Not kept so far: 2');
    await vi.advanceTimersByTimeAsync(4000);
    expect(state.told.findLast(({ kind }) => kind === 'tries')).toMatchObject({ tries: 2 });
    expect(state.told.findLast(({ kind }) => kind === 'piece')).toMatchObject({ usedUp: 1 });
  });
});
