import { test as base } from '@playwright/test';

/**
 * Workers of the tests; each has a server and a data folder of its own: what one test leaves behind disturbs no other file. The
 * pictures of one page keep two cores busy: two workers took 18.7 minutes where one takes 20, and every wait was longer.
 */
export const WORKERS = 1;
const FIRST_PORT = 4291;

export const addressOf = (worker: number): string => `http://127.0.0.1:${FIRST_PORT + worker}`;

export const test = base.extend({
  // biome-ignore lint/correctness/noEmptyPattern: the library reads the pattern
  baseURL: async ({}, use, { parallelIndex }) => {
    await use(addressOf(parallelIndex));
  },
});
