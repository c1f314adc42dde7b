import { z } from 'zod';
import { storedId } from './ids.js';
import { instant, type Job, rowId } from './job.js';
import type { Kit } from './kit.js';
import { productId } from './names.js';
import type { SetDocument } from './set.js';

/**
 * What is done at the table on the day. Each says how it is afterwards, not by how much it changed: one that is told twice,
 * because a link was lost, counts once.
 */
export const dayAction = z.discriminatedUnion('kind', [
  z
    .strictObject({
      kind: z.literal('step'),
      shot: rowId,
      step: z.string().min(1).max(200),
      done: z.boolean(),
      at: instant,
    })
    .describe('A step of building a set'),
  z
    .strictObject({
      kind: z.literal('taken'),
      shot: rowId,
      done: z.boolean(),
      stands: storedId.optional(),
      at: instant,
    })
    .describe('A picture, with the set that stands there afterwards'),
  z
    .strictObject({ kind: z.literal('tries'), shot: rowId, tries: z.int().min(0).max(1000), at: instant })
    .describe('Frames of a picture that were tried and not kept'),
  z
    .strictObject({
      kind: z.literal('piece'),
      product: productId,
      usedUp: z.int().min(0).max(200),
      /** When the piece that stands there now came under the lights; none where none stands there. */
      freshAt: instant.optional(),
      at: instant,
    })
    .describe('Another piece of a product'),
]);

export type DayAction = z.infer<typeof dayAction>;

/** Body of what a paired device sends: what was done since the link was there last. */
export const dayActions = z.strictObject({ actions: z.array(dayAction).min(1).max(500) });

/** Words that a pairing code is made of, as they are read off a screen and typed. */
export const pairingCode = z
  .string()
  .trim()
  .toLowerCase()
  .max(60)
  .transform((text) => text.split(/[\s-]+/).join('-'));

export const pairBody = z.strictObject({ code: pairingCode, name: z.string().trim().max(60).default('') });
export const openPairingBody = z.strictObject({ job: storedId });
export const pairingQuery = z.strictObject({ job: storedId });

/** A phone or tablet that may read the day and tick. */
export interface PairedDevice {
  id: string;
  name: string;
  pairedAt: string;
  /** When it asked last. */
  seenAt: string;
}

/** Whether the day of a job is open to phones, and to which. */
export interface Pairing {
  on: boolean;
  /** Where a phone opens it, the likeliest first; empty while it is off, or where there is no network. */
  addresses: string[];
  /** The code that one more device may use once; null once it is used or too old. */
  code: { words: string; expiresAt: string } | null;
  devices: PairedDevice[];
  /** Revision of the job as it is stored: whoever shows an older one catches up. */
  revision: number;
}

/** What is known of a day at the table. The client, the brief and all else of the job stay away. */
export interface DayAtTable {
  revision: number;
  job: Pick<Job, 'name' | 'products' | 'shots' | 'day'>;
  sets: Record<string, SetDocument>;
  kit: Pick<Kit, 'studio' | 'changeMinutes'>;
}
