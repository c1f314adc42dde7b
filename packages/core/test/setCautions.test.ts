import { defaultKit } from '@fendrix/catalogue';
import { demoSet } from '@fendrix/demo';
import { setCautionWords } from '@fendrix/words';
import { describe, expect, test } from 'vitest';
import { lastingLoadW, mainsDraw, setCautions } from '../src/index.js';

const wordsOf = (...asked: Parameters<typeof setCautions>) => setCautions(...asked).map(setCautionWords);

import { matte, overheadSoftbox, testCamera, testSet } from './sets.js';

describe('cautions of a set', () => {
  const lamp = (more: object) =>
    overheadSoftbox(0.3, {
      positionM: [-0.6, 0, 0.3],
      aimM: [0, 0, 0.1],
      output: { kind: 'lumens', lumens: 2000 },
      colour: { temperatureK: 3000 },
      ...more,
    });
  const frost = { kind: 'translucent' as const, reflectance: 0.3, transmittance: 0.5, haze: 1 };
  const frame = {
    kind: 'frame' as const,
    tag: '1',
    name: 'Frost',
    positionM: [-0.4, 0, 0.3] as [number, number, number],
    aimM: [0, 0, 0.3] as [number, number, number],
    widthM: 0.5,
    heightM: 0.5,
    front: frost,
    back: frost,
  };

  test('a hot lamp near frost is named with its distance; an LED and one switched off are not', () => {
    expect(wordsOf(testSet({ lights: [lamp({})], sheets: [frame] })).join()).toContain(
      'A is a hot lamp 20 cm from frame 1',
    );
    expect(wordsOf(testSet({ lights: [lamp({ colour: { temperatureK: 5600 } })], sheets: [frame] }))).toEqual(
      [],
    );
    expect(wordsOf(testSet({ lights: [lamp({ on: false })], sheets: [frame] }))).toEqual([]);
  });

  test('what hangs above the table wants a line and a sandbag, a liquid wants care with cables', () => {
    expect(wordsOf(demoSet('pepper')).join()).toMatch(/^Above the table: A\. Boom/);
    expect(wordsOf(demoSet('perry')).join()).toContain('residual-current device');
    expect(wordsOf(demoSet('tart')).join()).toContain('Above the table: the camera. Boom');
  });

  test('what calls for care beside the things is named by hand; people and flash ask on their own', () => {
    const words = (more: object) => wordsOf(testSet(more)).join('\n');
    expect(words({ hazards: ['flame', 'dry-ice'] })).toMatch(
      /Open flame: .*extinguisher[\s\S]*Dry ice: .*windows open/,
    );
    expect(words({ hazards: ['spray'] })).toContain('dulling spray');
    const person = { name: 'Ida', positionM: [1, 0] as [number, number] };
    const flash = overheadSoftbox(0.3, { output: { kind: 'flash-energy', energyJ: 100 } });
    expect(words({ people: [person], lights: [flash] })).toContain('ask whether anyone is sensitive');
    expect(words({ people: [person], lights: [lamp({ colour: { temperatureK: 5600 } })] })).toBe('');
    expect(words({ people: [person], lights: [flash], hazards: ['photosensitive'] })).not.toContain(
      'ask whether',
    );
  });

  test('what hangs at head height beside the table, and a camera that is worked from a step', () => {
    const beside = (z: number, x = -1) =>
      wordsOf(
        testSet({
          bench: { widthM: 1, depthM: 1, material: matte(0.3) },
          lights: [
            lamp({
              positionM: [x, 0, z],
              aimM: [x + 1, 0, z],
              heightM: 0.2,
              colour: { temperatureK: 5600 },
            }),
          ],
        }),
      ).join();
    expect(beside(1)).toMatch(/^At head height: A\./);
    expect(beside(0.3)).toBe('');
    expect(beside(1.8)).toBe('');
    expect(beside(1, -0.3)).not.toContain('head height');
    const camera = (z: number) =>
      wordsOf(testSet({ camera: { ...testCamera(), positionM: [0, -1, z], aimM: [0, 0, z] } }));
    expect(camera(1)).toEqual([expect.stringContaining('The camera is 175 cm above the floor')]);
    expect(camera(0.5)).toEqual([]);
  });

  test('a circuit: lamps that are on and their modelling lamps are summed, what is not known is said', () => {
    const lights = [
      lamp({ tag: 'A', drawW: 2000, colour: { temperatureK: 5600 } }),
      lamp({
        tag: 'B',
        output: { kind: 'flash-energy', energyJ: 600 },
        drawW: 900,
        modelling: { lumens: 500, temperatureK: 4000, drawW: 150 },
      }),
      lamp({ tag: 'C', colour: { temperatureK: 5600 } }),
      lamp({ tag: 'D', drawW: 5000, on: false }),
    ];
    const set = testSet({ lights });
    expect(mainsDraw(set.lights)).toEqual({ watts: 3050, unknown: ['C'] });
    expect(lastingLoadW({ breakerA: 16, mainsV: 230 })).toBe(2944);
    expect(wordsOf(set, { breakerA: 16, mainsV: 230 }).join()).toContain(
      'draw 3050 W, without C, whose draw is not given; one circuit lasts 2944 W',
    );
    expect(wordsOf(set, { breakerA: 20, mainsV: 230 }).join()).not.toContain('circuit');
    expect(wordsOf(set).join()).not.toContain('circuit');
  });

  test('every light of the kit that plugs in says what it draws; hot ones are known as hot', () => {
    const lights = defaultKit().entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : []));
    const plugged = lights.filter(({ kind, output }) => kind !== 'window' && output.kind !== 'guide-number');
    expect(mainsDraw(plugged.filter(({ kind }) => kind !== 'surround')).unknown).toEqual([]);
    const builders = defaultKit().entries.find(({ id }) => id === 'builders-lamp');
    if (builders?.what !== 'light') throw new Error('the kit has a builder’s lamp');
    expect(wordsOf(testSet({ lights: [builders.thing] })).join()).toContain('is a hot lamp');
  });
});
