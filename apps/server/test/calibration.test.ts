import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  type ApiError,
  type Calibration,
  type CalibrationHour,
  type CardOfFrame,
  type CardReading,
  type Devices,
  type FrameList,
  type PrintedWedge,
  type StoredJob,
  type StoredKit,
  standInCamera,
} from '@fendrix/contract';
import { fitPrinter, type HourStep, hourSteps, type KitLight, ownPrinter, ownRecorder } from '@fendrix/core';
import sharp, { type Sharp } from 'sharp';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { startTestServer } from './testServer.js';

const PIECES = 7;
const SLOW = 90_000;

let server: Awaited<ReturnType<typeof startTestServer>>;
let hour: CalibrationHour;
let steps: HourStep[];
let folder: string;

beforeAll(async () => {
  server = await startTestServer();
  folder = join(server.folder, 'frames');
  const { document } = (await server.call<StoredKit>('GET', '/api/kit')).body;
  const entry = document.entries.find(({ id }) => id === 'softbox-60x90');
  if (entry?.what !== 'light') throw new Error('the kit has no such light');
  hour = {
    body: 'body',
    lens: 'lens',
    focalLengthM: 0.1,
    whiteBalanceK: 5500,
    cardReflectance: 0.18,
    lights: [entry.id],
    readings: [],
  };
  steps = hourSteps(hour, [{ entry: entry.id, light: entry.thing as KitLight }], {});
  await server.call<Devices>(
    'PUT',
    '/api/devices/camera',
    standInCamera.parse({ on: true, piecesSeed: PIECES }),
  );
});
afterAll(() => server.stop());

/** A step as the stand-ins do it. */
async function readStep({ for: what, id, ...at }: HourStep): Promise<CardReading> {
  const { readings: _, ...plan } = hour;
  const answer = await server.call<Pick<CardReading, 'rgb' | 'luxSeconds' | 'frame'>>(
    'POST',
    '/api/calibration/stand-in',
    { hour: plan, by: what === 'meter' ? 'meter' : 'frame', ...at },
  );
  expect(answer.status, JSON.stringify([answer.body, what, at])).toBe(200);
  return { id, ...at, ...answer.body };
}

describe('an hour with the stand-ins', () => {
  test(
    'finds what camera and lens are off by; frames lie in the watched folder and are read from it',
    async () => {
      const readings: CardReading[] = [];
      for (const step of steps) readings.push(await readStep(step));
      const { status, body } = await server.call<Calibration>('POST', '/api/calibration/fits', {
        ...hour,
        readings,
      });
      expect(status).toBe(200);
      const truth = ownRecorder(PIECES);
      const held = [
        [body.isoStops, truth.response.isoStops],
        [body.slope, truth.response.slope],
        [body.cornerStops, truth.cornerStops],
        [body.veilPart, truth.veilPart],
      ] as const;
      for (const [fitted, value] of held) {
        expect(fitted).not.toBeNull();
        expect(Math.abs((fitted?.value ?? 99) - value)).toBeLessThan(3 * (fitted?.error ?? 0));
      }
      expect(body.lights[0]?.outputStops.error).toBeLessThan(0.15);
      expect(body.readings).toHaveLength(readings.length);

      const { id: _, for: __, ...at } = steps[0] as HourStep;
      const { readings: ___, ...plan } = hour;
      const told = await server.call<CardReading>('POST', '/api/calibration/stand-in', {
        hour: plan,
        by: 'frame',
        ...at,
      });
      const newest = await server.call<CardOfFrame>('POST', '/api/calibration/newest', { place: 'middle' });
      expect(newest.body.frame).toBe(told.body.frame);
      expect(newest.body.rgb).toEqual(told.body.rgb);
      expect(Math.log2((newest.body.fNumber as number) / at.fNumber)).toBeCloseTo(0, 1);
    },
    SLOW,
  );

  test('frames of the card are of no job, whichever job frames come to afterwards', async () => {
    const [step] = steps as [HourStep];
    const reading = await readStep(step);
    const { revision, document } = (await server.call<StoredKit>('GET', '/api/kit')).body;
    await server.call('PUT', '/api/kit', {
      revision,
      document: { ...document, calibration: { ...hour, readings: [reading] } },
    });
    const total = async (query: string) =>
      (await server.call<FrameList>('GET', `/api/frames?${query}`)).body.frames.filter(
        ({ name }) => name === reading.frame,
      ).length;
    await vi.waitFor(async () => expect(await total('limit=500')).toBe(1), { timeout: 20_000 });
    const job = await server.call<StoredJob>('POST', '/api/jobs', {
      document: { format: 'fendrix-job', version: 1, name: 'After the hour' },
    });
    await server.call('PUT', '/api/frames/to', { job: job.body.id });
    expect(await total(`job=${job.body.id}&limit=500`)).toBe(0);
    await server.call('PUT', '/api/frames/to', { job: null });
  });

  test('a picture without a card, a burnt one and none at all are refused in words', async () => {
    const put = async (name: string, picture: Sharp) =>
      writeFileSync(join(folder, name), await picture.jpeg().toBuffer());
    const flat = (level: number) =>
      sharp({
        create: { width: 60, height: 40, channels: 3, background: { r: level, g: level, b: level } },
      });
    const newest = (more: object = {}) =>
      server.call<ApiError>('POST', '/api/calibration/newest', { place: 'middle', ...more });
    await put('burnt.jpg', flat(255));
    expect((await newest()).body.error.message).toContain('burnt');
    await put('dark.jpg', flat(0));
    expect((await newest()).body.error.message).toContain('black');
    const half = Buffer.alloc(60 * 40 * 3);
    for (let i = 0; i < half.length; i++) half[i] = Math.floor(i / 3) % 60 < 30 ? 20 : 200;
    await put('edge.jpg', sharp(half, { raw: { width: 60, height: 40, channels: 3 } }));
    expect((await newest()).body.error.message).toContain('no even card');
    writeFileSync(join(folder, 'torn.jpg'), 'no picture');
    expect((await newest()).status).toBe(400);
    const none = await newest({ after: '2999-01-01T00:00:00.000Z' });
    expect(none.status).toBe(404);
    expect(none.body.error.hint).toContain(folder);
  });

  test('lights that the kit has not, and lights that throw a pattern, are named', async () => {
    const fit = (lights: string[]) =>
      server.call<ApiError>('POST', '/api/calibration/fits', { ...hour, lights });
    expect((await fit(['none'])).body.error.message).toContain('“none”');
    const { document } = (await server.call<StoredKit>('GET', '/api/kit')).body;
    const projector = document.entries.find(
      (entry) => entry.what === 'light' && entry.thing.kind === 'projector',
    );
    expect((await fit([projector?.id ?? ''])).body.error.message).toContain(projector?.name);
    expect((await server.call('POST', '/api/calibration/fits', { lights: [] })).status).toBe(400);
  });

  test('the wedge comes as PDF of either paper; the stand-ins read that of their printer, never twice alike', async () => {
    const pdf = async (query: string) =>
      fetch(`http://127.0.0.1:${server.port}/api/calibration/wedge${query}`);
    const found = await pdf('?paper=Letter');
    expect(found.headers.get('content-type')).toBe('application/pdf');
    expect(
      Buffer.from(await found.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect((await pdf('?paper=A5')).status).toBe(400);
    const read = () =>
      server.call<PrintedWedge>('POST', '/api/calibration/stand-in-wedge', { cardReflectance: 0.18 });
    const [one, other] = [(await read()).body, (await read()).body];
    expect(one).not.toEqual(other);
    const printed = ownPrinter(PIECES);
    for (const wedge of [one, other])
      for (const { grey, reflectance } of fitPrinter(wedge, ownRecorder(PIECES).response)?.tones ?? [])
        expect(Math.abs(Math.log2(reflectance / printed(grey)))).toBeLessThan(0.1);
    expect(
      (await server.call('POST', '/api/calibration/stand-in-wedge', { cardReflectance: 2 })).status,
    ).toBe(400);
  });

  test('a kit keeps its printer; a curve that is none is refused by its field', async () => {
    const { document, revision } = (await server.call<StoredKit>('GET', '/api/kit')).body;
    const tones = [0, 128, 255].map((grey) => ({ grey, reflectance: 0.04 + grey / 400, error: 0.001 }));
    const put = (printer: object) =>
      server.call<StoredKit & ApiError>('PUT', '/api/kit', { revision, document: { ...document, printer } });
    const refused = await put({ calibrated: { on: '2026-03-01', tones: [{ ...tones[0], reflectance: 7 }] } });
    expect(refused.status).toBe(400);
    expect(JSON.stringify(refused.body)).toContain('printer');
    const kept = await put({ calibrated: { on: '2026-03-01', tones } });
    expect(kept.body.document.printer?.calibrated?.tones).toEqual(tones);
  });
});
