import { readFileSync } from 'node:fs';
import { type SetDocument, setDocument } from '@fendrix/contract';

/** Names of the demo set documents, each a file beside this one. */
export const demoNames = ['cordial', 'cordial-frost', 'mill', 'tart', 'tent'] as const;

export type DemoName = (typeof demoNames)[number];

/** A set of the made-up demo job, checked like any other document. */
export function demoSet(name: DemoName): SetDocument {
  return setDocument.parse(JSON.parse(readFileSync(new URL(`${name}.json`, import.meta.url), 'utf8')));
}
