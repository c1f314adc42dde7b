import { afterEach, describe, expect, test, vi } from 'vitest';
import { sessionWorker, startEarly } from '../src/features/bench/early';

afterEach(() => vi.unstubAllGlobals());

describe('a session that is started early', () => {
  test('is taken by the bench that is opened first; the next one has its own', () => {
    const opened: unknown[] = [];
    vi.stubGlobal(
      'Worker',
      class {
        constructor() {
          opened.push(this);
        }
      },
    );
    startEarly();
    startEarly();
    expect(opened).toHaveLength(1);
    expect(sessionWorker()).toBe(opened[0]);
    expect(sessionWorker()).toBe(opened[1]);
  });
});
