import { z } from 'zod';
import { backupManifest } from './backup.js';
import { camera } from './camera.js';
import { jobDocument } from './jobDocument.js';
import { type KitEntry, kitDocument, things } from './kit.js';
import { setDocument } from './set.js';
import { backdrop, bench, room } from './standing.js';
import { studio } from './studio.js';

type JsonSchema = Record<string, unknown>;

/** JSON Schema (draft 2020-12) of what may be written: defaults may be left out. */
const asWritten = (schema: z.ZodType): JsonSchema => ({ ...z.toJSONSchema(schema, { io: 'input' }) });

const documents = { set: setDocument, job: jobDocument, kit: kitDocument, backup: backupManifest };

/** The kinds of documents that are kept. */
export type DocumentKind = keyof typeof documents;
export const DOCUMENT_KINDS = Object.keys(documents) as DocumentKind[];

/** JSON Schema of a kind of document. Takes some 50 ms: those of the parts below are made sooner. */
export const documentJsonSchema = (kind: DocumentKind): JsonSchema => asWritten(documents[kind]);

/** JSON Schema of any light, sheet, product, material or equipment. */
export const thingJsonSchema = (what: KitEntry['what']): JsonSchema => asWritten(things[what]);

const surroundings = { bench, backdrop, room };

/** JSON Schema of the table, the background or the room of a set. */
export const surroundingJsonSchema = (what: keyof typeof surroundings): JsonSchema =>
  asWritten(surroundings[what]);

export const cameraJsonSchema = (): JsonSchema => asWritten(camera);

export const studioJsonSchema = (): JsonSchema => asWritten(studio);
