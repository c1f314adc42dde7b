import { addTile, channelsOf, createFilms, traceKey } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { afterEach, describe, expect, test } from 'vitest';
import { createMessageHandler } from '../src/handleMessage.js';
import {
  bakeSpread,
  type FromWorker,
  featureParts,
  passesOf,
  renderProgressively,
  type ToWorker,
  WorkerPool,
  type WorkerPort,
  wholeFeatures,
} from '../src/index.js';
import { createNodePool } from '../src/node.js';

const set = demoSet('cordial');
const keyed = { key: traceKey(set), set };
const picture = { width: 24, height: 16, samples: 3, seed: 5, tileSize: 8 };

/** A worker within the test's own thread, that can be told to misbehave. */
function testPort(
  behave: { mute?: boolean; dieOnTask?: () => boolean; held?: string[]; lights?: string[] } = {},
): WorkerPort {
  let answer: (message: FromWorker) => void = () => undefined;
  let crash: (reason: string) => void = () => undefined;
  let ended = false;
  const handle = createMessageHandler((message) => {
    if (!ended && !behave.mute) answer(message);
  });
  return {
    post(message: ToWorker) {
      if (message.type === 'hold') behave.held?.push(message.key);
      if (message.type === 'light') behave.lights?.push(message.scene);
      setTimeout(() => {
        if (ended) return;
        if (message.type === 'task' && behave.dieOnTask?.()) crash('it died');
        else handle(message);
      }, 0);
    },
    onMessage: (listener) => {
      answer = listener;
    },
    onCrash: (listener) => {
      crash = listener;
    },
    terminate: () => {
      ended = true;
    },
  };
}

const pools: WorkerPool[] = [];
const open = (pool: WorkerPool) => {
  pools.push(pool);
  return pool;
};
afterEach(() => {
  for (const pool of pools.splice(0)) pool.close();
});

describe('worker pool', () => {
  test('films are the same to the last bit with one worker, three, or worker threads', async () => {
    const one = await renderProgressively(open(new WorkerPool(() => testPort(), 1)), keyed, picture);
    const three = await renderProgressively(open(new WorkerPool(() => testPort(), 3)), keyed, picture);
    const threads = await renderProgressively(open(createNodePool(2)), keyed, picture);
    expect(one.samples.every((count) => count === 3)).toBe(true);
    expect(one.data.some((value) => value > 0)).toBe(true);
    expect(three.data).toEqual(one.data);
    expect(threads.data).toEqual(one.data);
  });

  test('tiles that are shown by themselves get their samples together, from the middle on; the films are the same', async () => {
    const given: string[] = [];
    const films = createFilms(24, 16, channelsOf(set).length);
    await renderProgressively(open(new WorkerPool(() => testPort(), 1)), keyed, {
      ...picture,
      together: 2,
      onTile(tile, sums, samples) {
        given.push(`${tile.x},${tile.y}`);
        addTile(films, tile, sums, samples);
      },
    });
    expect(given).toHaveLength(18);
    // The worker has begun another tile when it is asked for the second sample of one.
    for (let i = 0; i < 12; i++) {
      const counts = new Map<string, number>();
      for (const at of given.slice(0, i)) counts.set(at, (counts.get(at) ?? 0) + 1);
      expect([...counts.values()].filter((count) => count === 1).length).toBeLessThanOrEqual(2);
    }
    expect(given.slice(0, 4).every((at) => at.startsWith('8,'))).toBe(true);
    const plain = await renderProgressively(open(new WorkerPool(() => testPort(), 1)), keyed, picture);
    expect(films.data).toEqual(plain.data);
  });

  test('light baked by several workers is that of one, to the last bit, and each of them has it', async () => {
    const lit = { key: traceKey(demoSet('mill')), set: demoSet('mill') };
    const job = {
      width: 24,
      height: 16,
      tile: { x: 0, y: 0, width: 24, height: 16 },
      firstSample: 0,
      samples: 2,
      seed: 1,
    };
    const alone = await open(new WorkerPool(() => testPort(), 1)).run(lit, { kind: 'tile', job });
    const lights: string[] = [];
    const pool = open(new WorkerPool(() => testPort({ lights }), 3));
    await bakeSpread(pool, lit);
    expect(pool.isLit(lit)).toBe(true);
    const tiles = await Promise.all([1, 2, 3].map(() => pool.run(lit, { kind: 'tile', job })));
    for (const tile of tiles) expect(tile).toEqual(alone);
    expect(lights).toHaveLength(3);
    // What was baked stands for every camera, and for no other light.
    const { camera } = lit.set;
    const aside = { ...lit.set, camera: { ...camera, focusM: 1.1 * camera.focusM } };
    expect(pool.isLit({ key: traceKey(aside), set: aside })).toBe(true);
    expect(pool.isLit(keyed)).toBe(false);
    await bakeSpread(pool, { key: traceKey(aside), set: aside });
    expect(lights).toHaveLength(3);
  });

  test('a worker that knows the light already saves the others the work, and is right after another scene', async () => {
    const pool = open(new WorkerPool(() => testPort(), 1));
    const job = {
      width: 12,
      height: 8,
      tile: { x: 0, y: 0, width: 12, height: 8 },
      firstSample: 0,
      samples: 1,
      seed: 1,
    };
    const before = await pool.run(keyed, { kind: 'tile', job });
    await bakeSpread(pool, keyed);
    const other = { key: traceKey(demoSet('mill')), set: demoSet('mill') };
    await bakeSpread(pool, other);
    await pool.run(other, { kind: 'tile', job });
    expect(await pool.run(keyed, { kind: 'tile', job })).toEqual(before);
  });

  test('a set is handed to a worker once, and rays are counted', async () => {
    const held: string[] = [];
    const pool = open(new WorkerPool(() => testPort({ held }), 1));
    await pool.run(keyed, { kind: 'bands' });
    await pool.run(keyed, { kind: 'pick', across: 0.5, down: 0.5 });
    expect(held).toEqual([keyed.key]);
    expect(pool.rays).toBeGreaterThan(500);
  });

  test('a worker that dies is replaced, told of, and its task done all the same', async () => {
    const crashes: string[] = [];
    let deaths = 0;
    const dieOnTask = () => deaths++ < 2;
    const pool = open(
      new WorkerPool(() => testPort({ dieOnTask }), 1, { onCrash: (reason) => crashes.push(reason) }),
    );
    const bands = await pool.run(keyed, { kind: 'bands' });
    expect(bands[0]?.product).toBe('bottle');
    expect(crashes).toEqual(['it died', 'it died']);
  });

  test('a task that always kills its worker is given up; the pool goes on', async () => {
    let dying = true;
    const pool = open(new WorkerPool(() => testPort({ dieOnTask: () => dying }), 1));
    await expect(pool.run(keyed, { kind: 'bands' })).rejects.toThrow('it died');
    dying = false;
    await expect(pool.run(keyed, { kind: 'bands' })).resolves.toHaveLength(1);
  });

  test('workers that never start end the pool with the reason', async () => {
    const spawn = (): WorkerPort => ({
      post: () => undefined,
      onMessage: () => undefined,
      onCrash: (listener) => void setTimeout(() => listener('no such file'), 0),
      terminate: () => undefined,
    });
    const pool = open(new WorkerPool(spawn, 2));
    await expect(pool.run(keyed, { kind: 'bands' })).rejects.toThrow('no such file');
    await new Promise((resolve) => setTimeout(resolve, 50));
    await expect(pool.run(keyed, { kind: 'bands' })).rejects.toThrow('cannot be started: no such file');
  });

  test('a worker that gives no answer is taken for hung', async () => {
    const pool = open(new WorkerPool(() => testPort({ mute: true }), 1, { patienceMs: 20 }));
    await expect(pool.run(keyed, { kind: 'bands' })).rejects.toThrow('no answer');
  });

  test('an aborted call rejects at once, waiting or running', async () => {
    const pool = open(new WorkerPool(() => testPort({ mute: true }), 1));
    const controller = new AbortController();
    const running = pool.run(keyed, { kind: 'bands' }, { signal: controller.signal });
    const waiting = pool.run(keyed, { kind: 'bands' }, { signal: controller.signal });
    controller.abort(new Error('the set moved'));
    await expect(running).rejects.toThrow('the set moved');
    await expect(waiting).rejects.toThrow('the set moved');
    await expect(pool.run(keyed, { kind: 'bands' }, { signal: controller.signal })).rejects.toThrow('moved');
  });

  test('spare workers take what is asked for at rest, and nothing else', async () => {
    const tasks: number[] = [];
    let made = 0;
    const pool = open(
      new WorkerPool(
        () => {
          const worker = made++;
          return testPort({
            mute: true,
            dieOnTask: () => {
              tasks.push(worker);
              return false;
            },
          });
        },
        1,
        { spare: 1 },
      ),
    );
    for (const atRest of [false, false, true, true]) {
      pool.run(keyed, { kind: 'bands' }, { atRest }).catch(() => undefined);
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
    // The first worker has the first task, the spare one the first at rest; two wait.
    expect(tasks).toEqual([0, 1]);
  });

  test('with spare workers films are the same to the last bit', async () => {
    const one = await renderProgressively(open(new WorkerPool(() => testPort(), 1)), keyed, picture);
    const helped = new WorkerPool(() => testPort(), 1, { spare: 2 });
    const rested = await renderProgressively(open(helped), keyed, { ...picture, atRest: true });
    expect(rested.data).toEqual(one.data);
    expect(rested.half).toEqual(one.half);
  });

  test('a pool that is held begins nothing until it is let go; what is given up meanwhile is settled', async () => {
    const pool = open(new WorkerPool(() => testPort(), 1));
    pool.hold(true);
    const controller = new AbortController();
    const [kept, left] = [undefined, controller.signal].map((signal) =>
      pool.run(keyed, { kind: 'bands' }, signal ? { signal } : {}),
    );
    let settled = false;
    kept?.finally(() => {
      settled = true;
    });
    controller.abort(new Error('given up'));
    await expect(left).rejects.toThrow('given up');
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(settled).toBe(false);
    pool.hold(false);
    await expect(kept).resolves.toHaveLength(1);
  });

  test('closing settles what waits', async () => {
    const pool = open(new WorkerPool(() => testPort({ mute: true }), 1));
    const calls = [pool.run(keyed, { kind: 'bands' }), pool.run(keyed, { kind: 'bands' })];
    pool.close();
    for (const call of calls) await expect(call).rejects.toThrow('closed');
  });

  test('the same set under another key is held anew: nothing is left from the run before', async () => {
    const pool = open(new WorkerPool(() => testPort(), 1));
    await pool.run(keyed, { kind: 'bands' });
    const again = { ...keyed, key: `${keyed.key} again` };
    await expect(pool.run(again, { kind: 'bands' })).resolves.toBeDefined();
  });

  test('two sets asked in turn are each made ready once; a third takes the place of the one asked longer ago', () => {
    const rays: number[] = [];
    const handle = createMessageHandler((answer) => rays.push(answer.type === 'done' ? answer.rays : -1));
    const job = {
      ...{ width: 8, height: 8, tile: { x: 0, y: 0, width: 8, height: 8 } },
      ...{ firstSample: 0, samples: 1, seed: 1 },
    };
    const [first, second, third] = ['cordial', 'mill', 'pepper'].map((name) => demoSet(name as 'mill'));
    for (const own of [first, second, first, second, third, first]) {
      if (!own) continue;
      handle({ type: 'hold', key: own.name, set: own });
      handle({ type: 'task', id: 1, key: own.name, task: { kind: 'tile', job }, moving: false });
    }
    const [a = 0, b = 0, a2 = 0, b2 = 0, , a3 = 0] = rays;
    expect(a2).toBeGreaterThan(0);
    // Light that is baked once and for all takes most of the rays of so small a picture.
    expect(a2).toBeLessThan(a / 10);
    expect(b2).toBeLessThan(b / 10);
    expect(a3).toBe(a);
  });

  test('a set that moves is made ready by the one before it; at rest anew, as if nothing had been before', () => {
    const answers: FromWorker[] = [];
    const handlers = [0, 1].map(() => createMessageHandler((answer) => answers.push(answer)));
    const set = demoSet('tart');
    const moved = structuredClone(set);
    for (const light of moved.lights) if (light.kind !== 'surround') light.positionM[0] += 0.02;
    const job = {
      ...{ width: 30, height: 20, tile: { x: 0, y: 0, width: 30, height: 20 } },
      ...{ firstSample: 0, samples: 1, seed: 1, ambient: channelsOf(set).map(() => 0.1) },
    };
    const ask = (handler: number, own: typeof set, moving: boolean) => {
      handlers[handler]?.({ type: 'hold', key: traceKey(own), set: own });
      handlers[handler]?.({ type: 'task', id: 1, key: traceKey(own), task: { kind: 'tile', job }, moving });
      return answers.pop();
    };
    ask(0, set, false);
    const following = ask(0, moved, true);
    const resting = ask(0, moved, false);
    const anew = ask(1, moved, false);
    expect(anew).toMatchObject({ type: 'done' });
    expect(resting).toEqual(anew);
    // Where two things are met at the very same distance a ray may go on elsewhere; here none does.
    expect(following).toMatchObject({ type: 'done', rays: anew?.type === 'done' ? anew.rays : 0 });
  });

  test('a task on another set than the one held is refused, not done wrongly', () => {
    const answers: FromWorker[] = [];
    const handle = createMessageHandler((answer) => answers.push(answer));
    handle({ type: 'task', id: 1, key: 'other', task: { kind: 'bands' }, moving: false });
    expect(answers).toEqual([{ type: 'failed', id: 1, message: 'the worker holds another set' }]);
  });
});

test('features made in pieces are those of the whole picture, a part of them those of the part', async () => {
  const pool = open(new WorkerPool(() => testPort(), 2));
  const [width, height] = [150, 100];
  const whole = await wholeFeatures(pool, keyed, width, height);
  const tile = { x: 0, y: 0, width, height };
  const direct = await pool.run(keyed, { kind: 'features', width, height, tile });
  expect(whole).toEqual(direct);
  const part = { x: 40, y: 30, width: 20, height: 10 };
  const parts = await featureParts(pool, keyed, { width, height }, part);
  expect(parts.map((own) => own.tile)).toEqual([{ x: 0, y: 0, width: 20, height: 10 }]);
  const row = parts[0]?.features.region.subarray(0, 20);
  expect(row).toEqual(whole.region.subarray(30 * width + 40, 30 * width + 60));
});

test('passes grow to four samples and add up', () => {
  expect(passesOf(13, 1).map(({ count }) => count)).toEqual([1, 1, 2, 4, 4, 1]);
  expect(passesOf(2, 4)).toEqual([{ first: 0, count: 2 }]);
});
