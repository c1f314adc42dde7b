import type { SetDocument } from '@fendrix/contract';
import { brokenSets, soundSets } from '@fendrix/demo/broken';
import { describe, expect, test } from 'vitest';
import { prepareTracing, reportFault, traceView } from '../src/index.js';

const trace = (set: SetDocument) => traceView(prepareTracing(set), set, { samples: 1 });
const broken = brokenSets().find(({ code }) => code === 'thing-in-frame');
if (!broken) throw new Error('there is one');
const report = (set: SetDocument, code: string, cause: string | null) =>
  reportFault(set, { code, cause }, { trace, check: null });

describe('the report on a known fault', () => {
  test('is found with its own cause, not with another', () => {
    expect(report(broken.set, broken.code, broken.cause)).toEqual({ rank: 0, found: true, cured: null });
    expect(report(broken.set, broken.code, 'Z').found).toBe(false);
  });

  test('a fault that is not there is not found, nor cured', () => {
    const [sound] = soundSets();
    if (!sound) throw new Error('there is one');
    const none = reportFault(sound.set, { code: 'thing-in-frame', cause: null }, { trace, check: trace });
    expect(none).toEqual({ rank: -1, found: false, cured: false });
  });

  test('told too late in the list it does not count as found', () => {
    const { set } = broken;
    // Three graver faults come before a small one.
    const worse = {
      ...set,
      camera: { ...set.camera, shutterS: 1 / 2000, focusM: 3, fNumber: 2, iso: 12, rollDeg: 0.5 },
    };
    const small = report(worse, 'tilted', null);
    expect(small.rank).toBeGreaterThan(1);
    expect(small.found).toBe(false);
  });
});

test('seeds that are shifted are other sets of the same faults', { tags: ['more'] }, () => {
  const [one, other] = [brokenSets(), brokenSets(7)];
  expect(other.map(({ code }) => code)).toEqual(one.map(({ code }) => code));
  const some = one.map((_, i) => i).filter((i) => i % 5 === 0);
  const same = some.filter((i) => JSON.stringify(one[i]?.set) === JSON.stringify(other[i]?.set));
  expect(same.length).toBe(0);
});
