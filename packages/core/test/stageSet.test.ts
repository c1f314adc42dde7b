import { defaultKit } from '@fendrix/catalogue';
import { type AimedLight, checkDocument, type Light, setDocument } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  checkPlace,
  cornersOf,
  cropRect,
  incidentExposureLxS,
  isUpright,
  kitCheck,
  lightLuminance,
  onAxisLx,
  outlineOf,
  productBounds,
  stageSet,
  turnedBody,
  viewOf,
} from '../src/index.js';

const job = demoJob(() => '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11');
const { studio } = defaultKit();
const shotOf = (id: string) => {
  const shot = job.shots.find((candidate) => candidate.id === id);
  if (!shot?.framing) throw new Error(`the demo job has a picture ${id}`);
  return { shot, framing: shot.framing };
};

describe('a first set for a picture', () => {
  test('begins with the plates that were noted for it, each with the mask that goes with its name', () => {
    const { shot, framing } = shotOf('cordial');
    const noted = { ...shot, plates: ['label', 'Liquid', 'drops on the neck'] };
    const { plates } = stageSet(job, noted, framing, studio).set;
    expect(plates.map(({ name, gives }) => [name, gives])).toEqual([
      ['Label', 'label'],
      ['Liquid', 'liquid'],
      ['Drops on the neck', 'other'],
    ]);
    expect(plates[0]?.mask.map(({ area }) => area.by)).toEqual(['part', 'part', 'part', 'part']);
    expect(plates[2]?.mask).toEqual([]);
  });

  test.each(['cordial', 'mill', 'tart', 'mould'])('%s: a valid set that works in its room', (id) => {
    const { shot, framing } = shotOf(id);
    const { set, placed, inRoom } = stageSet(job, shot, framing, studio);
    expect(set.room !== undefined).toBe(inRoom);
    const checked = checkDocument(setDocument, set);
    expect(checked.ok ? [] : checked.problems).toEqual([]);
    const bounds = productBounds(set.products[0] as (typeof set.products)[number]);
    const outline = outlineOf(viewOf(set.camera), cornersOf(bounds));
    // Centred where no format wants room for words.
    if (id === 'mill' || id === 'mould') expect((outline.left + outline.right) / 2).toBeCloseTo(0.5, 3);
    expect(placed.fits.every(({ crop }) => crop !== null)).toBe(true);
    expect(placed.heldBy).toBeNull();
    const around = { ...framing, room: studio?.room, benchHeightM: studio?.benchHeightM ?? 0 };
    const place = checkPlace(placed, around).filter(({ what }) =>
      /near-limit|room-behind|ceiling/.test(what),
    );
    expect(place.map(({ met }) => met)).toEqual(place.map(() => true));
  });

  test('several products stand beside each other without touching, round the centre', () => {
    const { shot, framing } = shotOf('cordial');
    const { set, bounds } = stageSet(
      job,
      { ...shot, products: ['bottle', 'mill', 'mould'] },
      framing,
      studio,
    );
    const boxes = set.products.map((product) => productBounds(product));
    for (let i = 1; i < boxes.length; i++) {
      expect(boxes[i]?.low[0]).toBeGreaterThan((boxes[i - 1]?.high[0] ?? 0) + 0.005);
    }
    expect(bounds.low[0] + bounds.high[0]).toBeCloseTo(0, 6);
  });

  test('the first light is set as a meter at the product asks, to a tenth of a stop', () => {
    const { shot, framing } = shotOf('mill');
    const { set } = stageSet(job, shot, { ...framing, fNumber: 5.6 }, studio);
    const [light] = set.lights;
    if (light?.kind !== 'softbox') throw new Error('the first light is a softbox');
    const away = Math.hypot(...light.positionM.map((p, a) => p - (light.aimM[a] as number)));
    const measured = lightLuminance(light).luminance * onAxisLx(light, away);
    expect(Math.abs(Math.log2(measured / incidentExposureLxS(set.camera)))).toBeLessThan(0.06);
  });

  test('a camera that the frame would put behind the wall stays in the room and says what holds it', () => {
    const { shot, framing } = shotOf('mill');
    const far = { ...framing, lens: { ...framing.lens, focalLengthM: 0.5 } };
    const { set, placed, inRoom } = stageSet(job, shot, far, studio);
    expect(inRoom).toBe(true);
    expect(placed.heldBy).toBe('room');
    expect(set.room && set.camera.positionM[1]).toBeGreaterThan(-(studio?.room.markFromFrontM ?? 0));
    expect(placed.wished.positionM[1]).toBeLessThan(-(studio?.room.markFromFrontM ?? 0));
    const around = { ...framing, room: studio?.room, benchHeightM: studio?.benchHeightM ?? 0 };
    const behind = checkPlace(placed, around).find(({ what }) => what === 'room-behind');
    expect(behind?.met).toBe(false);
    // The lens that it names does stand there.
    const named = { ...framing, lens: { ...framing.lens, focalLengthM: behind?.focalLengthM ?? 0 } };
    expect(stageSet(job, shot, named, studio).placed.heldBy).toBeNull();
  });

  test('room for words is kept by moving the products into the middle of what is free', () => {
    const { shot, framing } = shotOf('cordial');
    const banner = { ...shot, deliverables: ['banner'] };
    const { placed, set } = stageSet(job, banner, framing, studio);
    const [fit] = placed.fits;
    if (!fit?.crop || !fit.copy) throw new Error('the banner fits and has words');
    const middle = (placed.outline.left + placed.outline.right) / 2;
    const free = (fit.crop.left + fit.copy.left) / 2;
    expect(Math.abs(middle - free)).toBeLessThan(0.03);
    // All of the frame's width is used, where the products in the middle would have left half of it.
    expect(fit.scale).toBeGreaterThan(0.97);
    const crop = cropRect(set.camera, set.camera.crops[0] as (typeof set.camera.crops)[number]);
    expect(crop.left).toBeCloseTo(fit.crop.left, 3);
    expect(crop.right).toBeCloseTo(fit.crop.right, 3);
  });

  test('upright formats turn the camera; by hand it is turned back', () => {
    const { shot, framing } = shotOf('cordial');
    const story = { ...shot, deliverables: ['story'] };
    const { body } = stageSet(job, story, framing, studio).placed.camera;
    expect(body.pixelsHigh).toBeGreaterThan(body.pixelsWide);
    expect(body.sensorHeightM / body.sensorWidthM).toBeCloseTo(1.5, 6);
    const level = stageSet(job, story, { ...framing, held: 'level' }, studio).placed;
    expect(isUpright(level.camera.body)).toBe(false);
    const upright = stageSet(job, story, framing, studio).placed;
    expect(upright.fits[0]?.pixelsWide).toBeGreaterThan(1.4 * (level.fits[0]?.pixelsWide ?? 0));
    expect(turnedBody(turnedBody(body))).toEqual(body);
  });

  test('the first light is one of the kit, with its dial and duration; lasting light is exposed by the shutter', () => {
    const { shot, framing } = shotOf('mill');
    const lights = (of: readonly Light[]) => stageSet(job, shot, framing, studio, of);
    const kit = defaultKit().entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : []));
    const { set } = lights(kit);
    expect(set.lights[0]).toMatchObject({ dial: {}, duration: {}, name: kit[0]?.name });
    expect(kitCheck(set, defaultKit())).toEqual([]);
    const [plain] = lights([]).set.lights;
    expect(plain).toMatchObject({ dial: {}, duration: {} });
    const panels = kit.filter(({ kind }) => kind === 'panel');
    const lamp = lights(panels).set;
    expect(lamp.lights[0]).toMatchObject({ kind: 'panel', powerStops: 0 });
    const light = lamp.lights[0] as AimedLight;
    const away = Math.hypot(...light.positionM.map((p, a) => p - (light.aimM[a] as number)));
    const lx = lightLuminance(light).luminance * onAxisLx(light, away);
    expect(Math.abs(Math.log2((lx * lamp.camera.shutterS) / incidentExposureLxS(lamp.camera)))).toBeLessThan(
      0.2,
    );
  });

  test('a product that is not there is refused', () => {
    const { shot, framing } = shotOf('mill');
    expect(() => stageSet(job, { ...shot, products: ['nothing'] }, framing, studio)).toThrow(/no product/);
  });
});
