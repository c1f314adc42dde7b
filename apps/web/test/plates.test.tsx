// @vitest-environment jsdom
import type { Plate } from '@fendrix/contract';
import { createFilms, createPartMap, encodeSrgb, type Films, partCode, type Thing } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { maskWords, plateList } from '@fendrix/words';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { decode } from 'fast-png';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { ofFilms } from '../src/features/bench/picture/developable';
import type { FromDeveloper, LaidPlate } from '../src/features/bench/picture/developProtocol';
import { FilmDeveloper } from '../src/features/bench/picture/filmDeveloper';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';
import { plateFiles } from '../src/features/bench/picture/plateFiles';
import { PlateLayer } from '../src/features/bench/picture/plateLayer';
import { useSession } from '../src/features/bench/picture/useSession';
import PlatesDesk from '../src/features/bench/plates/PlatesDesk';
import { usePlatePointing } from '../src/features/bench/plates/usePlatePointing';
import { benchSet } from '../src/features/bench/state/benchSlice';
import { removeTake } from '../src/features/bench/state/takes';
import { edit } from '../src/features/bench/state/thunks';
import { press } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

const WIDE = 6;
const HIGH = 4;
const BOTTLE: Thing = { kind: 'product', key: 'bottle', name: 'Bottle' };
const { camera } = demoSet('bottle');

/** Films of one light that is the same everywhere. */
function evenFilms(value: number): Films {
  const films = createFilms(WIDE, HIGH, 1);
  films.data.fill(value);
  films.samples.fill(1);
  return films;
}

/** The right half of the frame is the bottle. */
function halfMap() {
  const map = createPartMap(WIDE, HIGH);
  map.part.forEach((_, i) => {
    map.part[i] = i % WIDE < WIDE / 2 ? 0 : partCode(0);
  });
  return map;
}

const grey = (value: number) => Float64Array.from([value, value, value]);
const plate = (changes: Partial<LaidPlate> = {}): LaidPlate => ({
  id: 'one',
  fileName: 'One',
  films: null,
  weights: grey(0.5),
  mask: { mask: [{ area: { by: 'products' }, leaveOut: false }], featherPart: 0 },
  camera,
  laid: true,
  ...changes,
});

describe('plates over the picture', () => {
  const under = ofFilms(evenFilms(1), WHOLE_FRAME);
  const left = 0;
  const right = 3 * (WIDE - 1);

  function layer(...plates: LaidPlate[]) {
    const own = new PlateLayer();
    own.set({ plates, camera, maskOf: null });
    own.setParts(halfMap(), [BOTTLE], WHOLE_FRAME);
    const linear = new Float32Array(WIDE * HIGH * 3).fill(0.1);
    return { own, linear };
  }

  test('the same films with other weights, where the mask takes them; the upper plate over the lower', () => {
    const { own, linear } = layer(plate(), plate({ id: 'two', weights: grey(0.7) }));
    expect(own.lay(linear, under)).toEqual({ laid: 2, onTheirWay: 0 });
    expect(linear[left]).toBeCloseTo(0.1, 6);
    expect(linear[right]).toBeCloseTo(0.7, 6);
  });

  test('one that is left out lies in no picture, but is there for its files', () => {
    const { own, linear } = layer(plate({ laid: false }));
    expect(own.lay(linear, under)).toEqual({ laid: 0, onTheirWay: 0 });
    expect(linear[right]).toBeCloseTo(0.1, 6);
    expect(own.develop(plate({ laid: false }), under)?.[right]).toBeCloseTo(0.5, 6);
  });

  test('films of its own are waited for, belong to one part of the frame, and go with the last plate that needs them', () => {
    const other = plate({ films: 'key', weights: grey(1) });
    const { own, linear } = layer(other);
    expect(own.lay(linear, under)).toEqual({ laid: 0, onTheirWay: 1 });
    own.setFilms('key', { films: evenFilms(0.3), window: { zoom: 2, left: 0, top: 0 } });
    expect(own.lay(linear, under)).toEqual({ laid: 0, onTheirWay: 1 });
    own.setFilms('key', { films: evenFilms(0.3), window: WHOLE_FRAME });
    expect(own.lay(linear, under)).toEqual({ laid: 1, onTheirWay: 0 });
    expect(linear[right]).toBeCloseTo(0.3, 6);
    own.set({ plates: [plate()], camera, maskOf: null });
    own.set({ plates: [other], camera, maskOf: null });
    expect(own.lay(linear, under)).toEqual({ laid: 0, onTheirWay: 1 });
  });

  test('a magnified picture waits for what is seen in its own part of the frame', () => {
    const { own, linear } = layer(plate());
    const magnified = ofFilms(evenFilms(1), { zoom: 2, left: 0.5, top: 0 });
    expect(own.lay(linear, magnified)).toEqual({ laid: 0, onTheirWay: 1 });
  });

  test('the mask that is looked at covers what is not taken', () => {
    const { own } = layer(plate());
    expect(own.maskPixels(under)).toBeNull();
    own.set({ plates: [plate()], camera, maskOf: 'one' });
    const pixels = own.maskPixels(under) as Uint8ClampedArray;
    expect(pixels[3]).toBeGreaterThan(100);
    expect(pixels[4 * (WIDE - 1) + 3]).toBe(0);
  });

  test('nothing is laid where there are no plates', () => {
    const own = new PlateLayer();
    expect(own.lay(new Float32Array(WIDE * HIGH * 3), under)).toBeNull();
  });
});

describe('the developer with plates', () => {
  function open() {
    const pictures: FromDeveloper[] = [];
    const developer = new FilmDeveloper((picture) => pictures.push(picture));
    const tile = { x: 0, y: 0, width: WIDE, height: HIGH };
    /** Traces a picture of one light whole. */
    const trace = (picture: number, value: number, ofPlates: string | null = null) => {
      const size = { width: WIDE, height: HIGH, channels: 1, stokes: 1, fewest: 1, passing: true, kept: [] };
      developer.receive({ type: 'begin', picture, ...size, window: WHOLE_FRAME, ofPlates });
      const sums = new Float32Array(WIDE * HIGH * 3).fill(value);
      developer.receive({ type: 'tile', picture, tile, sums, samples: 1 });
      developer.receive({ type: 'show', picture, last: true });
    };
    return { developer, pictures, trace };
  }
  const value = (picture: FromDeveloper | undefined, pixel: number) => picture?.pixels[4 * pixel];
  const encoded = (linear: number) => Math.round(255 * encodeSrgb(linear));

  test('films of a plate never take the place of the picture of the set', () => {
    const { developer, pictures, trace } = open();
    developer.receive({ type: 'weights', weights: grey(1) });
    trace(1, 0.2);
    const laid = { plates: [plate({ films: 'key', weights: grey(1) })], camera, maskOf: null };
    developer.receive({ type: 'plates', laid });
    developer.receive({ type: 'parts', map: halfMap(), things: [BOTTLE], window: WHOLE_FRAME });
    trace(2, 0.6, 'key');
    const last = pictures.at(-1);
    expect(last).toMatchObject({ picture: 1, plates: { laid: 1, onTheirWay: 0 } });
    expect(value(last, 0)).toBe(encoded(0.2));
    expect(value(last, WIDE - 1)).toBe(encoded(0.6));
  });

  test('the files are all there or none: frame, plates, masks, all together, and the list', async () => {
    const { developer, trace } = open();
    const files = () =>
      new Promise<Blob | null>((resolve) => {
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = ({ data }) => {
          port1.close();
          resolve(data);
        };
        developer.receive({ type: 'plateFiles', list: 'the list', port: port2 });
      });
    developer.receive({ type: 'weights', weights: grey(1) });
    trace(1, 0.2);
    developer.receive({ type: 'plates', laid: { plates: [plate()], camera, maskOf: null } });
    expect(await files()).toBeNull();
    developer.receive({ type: 'parts', map: halfMap(), things: [BOTTLE], window: WHOLE_FRAME });
    expect(await files()).not.toBeNull();
  });

  test('masks and plates are of 16 bits, and straight', async () => {
    const size = { width: 2, height: 1 };
    const blob = await plateFiles(
      size,
      Float32Array.from([0, 0, 0, 0.5, 0.5, 0.5]),
      [{ name: 'Glow', linear: Float32Array.from([1, 1, 1, 0, 0, 0]), mask: Float32Array.from([0.5, 1]) }],
      new Float32Array(6),
      'the list',
    );
    const unpacked = unzipSync(new Uint8Array(await blob.arrayBuffer()));
    expect(Object.keys(unpacked).sort()).toEqual([
      '0 set as it stands.png',
      '1 Glow, mask.png',
      '1 Glow.png',
      'list.txt',
      'put together.png',
    ]);
    expect(strFromU8(unpacked['list.txt'] as Uint8Array)).toBe('the list');
    const mask = decode(unpacked['1 Glow, mask.png'] as Uint8Array);
    expect(mask).toMatchObject({ width: 2, height: 1, depth: 16, channels: 1 });
    expect([...mask.data]).toEqual([32768, 65535]);
    const base = decode(unpacked['0 set as it stands.png'] as Uint8Array);
    expect(base).toMatchObject({ depth: 16, channels: 3 });
    expect(base.data[3]).toBe(Math.round(65535 * encodeSrgb(0.5)));
  });
});

/** Points into the picture for the mask, as the lens view does. */
function Pointer() {
  const session = useSession();
  const pointer = usePlatePointing(session);
  return (
    <>
      <button type="button" onClick={() => pointer?.press(0.5, 0.6)}>
        point at the middle
      </button>
      <button type="button" onClick={() => pointer?.press(0.1, 0.2)}>
        point aside
      </button>
      <button type="button" onClick={() => pointer?.ended()}>
        lift
      </button>
    </>
  );
}

describe('the desk of the plates', () => {
  function openPlates(...args: Parameters<typeof openDemo>) {
    const bench = openDemo(...args);
    bench.show(
      <>
        <PlatesDesk />
        <Pointer />
      </>,
    );
    return { ...bench, plates: (): readonly Plate[] => bench.set().plates };
  }
  const addOne = (gives: string) => {
    fireEvent.change(screen.getByLabelText('What the new plate gives'), { target: { value: gives } });
    press(/^Add /);
  };

  test('an empty desk says what plates are for; a label plate begins with the labels', () => {
    const { plates, set } = openPlates('bottle');
    expect(screen.getByText(/What one frame cannot hold/)).toBeTruthy();
    addOne('label');
    expect(plates()).toMatchObject([{ name: 'Label', gives: 'label' }]);
    expect(maskWords(set(), plates()[0] as Plate)).toMatch(/^label of /);
    // It is said what is still to be done.
    expect(screen.getByText(/the same as the frame of the set/)).toBeTruthy();
  });

  test('a light is set otherwise for it, is as the set has it again, and both are undone', () => {
    const { plates, set, store } = openPlates('perry');
    addOne('liquid');
    fireEvent.click(screen.getByLabelText('A on for this plate'));
    const own = () => plates().at(-1)?.lights;
    expect(own()).toMatchObject([{ tag: 'A', on: true }]);
    expect(set().lights.find(({ tag }) => tag === 'A')?.on).toBe(false);
    expect(screen.queryByText(/the same as the frame of the set/)).toBeNull();
    press('A as the set has it');
    expect(own()).toEqual([]);
    act(() => void store.dispatch(benchSet.undo()));
    expect(own()).toHaveLength(1);
  });

  test('a part pointed at in the picture goes into the mask, another is left out', async () => {
    const { plates } = openPlates('bottle');
    addOne('other');
    press('a label, liquid, cap');
    press('point at the middle');
    await waitFor(() => expect(plates()[0]?.mask).toHaveLength(1));
    expect(plates()[0]?.mask[0]?.area).toMatchObject({ by: 'part', product: 'bottle' });
    fireEvent.change(screen.getByLabelText('Add or leave out'), { target: { value: 'out' } });
    press('a whole thing');
    press('point aside');
    await waitFor(() => expect(plates()[0]?.mask).toHaveLength(2));
    expect(plates()[0]?.mask[1]).toMatchObject({ leaveOut: true, area: { by: 'thing' } });
    press(/^Remove .*(?:the background|the table|light|wall|room)/);
    expect(plates()[0]?.mask).toHaveLength(1);
  });

  test('a stroke of the brush is undone whole, the next one by itself', () => {
    const { plates, store } = openPlates('bottle');
    addOne('other');
    press('paint');
    press('point at the middle');
    press('point aside');
    press('lift');
    press('point at the middle');
    const dabs = () => plates()[0]?.mask[0]?.area as { strokes: unknown[] } | undefined;
    expect(dabs()?.strokes).toHaveLength(3);
    act(() => void store.dispatch(benchSet.undo()));
    expect(dabs()?.strokes).toHaveLength(2);
    act(() => void store.dispatch(benchSet.undo()));
    expect(dabs()).toBeUndefined();
  });

  test('a gradient takes two presses', () => {
    const { plates } = openPlates('bottle');
    addOne('ground');
    press('a gradient');
    press('point at the middle');
    expect(plates()[0]?.mask).toHaveLength(1);
    press('point aside');
    expect(plates()[0]?.mask[1]?.area).toEqual({
      by: 'gradient',
      fromPoint: { across: 0.5, down: 0.6 },
      toPoint: { across: 0.1, down: 0.2 },
    });
  });

  test('focus steps hold the products from front to back; where they are too many none is added', () => {
    const { plates } = openPlates('mill', (set) => ({ ...set, camera: { ...set.camera, fNumber: 16 } }));
    addOne('focus');
    const distances = plates().map(({ focusM }) => focusM as number);
    expect(distances.length).toBeGreaterThan(1);
    expect([...distances].sort((a, b) => a - b)).toEqual(distances);
    expect(new Set(plates().map(({ id }) => id)).size).toBe(plates().length);
    expect(plates().every(({ mask }) => mask[0]?.area.by === 'sharpest')).toBe(true);
  });

  test('order, leaving out, removing, and a take that is removed under a plate', () => {
    const { plates, store } = openPlates('perry');
    addOne('ground');
    press('Lay Rims higher');
    expect(plates().map(({ name }) => name)).toEqual(['Ground', 'Rims']);
    fireEvent.click(screen.getByLabelText('Lay Rims into the picture'));
    expect(plates()[1]?.laid).toBe(false);
    act(() => void store.dispatch(edit(removeTake('glass-plate'))));
    expect(plates()[1]?.takeId).toBeUndefined();
    press('Remove');
    expect(plates().map(({ name }) => name)).toEqual(['Rims']);
  });
});

describe('the list that goes with the files', () => {
  test('says of each plate how it is taken, where it goes, and what is wrong with it', () => {
    const set = demoSet('perry');
    const [rims] = set.plates as [Plate];
    const list = plateList({ ...set, plates: [rims, { ...rims, id: 'x', name: 'Near', focusM: 0.9 }] });
    expect(list).toContain('1  Rims: outline and rims');
    expect(list).toMatch(/lights: A off, B 1\/4 −0\.4, C 1\/32, D off/);
    expect(list).toContain('all products, without liquid of Perry in a stemmed glass');
    expect(list).toMatch(/! Focused elsewhere, everything is [\d.]+ % larger/);
  });

  test('without plates it is the frame of the set alone', () => {
    expect(plateList(demoSet('tart'))).not.toContain('\n1  ');
  });
});
