import { vi } from 'vitest';

/** Waits for what takes a moment, or several on a busy machine; also where the timers are the test's own. */
export const soon = <T>(check: () => T, patienceMs = 15_000) => vi.waitFor(check, patienceMs);
