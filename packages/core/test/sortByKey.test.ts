import { expect, test } from 'vitest';
import { sortByKey } from '../src/trace/sortByKey.js';
import { seededRandom } from './random.js';

test.each([0, 1, 2, 7, 8, 9, 31, 100, 256])(
  '%d indices are sorted as by a comparison, ties and what lies behind left alone',
  (count) => {
    const random = seededRandom(count + 1);
    // A few different keys, so that there are many ties.
    const keys = Float64Array.from({ length: 300 }, () => Math.floor(20 * random()) / 7 - 1);
    const indices = Int32Array.from({ length: 300 }, (_, i) => (i * 77) % 300);
    const wanted = indices.slice();
    wanted.set(indices.slice(0, count).sort((a, b) => (keys[a] as number) - (keys[b] as number)));
    sortByKey(indices, count, keys, new Int32Array(300));
    expect(indices).toEqual(wanted);
  },
);
