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

test(
  'it takes what really stands: a wrong power is found in the frame, and by how much',
  async () => {
    await camera({ seed: 5, powerStops: { A: -0.8 }, framesLeft: 7 });
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
    expect(Math.abs((light?.stops ?? 9) + 0.8)).toBeLessThan(0.3);
    expect(Math.abs(told.body.shift?.rightM.value ?? 9)).toBeLessThan(0.006);
    expect(told.body.spots.length).toBe(demoSet('pepper').spots.length);
    const plan = await server.call<Buffer>('GET', `/api/frames/${own?.id}/plan`);
    expect((await sharp(plan.body).metadata()).width).toBe(480);
  },
  SLOW,
);

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
