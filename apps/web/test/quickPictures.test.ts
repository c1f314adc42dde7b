import { ambientByLight, displayWeights, prepareTracing, renderTile, traceKey } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import type { Task, WorkerPool } from '@fendrix/workers';
import { expect, test } from 'vitest';
import type { ToDeveloper } from '../src/features/bench/picture/developProtocol';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';
import { PictureMaker } from '../src/features/bench/picture/pictureMaker';
import { QuickPictures } from '../src/features/bench/picture/quickPictures';

const set = demoSet('cordial');
const keyed = { key: traceKey(set), set };
const tracing = prepareTracing(set);
const ambient = ambientByLight(tracing, 1);

/** Makes one on so many workers. */
async function quickPicture(workers: number, window = WHOLE_FRAME) {
  const tasks: Task[] = [];
  const pool = {
    size: workers,
    run: async (_: unknown, task: Task) => {
      tasks.push(task);
      return task.kind === 'tile' ? renderTile(tracing, task.job) : null;
    },
  } as unknown as WorkerPool;
  const told: ToDeveloper[] = [];
  const maker = new PictureMaker(pool, () => undefined, { status: () => undefined });
  const quick = new QuickPictures(
    pool,
    maker,
    (message) => told.push(message),
    () => [],
  );
  await quick.make(keyed, { window, aspect: 1.5, ambient, priority: 1, beside: false });
  const [message] = told;
  if (message?.type !== 'quick') throw new Error('no quick picture');
  return { message, tasks, quick };
}

/** Whether all pixels are the same: a comparison that tells which ones are not would take minutes. */
const isSame = (a: Float32Array, b: Float32Array) =>
  a.length === b.length && a.every((value, i) => value === b[i]);

test('several workers make the same picture as one, without a seam', async () => {
  const one = await quickPicture(1);
  expect(one.tasks).toHaveLength(1);
  const { width, height } = one.message;
  expect(one.message.linear.length).toBe(3 * width * height);
  for (const workers of [2, 3, 7]) {
    const many = await quickPicture(workers);
    expect(many.tasks).toHaveLength(workers);
    expect(isSame(many.message.linear, one.message.linear)).toBe(true);
  }
});

test('of a magnified part the same', async () => {
  const window = { zoom: 2.5, left: 0.31, top: 0.43 };
  const one = await quickPicture(1, window);
  expect(isSame((await quickPicture(3, window)).message.linear, one.message.linear)).toBe(true);
});

test('it is of the powers it was mixed by, not of others', async () => {
  const { quick, message } = await quickPicture(1);
  expect(message.mixes).toEqual([displayWeights(set)]);
  expect(quick.isOf(keyed)).toBe(true);
  const [light] = set.lights;
  const dimmed = { ...set, lights: [{ ...light, powerStops: -3 }] } as typeof set;
  expect(quick.isOf({ ...keyed, set: dimmed })).toBe(false);
});
