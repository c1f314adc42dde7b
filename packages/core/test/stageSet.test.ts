import { defaultKit } from '@fendrix/catalogue';
import { checkDocument, setDocument } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  cornersOf,
  incidentExposureLxS,
  lightLuminance,
  onAxisLx,
  outlineOf,
  productBounds,
  stageSet,
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
  test.each(['cordial', 'mill', 'tart', 'mould'])('%s: a valid set with the product centred', (id) => {
    const { shot, framing } = shotOf(id);
    const { set, placed, inRoom } = stageSet(job, shot, framing, studio);
    expect(set.room !== undefined).toBe(inRoom);
    const checked = checkDocument(setDocument, set);
    expect(checked.ok ? [] : checked.problems).toEqual([]);
    const bounds = productBounds(set.products[0] as (typeof set.products)[number]);
    const outline = outlineOf(viewOf(set.camera), cornersOf(bounds));
    expect((outline.left + outline.right) / 2).toBeCloseTo(0.5, 3);
    expect(placed.fits.every(({ crop }) => crop !== null)).toBe(true);
  });

  test('several products stand beside each other without touching, round the mark', () => {
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

  test('a camera that would stand behind the wall leaves the room out and says so', () => {
    const { shot, framing } = shotOf('mill');
    const far = { ...framing, lens: { ...framing.lens, focalLengthM: 0.5 } };
    expect(stageSet(job, shot, far, studio).inRoom).toBe(false);
    expect(stageSet(job, shot, framing, studio).inRoom).toBe(true);
  });

  test('a product that is not there is refused', () => {
    const { shot, framing } = shotOf('mill');
    expect(() => stageSet(job, { ...shot, products: ['nothing'] }, framing, studio)).toThrow(/no product/);
  });
});
