import { test as base } from '@playwright/test';

/** Each worker of the tests has a server and a data folder of its own: what one test leaves behind disturbs no other file. */
export const WORKERS = 2;
const FIRST_PORT = 4291;

export const addressOf = (worker: number): string => `http://127.0.0.1:${FIRST_PORT + worker}`;

export const test = base.extend({
  // biome-ignore lint/correctness/noEmptyPattern: the library reads the pattern
  baseURL: async ({}, use, { parallelIndex }) => {
    await use(addressOf(parallelIndex));
  },
});
