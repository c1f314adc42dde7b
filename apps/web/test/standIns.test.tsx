// @vitest-environment jsdom
import type {
  Devices,
  FrameAgainstPlan,
  FrameMoves,
  ReadMeter,
  StoredJob,
  TakeFrames,
} from '@fendrix/contract';
import { demoJob, demoSet } from '@fendrix/demo';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { SetDevices } from '../src/features/devices';
import { AgainstPlan } from '../src/features/jobs/frames/AgainstPlan';
import { JobDevices } from '../src/features/jobs/JobDevices';
import { openJob } from '../src/features/jobs/state/openJob';
import { devicesOff as off } from './devicesOff';
import { press, type } from './hands';
import { soon } from './soon';
import { standInServer } from './standInServer';

const JOB_ID = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** The devices over a server that keeps their state, and refuses frames with what it is given. */
async function openDevices(start: Partial<Devices> = {}, refusal: string | null = null, ofSet = false) {
  let state: Devices = { ...off, ...start };
  const taken: TakeFrames[] = [];
  const read: ReadMeter[] = [];
  const set = demoSet('cordial-frost');
  standInServer(async (request) => {
    const { pathname } = new URL(request.url);
    if (request.method === 'PUT') {
      const device = pathname.split('/').at(-1) as 'camera' | 'trigger' | 'turntable' | 'rail';
      state = { ...state, [device]: await request.json() };
      return Response.json(state);
    }
    if (pathname === '/api/devices') return Response.json(state);
    if (pathname === '/api/devices/camera/frames') {
      taken.push((await request.json()) as TakeFrames);
      return refusal
        ? Response.json({ error: { code: 'unavailable', message: refusal } }, { status: 503 })
        : Response.json({ names: ['A.JPG'] }, { status: 201 });
    }
    if (pathname === '/api/devices/meter/readings') {
      const asked = (await request.json()) as ReadMeter;
      read.push(asked);
      return Response.json({ spot: asked.spot, stops: -0.42, plannedStops: null });
    }
    return Response.json({ id: JOB_ID, name: set.name, revision: 1, updatedAt: '', document: set });
  });
  const { store } = createStore();
  const document = demoJob(() => JOB_ID);
  const stored: StoredJob = { id: JOB_ID, name: document.name, revision: 1, updatedAt: '', document };
  store.dispatch(openJob.open(stored, null));
  const show = async () => {
    render(
      <Provider store={store}>
        {ofSet ? <SetDevices id={JOB_ID} set={set} /> : <JobDevices job={JOB_ID} />}
      </Provider>,
    );
    await screen.findByText(/Stand-in devices/);
  };
  await show();
  return { taken, read, state: () => state, show };
}

const on = { on: true, linked: true };
const shot = demoJob(() => JOB_ID).shots[0]?.id;

describe('stand-in devices', () => {
  test('are off at first; each is switched on by itself', async () => {
    const { state } = await openDevices();
    expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull();
    fireEvent.click(screen.getByRole('switch', { name: 'turntable' }));
    await screen.findByRole('button', { name: 'Take 12, 30° apart' });
    expect(state().turntable.on).toBe(true);
    expect(state().camera.on).toBe(false);
    // Frames need the camera.
    expect(screen.getByText('Switch the camera on to take them.')).toBeTruthy();
  });

  test('a frame, a bracket, a plate; flashes that did not fire are named', async () => {
    const { taken } = await openDevices({ camera: { ...off.camera, on: true }, misfired: ['A', 'C'] });
    expect(screen.getByText('A and C did not fire in the last frame.')).toBeTruthy();
    expect(screen.getByText('50 %')).toBeTruthy();
    fireEvent.change(await screen.findByLabelText('Frame of'), { target: { value: 'label' } });
    fireEvent.change(screen.getByLabelText('Frames'), { target: { value: 'three' } });
    fireEvent.change(screen.getByLabelText('Releases'), { target: { value: 'now' } });
    press('Take it');
    await soon(() =>
      expect(taken).toEqual([{ job: JOB_ID, shot, plate: 'label', bracketStops: [-1, 0, 1], waits: false }]),
    );
  });

  test('from the bench they work on the set by itself, or one of its plates', async () => {
    const { taken, read } = await openDevices({ camera: { ...off.camera, on: true } }, null, true);
    expect(screen.queryByLabelText('Picture')).toBeNull();
    press('Take it');
    await soon(() => expect(taken).toEqual([{ set: JOB_ID, bracketStops: [0], waits: true }]));
    fireEvent.change(await screen.findByLabelText('Frame of'), { target: { value: 'label' } });
    press('Read the meter');
    await soon(() => expect(read).toMatchObject([{ set: JOB_ID, plate: 'label' }]));
  });

  test('what was chosen to be taken stays chosen where the devices are shown again', async () => {
    const { taken, show } = await openDevices({ camera: { ...off.camera, on: true } });
    const [, second] = demoJob(() => JOB_ID).shots;
    fireEvent.change(screen.getByLabelText('Picture'), { target: { value: second?.id } });
    cleanup();
    await show();
    press('Take it');
    await soon(() => expect(taken).toMatchObject([{ shot: second?.id }]));
  });

  test('what the camera refuses is told; while it takes a run nothing else is begun', async () => {
    const { taken } = await openDevices({ camera: { ...off.camera, on: true } }, 'The battery is empty.');
    press('Take it');
    expect(await screen.findByText(/The battery is empty/)).toBeTruthy();
    expect(taken).toHaveLength(1);
    cleanup();
    await openDevices({ camera: { ...off.camera, on: true }, taking: { done: 2, of: 12 } });
    expect(screen.getByText('Frame 3 of 12 is being taken')).toBeTruthy();
    expect((screen.getByRole('button', { name: 'Take it' }) as HTMLButtonElement).disabled).toBe(true);
  });

  test('powers are read and set by the trigger, and all at once as planned', async () => {
    const { state } = await openDevices({ trigger: { ...off.trigger, on: true } });
    await screen.findByRole('button', { name: 'A a third less' });
    const planned = demoSet('cordial-frost').lights.find(({ tag }) => tag === 'A')?.powerStops as number;
    press('A a third less');
    await soon(() => expect(state().trigger.powers.A).toBeLessThan(planned));
    expect(await screen.findByText(/^planned /)).toBeTruthy();
    press('Set all as planned');
    await soon(() => expect(state().trigger.powers).toMatchObject({ A: planned }));
    press('For practice: lose its link');
    expect(await screen.findByText('The link is lost: no flash fires.')).toBeTruthy();
    expect(state().trigger.linked).toBe(false);
  });

  test('a spin and a run of the rail are frames of so many places, the rail round its middle', async () => {
    const { taken, state } = await openDevices({
      camera: { ...off.camera, on: true },
      turntable: { ...off.turntable, ...on },
      rail: { ...off.rail, ...on },
    });
    fireEvent.change(screen.getByLabelText('Frames all round'), { target: { value: '8' } });
    press('Take 8, 45° apart');
    await soon(() => expect(taken[0]?.turnsDeg).toEqual([0, 45, 90, 135, 180, 225, 270, 315]));
    type('Step', '1 mm');
    const rail = screen.getByRole('region', { name: 'Focus rail' });
    fireEvent.change(within(rail).getByLabelText('Frames'), { target: { value: '3' } });
    await soon(() => fireEvent.click(within(rail).getByRole('button', { name: /^Take 3/ })));
    await soon(() => expect(taken[1]?.railM).toEqual([-0.001, 0, 0.001]));
    type('Turned by', '-30°');
    await soon(() => expect(state().turntable.turnDeg).toBe(-30));
    type('Turned by', 'far');
    expect(screen.getByLabelText('Turned by').getAttribute('aria-describedby')).not.toBeNull();
    expect(state().turntable.turnDeg).toBe(-30);
  });

  test('the meter reads what is asked; an answer to another question is not shown', async () => {
    const { read } = await openDevices({ camera: { ...off.camera, on: true } });
    fireEvent.change(await screen.findByLabelText('Reads'), { target: { value: 'reflected' } });
    press('Read the meter');
    expect((await screen.findByText(/from mid-tone, planned/)).textContent).toMatch(
      /−0\.4 from mid-tone, planned dark$/,
    );
    expect(read[0]).toMatchObject({ shot, spot: 'label', how: 'reflected', light: 'all' });
    fireEvent.change(screen.getByLabelText('Of'), { target: { value: 'ambient' } });
    expect(screen.queryByText(/from mid-tone, planned/)).toBeNull();
  });
});

describe('a frame held against its plan', () => {
  const figure = (value: number, error: number) => ({ value, error });
  const plain: FrameAgainstPlan = {
    exposedAsFrame: true,
    lights: [{ tag: 'A', name: 'Key', stops: 0.05, error: 0.02, isOff: false }],
    shift: null,
    products: [],
    spots: [],
    verdicts: [],
    sharpness: { products: [], resolvedPx: 25, isTooSmall: true, limitPx: 5 },
  };
  const still: FrameMoves = { moved: [], isExplained: true, atLens: [], untold: [] };
  /** @param underWay how much of what stands elsewhere is done, the first times it is asked for */
  async function hold(
    found: Partial<FrameAgainstPlan>,
    moves: Partial<FrameMoves> = {},
    underWay: number[] = [],
  ) {
    standInServer(({ url }) => {
      if (!url.endsWith('/moves')) return Response.json({ ...plain, ...found });
      const part = underWay.shift();
      return Response.json(part === undefined ? { ...still, ...moves } : { part });
    });
    const { store } = createStore();
    const frame = { id: 'f', name: 'A.JPG', widthPx: 480, heightPx: 320 } as never;
    render(
      <Provider store={store}>
        <AgainstPlan frame={frame} of="one" />
      </Provider>,
    );
    press('Hold it against the plan');
    await screen.findByText(/^No light is off/);
  }

  test('verdicts of the frame stand beside those of the plan, and say which of them they are', async () => {
    const spot = { kind: 'product', key: 'label', name: 'label' };
    const figure = (value: number, limit: number, unit: string) => ({
      value,
      limit,
      unit,
      error: 0.01,
      fault: 'above' as const,
    });
    await hold({
      verdicts: [
        { kind: 'burnt', on: 'frame', of: { ...spot, name: 'Bottle' }, figure: figure(0.2, 0.02, 'part') },
        { kind: 'tone-missed', on: 'both', of: spot, figure: figure(0.5, 0.05, 'stops') },
        { kind: 'flat', on: 'plan', of: null, figure: figure(1, 2, 'stops') },
      ],
    });
    const part = screen.getByRole('region', { name: 'Verdicts on the frame' });
    expect(within(part).getByText('2 verdicts on this frame')).toBeTruthy();
    const items = within(part).getAllByRole('listitem');
    expect(items[0]?.textContent).toMatch(/Bottle.*\(not in the plan\).*20 %/);
    expect(items[1]?.textContent).toMatch(/\(in the plan too\)/);
    expect(items[2]?.textContent).toMatch(/\(in the plan, not in the frame\)$/);
    expect(within(part).getByText(/Tones are those of the frame/)).toBeTruthy();
    cleanup();
    await hold({});
    expect(screen.getByText('Nothing is wrong with this frame.')).toBeTruthy();
  });

  test('a product of which nothing is sharp is told with what to do; a small file tells none', async () => {
    const sharp = { resolvedPx: 2, isTooSmall: false, limitPx: 5 };
    const of = (name: string, blurPx: number, plannedPx: number) => ({ name, blurPx, plannedPx });
    await hold({ sharpness: { ...sharp, products: [of('Bottle', 9, 0.5), of('Jar', 9, 6)] } });
    const rows = within(screen.getByTestId('sharpness of the frame')).getAllByRole('row');
    expect(rows.slice(1).map((row) => row.textContent)).toEqual(['Bottle9 pxunder 2 px', 'Jar9 px6 px']);
    expect(screen.getByRole('alert').textContent).toMatch(/^Nothing of Bottle is sharp\. See to the focus/);
    cleanup();
    await hold({ sharpness: { ...sharp, products: [of('Bottle', 4.9, 0.5)] } });
    expect(screen.queryByRole('alert')).toBeNull();
    cleanup();
    await hold({});
    expect(screen.getByText(/too small to tell how sharp/)).toBeTruthy();
    cleanup();
    await hold({ sharpness: { ...sharp, products: [] } });
    expect(screen.getByText(/No clear edge/)).toBeTruthy();
  });

  test('a product that leans, a label that is turned; less is not made much of', async () => {
    const product = { name: 'Bottle', right: figure(0.001, 0.0005), radiusM: 0.04 };
    await hold({
      products: [{ ...product, leanDeg: figure(-1.5, 0.2), turnDeg: figure(5, 0.6) }],
    });
    expect(
      screen.getByText(
        /Bottle leans 1\.5° to the left\. The label of Bottle is turned 5\.0° \(3\.5 mm\) to the right\./,
      ),
    ).toBeTruthy();
    cleanup();
    await hold({
      products: [{ ...product, leanDeg: figure(0.3, 0.2), turnDeg: null }],
    });
    expect(screen.queryByRole('alert')).toBeNull();
    expect(screen.getByText('not told')).toBeTruthy();
  });

  test('a card that stands elsewhere is named; of two that it may be, both; and what the picture does not tell', async () => {
    const card = {
      kind: 'sheet' as const,
      tag: '1',
      name: 'White card',
      moves: [{ way: 'right' as const, byM: 0.03, errorM: 0.004 }],
    };
    await hold({}, { moved: [{ ...card, isNamed: true }] });
    expect((await screen.findByText(/^1 White card stands elsewhere/)).textContent).toMatch(
      /as if it stood 3 cm \(± 4 mm\) further right\.$/,
    );
    expect(screen.queryByText(/does not tell where/)).toBeNull();
    cleanup();
    const light = { ...card, kind: 'light' as const, tag: 'B', name: 'Key' };
    await hold({}, { moved: [card, light].map((own) => ({ ...own, isNamed: false })) });
    expect((await screen.findByText(/^Something stands elsewhere/)).textContent).toMatch(
      /1 White card, .*; or light B, .*does not tell which\.$/,
    );
    cleanup();
    await hold({}, { untold: [{ ...light, ways: ['right', 'away'] }] });
    expect(await screen.findByText(/^No card or light stands elsewhere/)).toBeTruthy();
    expect(screen.getByText(/does not tell where this stands: light B\. Tape it\./)).toBeTruthy();
    cleanup();
    await hold({}, { isExplained: false, atLens: [{ kind: 'sheet', tag: '3', name: 'Lens card' }] });
    expect((await screen.findByRole('alert')).textContent).toMatch(
      /^The frame differs from its plan by more .*before the lens \(3 Lens card\), and what was changed\.$/,
    );
  });

  test('how much of the search is done is told until it is through', async () => {
    await hold({}, {}, [0.25, 0.5]);
    const bar = await screen.findByRole('progressbar', { name: 'How much of it is done' });
    await waitFor(() => expect(bar.getAttribute('aria-valuenow')).toBe('25'));
    await waitFor(() => expect(bar.getAttribute('aria-valuenow')).toBe('50'));
    expect(await screen.findByText(/^No card or light stands elsewhere/)).toBeTruthy();
    expect(screen.queryByRole('progressbar')).toBeNull();
  });
});
