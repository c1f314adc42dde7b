import { defaultKit } from '@fendrix/catalogue';
import { type Studio, setDocument, type Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { inStudio, overlaps, studioWindows, sunThrough, vector } from '../src/index.js';

const { studio: usual } = defaultKit();
if (!usual) throw new Error('the kit has a studio');
const [window] = usual.windows;
if (!window) throw new Error('its room has a window');

const withWindows = (windows: Studio['windows']): Studio => ({ ...usual, windows });
const close = (point: Vector) => point.map((value) => expect.closeTo(value, 9));

describe('the windows of a studio', () => {
  // The room is 3.4 wide, 2.8 deep, 2.4 high; the mark 1.7 from the left, 1.9 from the front, 0.75 over the floor.
  test.each([
    ['left', [-1.695, -1.9 + 1.4, 0.75], [1, 0, 0]],
    ['right', [1.695, 0.9 - 1.4, 0.75], [-1, 0, 0]],
    ['back', [-1.7 + 1.4, 0.895, 0.75], [0, -1, 0]],
    ['front', [1.7 - 1.4, -1.895, 0.75], [0, 1, 0]],
  ] as const)('in the %s wall shine from where they are, into the room', (wall, place, inward) => {
    const own = withWindows([{ ...window, wall, fromLeftM: 0.9, sillM: 0.9, widthM: 1, heightM: 1.2 }]);
    const [light] = studioWindows(own, ['B']);
    if (!light) throw new Error('there is a window');
    expect(light).toMatchObject({ kind: 'window', tag: 'B', on: true, widthM: 1, heightM: 1.2 });
    expect(light.positionM).toEqual(close([...place]));
    expect(vector.subtract(light.aimM, light.positionM)).toEqual(close([...inward]));
    const sun = sunThrough(light);
    expect(sun && vector.dot(sun.towards, [...inward])).toBeGreaterThan(0.5);
    expect(sun?.towards[2]).toBeLessThan(0);
  });

  test('stand in the walls of a set in that room without going through them', () => {
    const { room: _room, bench: _bench, backdrop: _backdrop, ...bare } = demoSet('cordial');
    const two = withWindows([window, { ...window, name: 'Door', wall: 'back', fromLeftM: 0.2 }]);
    const set = inStudio({ ...bare, lights: studioWindows(two, ['B', 'C']) }, two);
    expect(set.room).toEqual(usual.room);
    expect(set.mark.heightAboveFloorM).toBe(usual.benchHeightM);
    expect(setDocument.safeParse(set).error?.issues).toBeUndefined();
    expect(overlaps(set).filter(({ kind }) => kind === 'light')).toEqual([]);
  });

  test('beyond the letters that are free they are left out', () => {
    expect(studioWindows(withWindows([window, { ...window, name: 'Other' }]), ['Z'])).toHaveLength(1);
  });
});
