import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  type ApiError,
  type Devices,
  type FrameAgainstPlan,
  type FrameList,
  type MeterReading,
  type StandInCamera,
  type StoredJob,
  type StoredSet,
  standInCamera,
  type TakenFrames,
} from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { startTestServer } from './testServer.js';

/** Traces light on a machine that may be busy. */
const SLOW = 90_000;

let server: Awaited<ReturnType<typeof startTestServer>>;
let job: StoredJob;

beforeAll(async () => {
  server = await startTestServer();
  const set = await server.call<StoredSet>('POST', '/api/sets', { document: demoSet('pepper') });
  const [body] = demoSet('pepper').products;
  const made = await server.call<StoredJob>('POST', '/api/jobs', {
    document: {
      format: 'fendrix-job',
      version: 1,
      name: 'Mills',
      products: [{ id: 'mill', name: 'Mill', body }],
      shots: [
        { id: 'one', name: 'One', products: ['mill'], setId: set.body.id },
        { id: 'two', name: 'Two', products: ['mill'] },
      ],
    },
  });
  job = made.body;
  await server.call('PUT', '/api/frames/to', { job: job.id });
});
afterAll(() => server.stop());

const camera = (state: Partial<StandInCamera>) =>
  server.call<Devices>('PUT', '/api/devices/camera', standInCamera.parse({ on: true, ...state }));
const take = (more: object = {}) =>
  server.call<TakenFrames & ApiError>('POST', '/api/devices/camera/frames', {
    job: job.id,
    shot: 'one',
    ...more,
  });
const frames = async () => (await server.call<FrameList>('GET', `/api/frames?job=${job.id}`)).body;

test(
  'what is taken is a picture of a job, or a set by itself: neither and both are refused',
  async () => {
    const refused = async (body: object) => {
      const { status, body: answer } = await server.call<ApiError>(
        'POST',
        '/api/devices/meter/readings',
        body,
      );
      return [status, answer.error.problems?.[0]?.path];
    };
    const set = job.document.shots[0]?.setId;
    expect(await refused({ spot: 'x' })).toEqual([400, 'set']);
    expect(await refused({ spot: 'x', set, job: job.id, shot: 'one' })).toEqual([400, 'set']);
    expect(await refused({ spot: 'x', job: job.id })).toEqual([400, 'set']);
    await camera({});
    const [spot] = demoSet('pepper').spots;
    const reading = await server.call<MeterReading>('POST', '/api/devices/meter/readings', {
      spot: spot?.name,
      set,
    });
    expect(reading.status).toBe(200);
    expect(reading.body.plannedStops).not.toBeNull();
  },
  SLOW,
);

test('a camera that is off, unlinked, empty or full says what to do, and writes nothing', async () => {
  const refused = async (state: Partial<StandInCamera>) => {
    await camera(state);
    const { status, body } = await take();
    expect(status).toBe(503);
    return body.error.message;
  };
  expect(await refused({ on: false })).toMatch(/is off/);
  expect(await refused({ linked: false })).toMatch(/does not answer/);
  expect(await refused({ batteryPart: 0 })).toMatch(/battery/);
  expect(await refused({ framesLeft: 0 })).toMatch(/card .* full/);
  expect(readdirSync(join(server.folder, 'frames'))).toEqual([]);
  await camera({});
  expect((await take({ shot: 'two' })).status).toBe(400);
  expect((await server.call('PUT', '/api/devices/camera', { on: true, batteryPart: 2 })).status).toBe(400);
});

test('it takes what really stands: a wrong power is found in the frame, and by how much', {
  tags: ['more'],
  timeout: SLOW,
}, async () => {
  await camera({ seed: 5, powerStops: { A: -1.2 }, framesLeft: 7 });
  const { status, body } = await take({ bracketStops: [0, 1] });
  expect(status).toBe(201);
  expect(body.names).toHaveLength(2);
  const { body: state } = await server.call<Devices>('GET', '/api/devices');
  expect(state.camera.framesLeft).toBe(5);
  expect(state.camera.batteryPart).toBeLessThan(1);
  const list = await vi.waitFor(
    async () => {
      const found = await frames();
      expect(found.total).toBe(2);
      return found.frames;
    },
    { timeout: 20_000, interval: 100 },
  );
  const own = list.find(({ name }) => name === body.names[0]);
  const set = demoSet('pepper').camera;
  expect(own).toMatchObject({ body: 'Stand-in camera', shot: 'one', iso: set.iso, widthPx: 480 });
  expect(own?.exposureS).toBeCloseTo(set.shutterS, 4);
  expect(list.find(({ name }) => name === body.names[1])?.iso).toBe(2 * set.iso);
  const told = await server.call<FrameAgainstPlan>('GET', `/api/frames/${own?.id}/against-plan`);
  expect(told.status).toBe(200);
  expect(told.body.exposedAsFrame).toBe(true);
  const [light] = told.body.lights;
  expect(light).toMatchObject({ tag: 'A', isOff: true });
  expect(Math.abs((light?.stops ?? 9) + 1.2)).toBeLessThan(0.3);
  expect(Math.abs(told.body.shift?.rightM.value ?? 9)).toBeLessThan(0.006);
  expect(told.body.spots.length).toBe(demoSet('pepper').spots.length);
  // What 1.2 stops less light does is told by the frame's own tones: the wall that the plan has too light is black enough.
  const on = (kind: string) => told.body.verdicts.find((verdict) => verdict.kind === kind)?.on;
  expect(on('horizon-through')).toBe('both');
  expect(on('ground-not-black')).toBe('plan');
  // 480 px of 6000 show no blur that matters.
  expect(told.body.sharpness).toMatchObject({ products: [], isTooSmall: true, limitPx: 5 });
  expect(told.body.sharpness.resolvedPx).toBeGreaterThan(10);
  const plan = await server.call<Buffer>('GET', `/api/frames/${own?.id}/plan`);
  expect((await sharp(plan.body).metadata()).width).toBe(480);
});

test(
  'the meter reads what really stands at a pinned spot, and is told what the plan says',
  async () => {
    const read = (spot: string) =>
      server.call<MeterReading>('POST', '/api/devices/meter/readings', { job: job.id, shot: 'one', spot });
    const [spot] = demoSet('pepper').spots;
    await camera({ seed: 5, powerStops: { A: -1 } });
    const { body } = await read(spot?.name ?? '');
    expect(body.spot).toBe(spot?.name);
    const off = (body.stops ?? 9) - (body.plannedStops ?? 0);
    expect(off).toBeGreaterThan(-1.4);
    expect(off).toBeLessThan(-0.6);
    expect((await read('nowhere')).status).toBe(400);
  },
  SLOW,
);

/** Sets the state of one of the others, as it comes with these changes. */
const set = (device: 'trigger' | 'turntable' | 'rail', state: object) =>
  server.call<Devices & ApiError>('PUT', `/api/devices/${device}`, state);

test('what is asked of a device that is off or does not answer is refused with what to do', async () => {
  await camera({});
  const refused = async (body: object) => {
    const { status, body: answer } = await take(body);
    expect(status).toBe(503);
    return answer.error.message;
  };
  expect(await refused({ turnsDeg: [0, 90] })).toMatch(/turntable is off/);
  await set('rail', { on: true, linked: false });
  expect(await refused({ railM: [0, 0.001] })).toMatch(/focus rail does not answer/);
  await set('trigger', { on: true, linked: false });
  expect((await set('trigger', { on: true, linked: false, powers: { A: -2 } })).status).toBe(503);
  expect((await take({ turnsDeg: [0, 90], railM: [0, 0.01] })).status).toBe(400);
  expect((await take({ plate: 'gone' })).status).toBe(400);
  expect((await set('turntable', { on: true, turnDeg: 900 })).status).toBe(400);
  const { body } = await server.call<Devices>('GET', '/api/devices');
  expect(body.taking).toBeNull();
  await set('trigger', {});
  await set('rail', {});
});

test(
  'powers set by the trigger light the frame; without its link no flash fires, and that is told',
  async () => {
    await camera({ seed: 5 });
    const brightness = async (state: object): Promise<number> => {
      await set('trigger', state);
      const { status, body } = await take();
      expect(status).toBe(201);
      const { channels } = await sharp(join(server.folder, 'frames', body.names[0] as string)).stats();
      return channels.reduce((sum, { mean }) => sum + mean, 0) / 3;
    };
    const planned = await brightness({ on: true });
    const powers = Object.fromEntries(
      demoSet('pepper').lights.map(({ tag, powerStops }) => [tag, Math.max(-12, powerStops - 2)]),
    );
    const less = await brightness({ on: true, powers });
    expect(less).toBeLessThan(0.75 * planned);
    const dark = await brightness({ on: true, linked: false, powers });
    expect(dark).toBeLessThan(0.5 * less);
    const { body } = await server.call<Devices>('GET', '/api/devices');
    const on = demoSet('pepper').lights.filter((light) => light.on && 'kind' in light);
    expect(body.misfired).toEqual(on.map(({ tag }) => tag));
    await set('trigger', {});
  },
  SLOW,
);

test(
  'the rail takes a run of frames, each of another place; listeners are told of each unasked',
  async () => {
    await camera({ seed: 5 });
    await set('rail', { on: true });
    const told: Devices[] = [];
    const stop = new AbortController();
    const events = await fetch(`http://127.0.0.1:${server.port}/api/devices/events`, { signal: stop.signal });
    expect(events.headers.get('content-type')).toContain('text/event-stream');
    const reading = (async () => {
      let text = '';
      for await (const part of events.body as unknown as AsyncIterable<Uint8Array>) {
        text += new TextDecoder().decode(part);
        const parts = text.split('\n\n');
        text = parts.pop() ?? '';
        for (const one of parts) {
          const data = /^data: (.*)$/m.exec(one)?.[1];
          if (data) told.push(JSON.parse(data) as Devices);
        }
      }
    })().catch(() => undefined);
    const { status, body } = await take({ railM: [-0.05, 0.05] });
    expect(status).toBe(201);
    expect(body.names).toHaveLength(2);
    await vi.waitFor(() => expect(told.at(-1)?.taking).toBeNull());
    stop.abort();
    await reading;
    expect(told[0]?.rail.on).toBe(true);
    expect(told.map(({ taking }) => taking?.done)).toEqual([undefined, 0, 1, 2, undefined]);
    const [far, near] = await Promise.all(
      body.names.map((name) =>
        sharp(join(server.folder, 'frames', name))
          .greyscale()
          .raw()
          .toBuffer(),
      ),
    );
    expect(far?.equals(near as Buffer)).toBe(false);
    const { body: state } = await server.call<Devices>('GET', '/api/devices');
    expect(state.rail.forwardM).toBe(0.05);
    await set('rail', {});
  },
  SLOW,
);

test(
  'the live view shows what stands, and needs no flash to be fired',
  async () => {
    await camera({ seed: 5 });
    const look = () => server.call<Buffer>('GET', `/api/devices/camera/live?job=${job.id}&shot=one`);
    const { status, body } = await look();
    expect(status).toBe(200);
    expect(await sharp(body).metadata()).toMatchObject({ width: 240, format: 'webp' });
    const { body: state } = await server.call<Devices>('GET', '/api/devices');
    expect(state.camera.framesLeft).toBe(500);
    await camera({ on: false });
    expect((await look()).status).toBe(503);
    expect((await server.call('GET', '/api/devices/camera/live?job=x&shot=one')).status).toBe(400);
  },
  SLOW,
);

test(
  'the meter tells ambient from flash, and the tone of a spot from the light on it',
  async () => {
    await camera({ seed: 5 });
    const spot = demoSet('pepper').spots[0]?.name as string;
    const read = async (more: object) =>
      (
        await server.call<MeterReading>('POST', '/api/devices/meter/readings', {
          job: job.id,
          shot: 'one',
          spot,
          ...more,
        })
      ).body;
    const [incident, reflected, ambient] = [
      await read({}),
      await read({ how: 'reflected' }),
      await read({ light: 'ambient' }),
    ];
    expect(Math.abs((incident.stops ?? 9) - (incident.plannedStops ?? 0))).toBeLessThan(0.5);
    expect(reflected.plannedStops).not.toBeCloseTo(incident.plannedStops ?? 0, 1);
    // Flash alone stands there: without it the meter sees the dark.
    expect([ambient.stops, ambient.plannedStops]).toEqual([null, null]);
  },
  SLOW,
);
