import { expect, test } from 'vitest';
import { createAskedAgain, type OnPart } from '../src/frames/askedAgain.js';

/** Work that ends when it is let go. */
function work() {
  let starts = 0;
  let letGo: (value: string) => void = () => {};
  let fail: (error: Error) => void = () => {};
  let told: OnPart = () => {};
  let signal = new AbortController().signal;
  const start = (own: AbortSignal, onPart: OnPart) => {
    starts++;
    signal = own;
    told = onPart;
    return new Promise<string>((resolve, reject) => {
      letGo = resolve;
      fail = reject;
    });
  };
  return {
    start,
    starts: () => starts,
    signal: () => signal,
    tell: (part: number) => told(part),
    letGo: (value: string) => letGo(value),
    fail: (words: string) => fail(new Error(words)),
  };
}

test('until the answer is there it says how much is done; who asks again gets the same one', async () => {
  const ask = createAskedAgain<string>({ waitMs: 5, patienceMs: 60_000 });
  const own = work();
  expect(await ask('a', own.start)).toEqual({ part: 0 });
  own.tell(0.4);
  expect(await ask('a', own.start)).toEqual({ part: 0.4 });
  const waiting = ask('a', own.start);
  own.letGo('found');
  expect(await waiting).toEqual({ answer: 'found' });
  expect(await ask('a', own.start)).toEqual({ answer: 'found' });
  expect(own.starts()).toBe(1);
  expect(own.signal().aborted).toBe(false);
  expect(await ask('b', own.start)).toEqual({ part: 0 });
  expect(own.starts()).toBe(2);
});

test('what nobody asks for any more is given up, and begun anew when it is asked for', async () => {
  const ask = createAskedAgain<string>({ waitMs: 1, patienceMs: 20 });
  const own = work();
  await ask('a', own.start);
  const first = own.signal();
  await expect.poll(() => first.aborted).toBe(true);
  await ask('a', own.start);
  expect(own.starts()).toBe(2);
});

test('a failure is told to who asks, and not kept', async () => {
  const ask = createAskedAgain<string>({ waitMs: 60_000, patienceMs: 60_000 });
  const own = work();
  const asked = ask('a', own.start);
  own.fail('out of memory');
  await expect(asked).rejects.toThrow('out of memory');
  const again = ask('a', own.start);
  own.letGo('found');
  expect(await again).toEqual({ answer: 'found' });
});
