import { readFileSync } from 'node:fs';
import { type SetDocument, setDocument } from '@fendrix/contract';

const files = {
  cordial: 'cordial.json',
  'cordial-frost': 'cordial-frost.json',
  mill: 'mill.json',
  tart: 'tart.json',
  tent: 'tent.json',
} as const;

export type DemoName = keyof typeof files;

/** Names of the demo set documents, each a file beside this one. */
export const demoNames = Object.keys(files) as DemoName[];

/** A set of the made-up demo job, checked like any other document. */
export function demoSet(name: DemoName): SetDocument {
  return setDocument.parse(JSON.parse(readFileSync(new URL(files[name], import.meta.url), 'utf8')));
}
