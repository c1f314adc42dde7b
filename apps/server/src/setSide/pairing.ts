import { createHash, randomBytes, randomInt, randomUUID, timingSafeEqual } from 'node:crypto';
import type { PairedDevice } from '@fendrix/contract';
import { AppError } from '../errors.js';
import { CODE_WORDS } from './codeWords.js';

/** How long a code may be used, ms. */
const CODE_LASTS_MS = 10 * 60_000;
/** So many words of 128 make two million codes. */
const WORDS_OF_CODE = 3;
/** After so many wrong ones the code is void: whoever guesses finds one in a quarter of a million. */
const WRONG_CODES = 8;
/** Phones and tablets of one day. */
const MOST_DEVICES = 8;
/** A device that did not ask for this long is thrown out, ms. */
const FORGOTTEN_MS = 24 * 3600_000;

interface Device extends PairedDevice {
  job: string;
  /** SHA-256 of what it shows; the token itself is not kept. */
  token: Buffer;
}

/** Who may see a day at the table: codes that are valid once, and the devices that used one. All is gone when the server stops. */
export interface PairedDevices {
  /** A new code for a job, in place of the one before. */
  newCode(job: string): void;
  codeOf(job: string): { words: string; expiresAt: string } | null;
  /** @returns the token that the device shows from now on  @throws {AppError} `not-paired` */
  pair(code: string, name: string): string;
  /** The device that shows a token; told that it was here. */
  deviceOf(token: string): { id: string; job: string } | null;
  devicesOf(job: string): PairedDevice[];
  throwOut(id: string): void;
  clear(): void;
}

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();

/** @param now the clock, ms since 1970 */
export function createPairedDevices(now: () => number = Date.now): PairedDevices {
  let open: { job: string; words: string; expires: number; wrong: number } | null = null;
  let devices: Device[] = [];
  const time = () => new Date(now()).toISOString();
  const current = () => (open && open.expires > now() ? open : null);
  const stillKnown = () => {
    devices = devices.filter(({ seenAt }) => now() - Date.parse(seenAt) < FORGOTTEN_MS);
    return devices;
  };

  return {
    newCode(job) {
      const words = Array.from({ length: WORDS_OF_CODE }, () => CODE_WORDS[randomInt(CODE_WORDS.length)]);
      open = { job, words: words.join('-'), expires: now() + CODE_LASTS_MS, wrong: 0 };
    },
    codeOf(job) {
      const own = current();
      return own?.job === job ? { words: own.words, expiresAt: new Date(own.expires).toISOString() } : null;
    },
    pair(code, name) {
      const own = current();
      if (!own || !timingSafeEqual(digest(code), digest(own.words))) {
        if (own && ++own.wrong >= WRONG_CODES) open = null;
        throw new AppError('not-paired', 'This code is not valid.', {
          hint: 'Each works once and for ten minutes. Ask for a new one in the day of the job.',
        });
      }
      if (stillKnown().length >= MOST_DEVICES) {
        throw new AppError('not-paired', 'As many devices as may be are paired already.', {
          hint: 'Throw one out in the day of the job.',
        });
      }
      open = null;
      const token = randomBytes(32).toString('base64url');
      const at = time();
      devices.push({
        id: randomUUID(),
        name: name || `Device ${devices.length + 1}`,
        pairedAt: at,
        seenAt: at,
        job: own.job,
        token: digest(token),
      });
      return token;
    },
    deviceOf(token) {
      const shown = digest(token);
      const own = stillKnown().find((device) => timingSafeEqual(device.token, shown));
      if (!own) return null;
      own.seenAt = time();
      return { id: own.id, job: own.job };
    },
    devicesOf: (job) =>
      stillKnown()
        .filter((device) => device.job === job)
        .map(({ id, name, pairedAt, seenAt }) => ({ id, name, pairedAt, seenAt })),
    throwOut(id) {
      devices = devices.filter((device) => device.id !== id);
    },
    clear() {
      open = null;
      devices = [];
    },
  };
}
