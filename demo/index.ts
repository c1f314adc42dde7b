import { readFileSync } from 'node:fs';
import { type Job, jobDocument, type SetDocument, setDocument } from '@fendrix/contract';

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

const JOB_FILE = 'autumn-job.json';

/** Which set each picture of the demo job is taken on. */
const SET_OF_SHOT: Record<string, DemoName> = {
  cordial: 'cordial-frost',
  mill: 'mill',
  tart: 'tart',
  mould: 'tent',
};

/**
 * The made-up demo job, its goods and camera those of the demo sets.
 * @param idOf where each set is stored
 */
export function demoJob(idOf: (name: DemoName) => string): Job {
  const job = JSON.parse(readFileSync(new URL(JOB_FILE, import.meta.url), 'utf8'));
  const bodies = demoNames.flatMap((name) => demoSet(name).products);
  return jobDocument.parse({
    ...job,
    products: job.products.map((product: { id: string }) => ({
      ...product,
      body: bodies.find(({ id }) => id === product.id),
    })),
    shots: job.shots.map((shot: { id: string }) => {
      const name = SET_OF_SHOT[shot.id] as DemoName;
      const { body, lens, fNumber } = demoSet(name).camera;
      return { ...shot, setId: idOf(name), framing: { body, lens, fNumber } };
    }),
  });
}
