import type { Plate, ProductOf, SetDocument } from '@fendrix/contract';
import { createPartMap, type SpotTrace } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { meshProduct, trianglesIn } from '@fendrix/files';
import type { Task } from '@fendrix/workers';
import { WorkerPool, type WorkerPort } from '@fendrix/workers';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { type FigureValues, REFINED } from '../src/features/bench/figures/liveFigures';
import { NOTHING_SHOWN } from '../src/features/bench/figures/shown';
import type { FromDeveloper, ToDeveloper } from '../src/features/bench/picture/developProtocol';
import { type Developer, PictureSession, type SessionEvents } from '../src/features/bench/picture/session';
import { changeCamera, changeLight, moveThing, pinSpot } from '../src/features/bench/state/edits';
import { soon } from './soon';

const set = demoSet('cordial');

/** A trace of two parts that differ by twice `spread`, of one film of light. */
function readTwice(name: string, pointM: SpotTrace['pointM'], samples: number, spread = 0): SpotTrace {
  const grey = (value: number): [number, number, number] => [value, value, value];
  const seenParts = [1 - spread, 1 + spread].map((value) => set.lights.map(() => grey(value)));
  const illuminance = set.lights.map(() => ({ direct: 1, indirect: 0, standardError: 0 }));
  return {
    name,
    pointM,
    illuminance,
    seen: set.lights.map(() => grey(1)),
    seenParts,
    seenBaked: set.lights.map(() => grey(1)),
    samples,
  };
}

/** What a worker would answer, without the work. */
function emptyAnswer(task: Task, spread: number): unknown {
  switch (task.kind) {
    case 'tile':
      return new Float32Array(task.job.tile.width * task.job.tile.height * 3);
    case 'gather':
      return { gathered: {} };
    case 'solve':
    case 'keep':
      return {};
    case 'send':
      return new Float32Array(0);
    case 'ambient':
      return [0.1];
    case 'touched':
      return [0];
    case 'spots':
      return task.spots.map(({ name, pointM }) => readTwice(name, pointM, task.samples, spread));
    case 'parts':
      return createPartMap(task.tile.width, task.tile.height);
    case 'features':
    case 'mirror':
    case 'pick':
    case 'profile':
    case 'zones':
      return null;
    default:
      return [];
  }
}

/** @param slow what takes half a second, the others a millisecond */
function open({ refuses = (): string => '', spare = 0, spread = 0, slow = '' } = {}) {
  const tasks: Task[] = [];
  /** What the second worker, the spare one, was given. */
  const helped: Task[] = [];
  let workers = 0;
  const told: ToDeveloper[] = [];
  /** Sets that the workers were given. */
  const holds: SetDocument[] = [];
  const statuses: object[] = [];
  const failures: string[] = [];
  const picks: unknown[] = [];
  const read: { samples: number[]; settled: boolean }[] = [];
  let bands = 0;
  /** Figures as they were told. */
  const order: string[] = [];
  const spawn = (): WorkerPort => {
    let answer: Parameters<WorkerPort['onMessage']>[0] = () => undefined;
    const own = workers++;
    return {
      post(message) {
        if (message.type === 'hold') holds.push(message.set);
        if (message.type !== 'task') return;
        tasks.push(message.task);
        if (own > 0) helped.push(message.task);
        const refused = { type: 'failed' as const, id: message.id, message: refuses() };
        if (refuses() !== '') setTimeout(() => answer(refused), 1);
        else
          setTimeout(
            () =>
              answer({
                type: 'done',
                id: message.id,
                result: emptyAnswer(message.task, spread) as never,
                rays: 1,
              }),
            message.task.kind === slow ? 500 : 1,
          );
      },
      onMessage: (listener) => {
        answer = listener;
      },
      onCrash: () => undefined,
      terminate: () => undefined,
    };
  };
  let developed: (event: MessageEvent<FromDeveloper>) => void = () => undefined;
  const developer: Developer = {
    postMessage: (message: ToDeveloper) => {
      told.push(message);
      const show = (picture: number, width: number, quick: boolean, whole: boolean) => {
        const data = { picture, width, quick, whole } as FromDeveloper;
        setTimeout(() => developed({ data } as MessageEvent<FromDeveloper>), 1);
      };
      if (message.type === 'quick') show(message.picture, message.width, true, true);
      if (message.type !== 'show') return;
      // The last time it is whole, before it some tiles of it.
      const { picture, last } = message;
      const begun = told.find((one) => one.type === 'begin' && one.picture === picture);
      show(picture, (begun as ToDeveloper & { type: 'begin' }).width, false, last);
    },
    terminate: () => undefined,
    addEventListener: (_, listener) => {
      developed = listener;
    },
  };
  const events: SessionEvents = {
    picture: () => undefined,
    figure: (name, value) => {
      if (name === 'pick') picks.push(value);
      if (name === 'bands') bands++;
      if (name !== 'spots') {
        order.push(name);
        return;
      }
      const { traces, settled } = value as FigureValues['spots'];
      order.push(`spots ${traces[0]?.samples}`);
      read.push({ samples: traces.map(({ samples }) => samples), settled });
    },
    status: (changes) => void statuses.push(changes),
    crash: () => undefined,
    failure: (reason) => void failures.push(reason),
  };
  const session = new PictureSession(events, new WorkerPool(spawn, 1, { spare }), developer);
  // Small: each tile of it is a question here.
  session.resize(200);
  sessions.push(session);
  const kinds = () => tasks.splice(0).map(({ kind }) => kind);
  return {
    session,
    tasks,
    holds,
    helped,
    told,
    statuses,
    failures,
    picks,
    read,
    kinds,
    order,
    bandsTold: () => bands,
  };
}

const sessions: PictureSession[] = [];
afterEach(() => {
  vi.useRealTimers();
  for (const session of sessions.splice(0)) session.close();
});

const phaseOf = (statuses: readonly object[]) => statuses.findLast((status) => 'phase' in status);
const pass = (milliseconds: number) => vi.advanceTimersByTimeAsync(milliseconds);
const moved = (y: number): SetDocument => moveThing({ kind: 'light', key: 'A' }, [-0.6, y, 0.4])(set);

/** The set with a wavy sheet of 24 200 triangles for its product. */
function withLargeMesh(): SetDocument {
  const n = 110;
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let row = 0; row <= n; row++) {
    for (let column = 0; column <= n; column++) {
      positions.push(column / 1000, row / 1000, 0.01 + 0.003 * Math.sin(column / 9) * Math.cos(row / 7));
      if (row === n || column === n) continue;
      const p = row * (n + 1) + column;
      triangles.push(p, p + 1, p + n + 1, p + 1, p + n + 2, p + n + 1);
    }
  }
  const mesh = meshProduct('sheet', 'Wavy sheet', {
    positions: Float32Array.from(positions),
    triangles: Uint32Array.from(triangles),
    parts: [],
    sizeM: [0.11, 0.11, 0.013],
  });
  return { ...set, products: [mesh], spots: [], takes: [] };
}

const label: Plate = {
  id: 'label',
  name: 'Label',
  gives: 'label',
  note: '',
  lights: [{ tag: 'A', on: true, powerStops: -3 }],
  mask: [{ area: { by: 'products' }, leaveOut: false }],
  featherPart: 0.003,
  laid: true,
};

describe('picture session', () => {
  test('a moved set is followed by a quick picture, then refined to the whole light', async () => {
    vi.useFakeTimers();
    const { session, tasks, statuses } = open();
    session.update(set);
    await pass(100);
    const quick = tasks.filter((task) => task.kind === 'tile');
    expect(quick.length).toBeGreaterThan(0);
    expect(quick.every((task) => task.job.samples === 1 && task.job.ambient?.length === 1)).toBe(true);
    expect(tasks.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['ambient', 'bands', 'spots']));
    await pass(60_000);
    const last = tasks.findLast((task) => task.kind === 'tile');
    expect(last?.kind === 'tile' && last.job.ambient).toBeUndefined();
    // The same features serve the quick and the whole picture of a rest.
    const features = tasks.filter((task) => task.kind === 'features').map((task) => JSON.stringify(task));
    expect(features.length).toBeGreaterThan(0);
    expect(new Set(features).size).toBe(features.length);
    expect(phaseOf(statuses)).toMatchObject({ phase: 'done', progress: 1 });
  });

  test('the whole light is there at once in a small picture, before figures and the picture at full size', async () => {
    vi.useFakeTimers();
    const { session, tasks, told } = open({ spare: 1 });
    session.resize(600);
    session.update(set);
    await pass(60_000);
    const begun = told.filter((message) => message.type === 'begin').filter(({ fewest }) => fewest > 1);
    expect(begun.map(({ width, passing }) => [width, passing])).toEqual([
      [216, true],
      [600, false],
    ]);
    const kinds = tasks.map(({ kind }) => kind);
    const firstWhole = tasks.findIndex((task) => task.kind === 'tile' && !task.job.ambient);
    expect(kinds.indexOf('keep')).toBeLessThan(firstWhole);
    expect(firstWhole).toBeLessThan(kinds.indexOf('view'));
  });

  test('the small picture is shown as soon as two samples of it are there, and once more when it is whole', async () => {
    vi.useFakeTimers();
    const { session, told } = open({ spare: 1 });
    session.update(set);
    await pass(60_000);
    const first = told.find((message) => message.type === 'begin' && message.fewest === 2 && message.passing);
    const of = (type: ToDeveloper['type']) =>
      told.filter(
        (message) =>
          message.type === type &&
          'picture' in message &&
          'picture' in (first ?? {}) &&
          message.picture === (first as { picture: number }).picture,
      );
    const [begins, ...later] = of('show');
    const tiles = of('tile');
    expect(tiles.every((message) => message.type === 'tile' && message.samples === 2)).toBe(true);
    expect(later.at(-1)).toMatchObject({ last: true });
    const before = told
      .slice(0, told.indexOf(begins as ToDeveloper))
      .filter((message) => tiles.includes(message));
    expect(before).toHaveLength(tiles.length / 2);
  });

  test('baking does not wait for figures of the picture that followed, and figures at rest come after them', async () => {
    vi.useFakeTimers();
    const { session, tasks, order } = open({ spare: 1, slow: 'bands' });
    session.update(set);
    await pass(450);
    const kinds = tasks.map(({ kind }) => kind);
    expect(kinds).toContain('gather');
    expect(order).not.toContain('bands');
    await pass(60_000);
    // In full detail they are sure.
    expect(order.indexOf('bands')).toBeLessThan(order.indexOf('spots 2048'));
  });

  test('a size that becomes known while light is baked begins nothing anew', async () => {
    vi.useFakeTimers();
    const { session, told, tasks, statuses } = open({ spare: 1, slow: 'solve' });
    session.update(set);
    await pass(500);
    expect(tasks.map(({ kind }) => kind)).toContain('solve');
    session.resize(600);
    await pass(60_000);
    const begun = told.filter((message) => message.type === 'begin').filter(({ fewest }) => fewest > 1);
    expect(begun.map(({ width }) => width)).toEqual([216, 600]);
    expect(
      statuses.filter(
        (status) =>
          'phase' in status && status.phase === 'refining' && 'progress' in status && status.progress === 0,
      ),
    ).toHaveLength(1);
  });

  test('light is baked once for a rest, not again for another size, another power or another camera', async () => {
    vi.useFakeTimers();
    const { session, kinds } = open({ spare: 1 });
    session.update(set);
    await pass(400);
    session.resize(300);
    await pass(60_000);
    expect(kinds().filter((kind) => kind === 'keep')).toHaveLength(1);
    session.update(changeCamera({ focusM: 1.1 })(set));
    await pass(60_000);
    expect(kinds()).not.toContain('gather');
    session.update(moved(-0.4));
    await pass(60_000);
    expect(kinds().filter((kind) => kind === 'keep')).toHaveLength(1);
  });

  test('whole paths are traced anew when wanted, and lightmaps again when not', async () => {
    vi.useFakeTimers();
    const { session, tasks } = open();
    session.update(set);
    await pass(60_000);
    for (const wholePaths of [true, false]) {
      tasks.length = 0;
      session.show({ ...NOTHING_SHOWN, wholePaths });
      await pass(60_000);
      const tiles = tasks.flatMap((task) => (task.kind === 'tile' ? [task.job] : []));
      expect(tiles.length).toBeGreaterThan(0);
      expect(tiles.every((job) => (job.wholePaths ?? false) === wholePaths && !job.channels)).toBe(true);
    }
  });

  test('tells when the picture at full size is there, and that one that follows is none', async () => {
    vi.useFakeTimers();
    const { session, statuses } = open();
    const awaited = () =>
      statuses
        .flatMap((status) => ('awaited' in status ? [status.awaited] : []))
        .filter((now, i, all) => now !== all[i - 1]);
    session.resize(600);
    session.update(set);
    await pass(60_000);
    expect(awaited()).toEqual([true, false]);
    session.update(moved(-0.5));
    await pass(1);
    expect(awaited()).toEqual([true, false, true]);
    await pass(60_000);
    expect(awaited()).toEqual([true, false, true, false]);
  });

  test('a large mesh is followed by a stand-in; when things rest the set itself is traced, and only that is read', async () => {
    const large = withLargeMesh();
    const { session, tasks, holds, statuses, bandsTold } = open();
    const trianglesHeld = () => holds.map(({ products }) => trianglesIn(products[0] as ProductOf<'mesh'>));
    session.update(large);
    await soon(() => expect(tasks.some(({ kind }) => kind === 'tile')).toBe(true), 5000);
    session.update(moveThing({ kind: 'light', key: 'A' }, [-0.6, -0.2, 0.4])(large));
    expect(trianglesHeld().every((count) => count <= 16_000)).toBe(true);
    expect(bandsTold()).toBe(0);
    const done = () => expect(statuses).toContainEqual(expect.objectContaining({ phase: 'done' }));
    await soon(done, 50_000);
    expect(trianglesHeld().at(-1)).toBe(trianglesIn(large.products[0] as ProductOf<'mesh'>));
    expect(bandsTold()).toBe(1);
    expect(statuses[0]).toMatchObject({ phase: 'following', simplified: true });
  }, 30_000);

  test('the spare worker helps at rest, and has nothing to do while things move', async () => {
    vi.useFakeTimers();
    const { session, tasks, helped } = open({ spare: 1 });
    for (let i = 0; i < 40; i++) {
      session.update(moved(-0.2 - 0.001 * i));
      await pass(10);
    }
    expect(tasks.length).toBeGreaterThan(10);
    expect(helped).toEqual([]);
    await pass(60_000);
    const refined = (some: Task[]) => some.filter((task) => task.kind === 'tile' && !task.job.ambient).length;
    expect(refined(helped)).toBeGreaterThan(0.3 * refined(tasks));
    const before = helped.length;
    session.update(moved(-0.5));
    await pass(100);
    expect(helped.length).toBe(before);
  });

  test('after a finished picture a moved light traces its own film, the others are kept', async () => {
    vi.useFakeTimers();
    const { session, tasks, told } = open();
    const three = demoSet('cordial-frost');
    session.update(three);
    await pass(60_000);
    tasks.length = 0;
    told.length = 0;
    session.update(moveThing({ kind: 'light', key: 'A' }, [-0.9, 0, 0.3])(three));
    await pass(60_000);
    const whole = tasks.filter((task) => task.kind === 'tile' && !task.job.ambient);
    expect(whole.length).toBeGreaterThan(0);
    expect(whole.every((task) => task.kind === 'tile' && task.job.channels?.join() === '0')).toBe(true);
    const begun = told.filter((message) => message.type === 'begin').at(-1);
    expect(begun?.type === 'begin' && begun.kept).toEqual([1, 2]);
  });

  test('power, switch, f-stop, shutter, ISO and names trace nothing and only reweigh', async () => {
    vi.useFakeTimers();
    const { session, told, kinds } = open();
    session.update(set);
    await pass(60_000);
    kinds();
    told.length = 0;
    session.update(
      changeLight('A', (light) => ({ ...light, powerStops: -4, on: false, name: 'Other' }))(set),
    );
    session.update(changeCamera({ fNumber: 4, shutterS: 1 / 60, iso: 800 })(set));
    await pass(60_000);
    expect(kinds()).toEqual([]);
    expect(told.map(({ type }) => type)).toEqual(['weights', 'weights']);
  });

  describe('powers that change while a quick picture is on show, which has no films to weigh', () => {
    const dimmed = (stops: number) => changeLight('A', (light) => ({ ...light, powerStops: stops }))(set);
    const quickOf = (told: readonly ToDeveloper[]) => told.filter((message) => message.type === 'quick');

    test('another of the powers as they are, beside the refining, which goes on; none once the whole light is seen', async () => {
      vi.useFakeTimers();
      const { session, tasks, told } = open({ slow: 'gather', spare: 1 });
      session.update(set);
      await pass(300);
      const baking = () => tasks.filter(({ kind }) => kind === 'gather').length;
      const before = baking();
      expect(before).toBeGreaterThan(0);
      expect(quickOf(told)).toHaveLength(1);
      session.update(dimmed(-4));
      await pass(600);
      const [first, second, ...more] = quickOf(told);
      expect(more).toEqual([]);
      expect(first?.beside).toBe(false);
      expect(second?.beside).toBe(true);
      const [weight = 0] = second?.mixes[0] ?? [];
      expect(weight).toBeLessThan(0.9 * (first?.mixes[0]?.[0] ?? 0));
      await pass(60_000);
      expect(baking()).toBe(before);
      session.update(dimmed(-5));
      await pass(60_000);
      expect(quickOf(told)).toHaveLength(2);
    });

    test('changed while one is made: another follows it', async () => {
      vi.useFakeTimers();
      const { session, told } = open({ slow: 'tile' });
      session.update(set);
      await pass(100);
      session.update(dimmed(-4));
      await pass(1500);
      const mixes = quickOf(told).map((message) => message.mixes[0]?.[0]);
      expect(mixes).toHaveLength(2);
      expect(mixes[1]).toBeLessThan(0.9 * (mixes[0] ?? 0));
    });

    test('a file with layers of lights waits for the picture that has them, and is of the lights as they are then', async () => {
      vi.useFakeTimers();
      const { session, told } = open();
      const three = demoSet('cordial-frost');
      session.update(three);
      await pass(50);
      const port = { postMessage: vi.fn() } as unknown as MessagePort;
      session.sendFile('exr', port);
      session.update({ ...three, lights: three.lights.slice(1), takes: [] });
      const asked = () => told.filter((message) => message.type === 'file');
      expect(asked()).toEqual([]);
      await pass(60_000);
      expect(asked()).toHaveLength(1);
      expect(asked()[0]?.layers).toHaveLength(three.lights.length - 1);
      session.sendFile('exr', port);
      expect(asked()).toHaveLength(2);
    });

    test('where no picture comes such a file is not waited for', async () => {
      vi.useFakeTimers();
      let refuses = '';
      const { session, failures } = open({ refuses: () => refuses });
      session.update(set);
      await pass(50);
      const answer = vi.fn();
      session.sendFile('exr', { postMessage: answer } as unknown as MessagePort);
      refuses = 'too many clear materials';
      session.update(moved(-0.3));
      await pass(1000);
      expect(failures.length).toBeGreaterThan(0);
      expect(answer).toHaveBeenCalledWith(null);
    });

    test('plates on show have a mix of their own', async () => {
      vi.useFakeTimers();
      const { session, told } = open();
      session.update(set);
      session.showPlates({ plates: [label], takes: [], maskOf: null });
      session.update(moved(-0.3));
      await pass(100);
      expect(quickOf(told).at(-1)?.mixes).toHaveLength(2);
    });
  });

  describe('plates', () => {
    const near: Plate = { ...label, id: 'near', name: 'Near', lights: [], focusM: set.camera.focusM - 0.05 };
    const shown = (...plates: Plate[]) => ({ plates, takes: [], maskOf: null });
    const laidOf = (told: readonly ToDeveloper[]) =>
      told.flatMap((message) => (message.type === 'plates' ? [message.laid] : [])).at(-1);

    test('one of other powers takes the films of the set: nothing but its mask is looked up, once', async () => {
      vi.useFakeTimers();
      const { session, told, kinds, tasks } = open();
      session.update(set);
      session.showPlates(shown(label));
      await pass(20_000);
      expect(laidOf(told)?.plates).toMatchObject([{ id: 'label', films: null }]);
      expect(tasks.filter(({ kind }) => kind === 'parts').length).toBeGreaterThan(0);
      kinds();
      const before = told.length;
      session.showPlates(shown({ ...label, lights: [{ tag: 'A', on: true, powerStops: -5 }] }));
      await pass(5000);
      expect(kinds()).toEqual([]);
      expect(told.slice(before).map(({ type }) => type)).toEqual(['plates']);
    });

    test('one of another focus has films of its own traced, after those of the set; they go when it goes', async () => {
      vi.useFakeTimers();
      const { session, told, kinds, statuses } = open();
      session.update(set);
      session.showPlates(shown(near));
      await pass(20_000);
      const begun = told.flatMap((message) => (message.type === 'begin' ? [message.ofPlates] : []));
      const own = laidOf(told)?.plates[0]?.films;
      expect(own).not.toBeNull();
      expect(begun.slice(-2)).toEqual([null, own]);
      expect(phaseOf(statuses)).toMatchObject({ phase: 'done' });
      kinds();
      session.showPlates(null);
      expect(laidOf(told)).toBeNull();
      await pass(5000);
      expect(kinds()).toEqual([]);
    });

    test('films of its own that were not needed for a while are traced again', async () => {
      vi.useFakeTimers();
      const { session, told } = open();
      session.update(set);
      session.showPlates(shown(near));
      await pass(20_000);
      const begun = () =>
        told.filter((message) => message.type === 'begin' && message.ofPlates !== null).length;
      expect(begun()).toBe(1);
      // As the plate is: then it has no films of its own.
      session.update({ ...set, camera: { ...set.camera, focusM: near.focusM as number } });
      await pass(20_000);
      expect(laidOf(told)?.plates[0]?.films).toBeNull();
      session.update(set);
      await pass(20_000);
      expect(laidOf(told)?.plates[0]?.films).not.toBeNull();
      expect(begun()).toBe(2);
    });

    test('a set that moves moves its plates along, and tells the developer only what is other', async () => {
      vi.useFakeTimers();
      const { session, told } = open();
      session.update(set);
      session.showPlates(shown(label));
      await pass(20_000);
      const before = told.length;
      session.update(moved(-0.3));
      session.update(moved(-0.2));
      expect(told.slice(before).filter(({ type }) => type === 'plates')).toEqual([]);
      session.update(changeLight('A', (light) => ({ ...light, on: false }))(moved(-0.2)));
      // The plate says for itself that A is on.
      expect(told.slice(before).filter(({ type }) => type === 'plates')).toEqual([]);
      session.update(changeCamera({ shutterS: 1 / 30 })(moved(-0.2)));
      expect(told.slice(before).filter(({ type }) => type === 'plates')).toHaveLength(1);
    });
  });

  test('a pinned spot traces that spot list and no picture', async () => {
    vi.useFakeTimers();
    const { session, kinds } = open();
    session.update(set);
    await pass(60_000);
    kinds();
    session.update(pinSpot({ name: 'new', pointM: [0, 0, 0], normal: [0, 0, 1] })(set));
    await pass(1000);
    expect(new Set(kinds())).toEqual(new Set(['spots']));
  });

  test('a spot pinned while the picture is refined is read, whenever it is', async () => {
    vi.useFakeTimers();
    for (let wait = 100; wait < 260; wait += 9) {
      const { session, read } = open();
      session.update(set);
      await pass(wait);
      session.update(pinSpot({ name: 'new', pointM: [0, 0, 0], normal: [0, 0, 1] })(set));
      await pass(3000);
      expect(read.at(-1)?.samples, `pinned after ${wait} ms`).toHaveLength(set.spots.length + 1);
      session.close();
    }
  });

  test('spots are traced on at rest until their tone is sure, and no longer once the set moves', async () => {
    vi.useFakeTimers();
    const { session, read, tasks } = open({ spread: 0.2 });
    session.update(set);
    await pass(60_000);
    // The first reading follows; at rest the spread of two parts of 0.2 is under 0.05 stops after some rounds.
    const first = read[0]?.samples[0] ?? 0;
    expect(read[0]).toEqual({ samples: set.spots.map(() => first), settled: false });
    expect(read[1]?.samples).toEqual(set.spots.map(() => REFINED.spotSamples));
    expect(read.slice(0, -1).every(({ settled }) => !settled)).toBe(true);
    expect(read.at(-1)?.settled).toBe(true);
    const rounds = read.length - 1;
    expect(read.at(-1)?.samples).toEqual(set.spots.map(() => rounds * REFINED.spotSamples));
    expect(rounds).toBeGreaterThan(4);
    const seeds = tasks.flatMap((task) => (task.kind === 'spots' && task.samples > first ? [task.seed] : []));
    expect(new Set(seeds).size).toBe(rounds);

    // A resized picture is traced anew; the spots are known already.
    const asked = tasks.filter(({ kind }) => kind === 'spots').length;
    session.resize(300);
    await pass(60_000);
    expect(tasks.filter(({ kind }) => kind === 'spots').length).toBe(asked);
    expect(read.at(-1)?.settled).toBe(true);

    const other = open({ spread: 1 });
    other.session.update(set);
    await pass(60_000);
    // Never sure: it ends all the same, and says so.
    expect(other.read.at(-1)?.settled).toBe(true);
    expect(other.read.length).toBe(17);
    const moving = open({ spread: 1 });
    moving.session.update(set);
    await pass(400);
    const before = moving.read.length;
    moving.session.update(moved(-0.3));
    await pass(50);
    expect(moving.read.slice(before).every(({ samples }) => samples.every((n) => n === first))).toBe(true);
  });

  test('while things keep moving pictures of the newest set follow, and refining is cut off', async () => {
    vi.useFakeTimers();
    const { session, tasks, told } = open();
    session.update(set);
    for (let i = 0; i < 40; i++) {
      session.update(moved(-0.2 - 0.001 * i));
      await pass(10);
    }
    expect(told.filter(({ type }) => type === 'quick').length).toBeGreaterThan(3);
    await pass(3000);
    const refining = tasks.filter((task) => task.kind === 'tile' && task.job.ambient === undefined).length;
    expect(refining).toBeGreaterThan(0);
    session.update(moved(-0.5));
    await pass(5);
    const after = tasks.length;
    await pass(100);
    const next = tasks.slice(after).filter((task) => task.kind === 'tile');
    expect(next.every((task) => task.job.ambient !== undefined)).toBe(true);
  });

  test('a set that cannot be traced is told of with its reason, and the next one is tried', async () => {
    vi.useFakeTimers();
    const { session, failures, tasks } = open({ refuses: () => 'too many clear materials' });
    session.update(set);
    await pass(200);
    expect(failures).toEqual(['too many clear materials']);
    const before = tasks.length;
    session.update(moved(-0.3));
    await pass(200);
    expect(tasks.length).toBeGreaterThan(before);
  });

  test('a set that moves while an older one is refused is tried at once', async () => {
    vi.useFakeTimers();
    const { session, failures } = open({ refuses: () => 'too many clear materials' });
    session.update(set);
    await pass(0);
    session.update(moved(-0.3));
    await pass(200);
    expect(failures.length).toBe(2);
  });

  test('a set that is saved, named or dimmed while its picture is made keeps its bands', async () => {
    vi.useFakeTimers();
    const { session, bandsTold } = open();
    session.update(set);
    await pass(60_000);
    for (let i = 1; i < 12; i++) {
      const before = bandsTold();
      session.update(moved(-0.3 - 0.01 * i));
      // At another moment of the picture each time.
      await pass(i);
      session.update({ ...moved(-0.3 - 0.01 * i), name: `Cordial ${i}` });
      await pass(1000);
      expect(bandsTold()).toBe(before + 1);
    }
  });

  test('what is pointed at is read again once the set rests, not while only power changes', async () => {
    vi.useFakeTimers();
    const { session, kinds, picks } = open();
    session.update(set);
    session.show({ ...NOTHING_SHOWN, pick: [0.4, 0.5] });
    await pass(60_000);
    const before = picks.length;
    kinds();
    session.update(moved(-0.3));
    await pass(60_000);
    expect(kinds().filter((kind) => kind === 'pick')).toHaveLength(1);
    expect(picks.length).toBe(before + 1);
    const [light] = set.lights;
    if (!light) throw new Error('the set has a light');
    session.update(changeLight(light.tag, (one) => ({ ...one, powerStops: -1 }))(moved(-0.3)));
    await pass(60_000);
    expect(picks.length).toBe(before + 1);
    session.show(NOTHING_SHOWN);
    session.update(moved(-0.4));
    await pass(60_000);
    expect(picks.length).toBe(before + 1);
  });

  test('the mirror overlay is mapped when wanted, and follows', async () => {
    vi.useFakeTimers();
    const { session, kinds } = open();
    session.update(set);
    await pass(60_000);
    expect(kinds()).not.toContain('mirror');
    session.show({ ...NOTHING_SHOWN, overlay: 'mirrors' });
    await pass(100);
    expect(kinds()).toEqual(['mirror']);
    session.update(moved(-0.3));
    await pass(100);
    expect(kinds()).toContain('mirror');
  });
});
