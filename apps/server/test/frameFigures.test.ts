import type { FrameFigures, Light, SetDocument } from '@fendrix/contract';
import {
  decodeSrgb,
  type Films,
  frameFigures,
  recordFrame,
  type SeriesCode,
  type SeriesFigure,
  seriesMatch,
} from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { afterAll, describe, expect, test } from 'vitest';
import { createSetLight, developed, type SetLight, sizeOf } from '../src/devices/setLight.js';

/** Traces pictures on a machine that may be busy. */
const SLOW = 120_000;
const light: SetLight = createSetLight();
afterAll(() => light.close());

const planned = new Map<SetDocument, Promise<Films>>();
function plannedOf(plan: SetDocument): Promise<Films> {
  const known = planned.get(plan) ?? light.films(plan, sizeOf(plan, 240), 4, 1);
  planned.set(plan, known);
  return known;
}

/** What a frame of a set that stands otherwise than planned shows. */
async function read(plan: SetDocument, real: SetDocument, seed = 3): Promise<FrameFigures> {
  const size = sizeOf(plan, 240);
  const grid = { width: 80, height: 53 };
  const [traced, taken, bands, { parts, things }] = await Promise.all([
    plannedOf(plan),
    light.films(real, size, 4, seed),
    light.bands(plan),
    light.parts(plan, grid),
  ]);
  const rgb = recordFrame(developed(real, taken), size.width, size.height, real.camera.iso, seed);
  const found = frameFigures({
    set: plan,
    ...size,
    frame: Float32Array.from(rgb, (value) => decodeSrgb(value / 255)),
    plan: developed(plan, traced),
    bands,
    parts,
    things,
  });
  if (!found) throw new Error('no product was seen');
  return found;
}

const figure = (all: readonly SeriesFigure[], code: SeriesCode): SeriesFigure =>
  all.find((own) => own.code === code) as SeriesFigure;
const withCamera = (set: SetDocument, changes: Partial<SetDocument['camera']>): SetDocument => ({
  ...set,
  camera: { ...set.camera, ...changes },
});
const moved = (set: SetDocument, [x, y, z]: [number, number, number]): SetDocument => ({
  ...set,
  products: set.products.map((product) => ({
    ...product,
    positionM: [product.positionM[0] + x, product.positionM[1] + y, product.positionM[2] + z],
  })),
});

describe('figures of a frame', () => {
  const mill = demoSet('mill');
  let first: FrameFigures;

  test(
    'of the same set again are alike',
    async () => {
      first = await read(mill, mill);
      const again = seriesMatch(await read(mill, mill, 8), first);
      expect(again.filter(({ isOff }) => isOff)).toEqual([]);
      for (const code of [
        'size',
        'base-line',
        'place',
        'ground-tone',
        'white',
        'colour',
        'highlight',
      ] as const)
        expect(figure(again, code).off, code).not.toBeNull();
    },
    SLOW,
  );

  test(
    'tell a product that stands aside and less light, each with what brings it back',
    async () => {
      const aside = seriesMatch(await read(mill, moved(mill, [0.004, 0, 0])), first);
      const place = figure(aside, 'place');
      expect((place.off as number) * first.frameWidthM).toBeCloseTo(0.004, 3);
      const dimmed: SetDocument = {
        ...mill,
        lights: mill.lights.map((own): Light => ({ ...own, powerStops: own.powerStops - 0.5 })),
      };
      const dark = figure(seriesMatch(await read(mill, dimmed), first), 'ground-tone');
      expect(dark.off).toBeCloseTo(-0.5, 1);
      expect(dark.change).toMatchObject({ code: 'more-light' });
    },
    SLOW,
  );

  test('tell a camera that came nearer and warmer light, each with what brings it back', {
    tags: ['more'],
    timeout: SLOW,
  }, async () => {
    first ??= await read(mill, mill);
    const { positionM, aimM } = mill.camera;
    const nearer = withCamera(mill, {
      positionM: positionM.map(
        (value, a) => value + 0.06 * ((aimM[a] as number) - value),
      ) as typeof positionM,
    });
    const large = figure(seriesMatch(await read(mill, nearer), first), 'size');
    expect(large.off).toBeCloseTo(-Math.log(0.94), 1);
    expect(large.isOff).toBe(true);
    const away = first.depthM * 0.06;
    expect(large.change?.code === 'camera-nearer' && large.change.byM / -away).toBeCloseTo(1, 0);

    const warmer = withCamera(mill, { whiteBalanceK: mill.camera.whiteBalanceK + 600 });
    const warm = seriesMatch(await read(mill, warmer), first);
    const white = figure(warm, 'white');
    expect(white.isOff).toBe(true);
    // The set says what the camera was to be balanced for: that much has it to go back.
    expect(white.change?.code === 'white-balance' && white.change.toK).toBeLessThan(
      mill.camera.whiteBalanceK,
    );
    expect(figure(warm, 'colour').isOff).toBe(true);
    expect(figure(warm, 'size').isOff).toBe(false);
  });

  test('tell where a shadow falls and how soft it is, on other products too', {
    tags: ['more'],
    timeout: SLOW,
  }, async () => {
    const pepper = demoSet('tart');
    const [own] = [await read(pepper, pepper)];
    const hard: SetDocument = {
      ...pepper,
      lights: pepper.lights.map((one) =>
        'positionM' in one && 'aimM' in one
          ? ({ ...one, positionM: [-one.positionM[0], one.positionM[1], one.positionM[2]] } as Light)
          : one,
      ),
    };
    const other = await read(pepper, hard);
    if (!own.shadow || !other.shadow) throw new Error(`no shadow: ${JSON.stringify([own, other])}`);
    const [a, b] = [own.shadow.towardsDeg, other.shadow.towardsDeg];
    expect(Math.sign(Math.cos((a * Math.PI) / 180))).toBe(-Math.sign(Math.cos((b * Math.PI) / 180)));
    expect(figure(seriesMatch(other, own), 'shadow-direction').isOff).toBe(true);
  });
});
