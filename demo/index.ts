import { readFileSync } from 'node:fs';
import { type Job, jobDocument, type SetDocument, setDocument } from '@fendrix/contract';
import { bottleSteps } from './steps/bottle.js';
import { millSteps } from './steps/mill.js';
import { pepperSteps } from './steps/pepper.js';
import { perrySteps } from './steps/perry.js';
import { vinegarSteps } from './steps/vinegar.js';
import { type Step, withTakes } from './steps.js';

const files = {
  cordial: 'cordial.json',
  'cordial-frost': 'cordial-frost.json',
  mill: 'mill.json',
  tart: 'tart.json',
  tent: 'tent.json',
  bottle: 'bottle.json',
  pepper: 'pepper.json',
  vinegar: 'vinegar.json',
  perry: 'perry.json',
} as const;

/** Sets that show their way, take by take. */
const stepsOf: Partial<Record<keyof typeof files, readonly Step[]>> = {
  mill: millSteps,
  bottle: bottleSteps,
  pepper: pepperSteps,
  vinegar: vinegarSteps,
  perry: perrySteps,
};

export type DemoName = keyof typeof files;

/** Names of the demo set documents, each a file beside this one. */
export const demoNames = Object.keys(files) as DemoName[];

/** A set of the made-up demo job, with its takes where it shows a way; checked like any other document. */
export function demoSet(name: DemoName): SetDocument {
  const base = setDocument.parse(JSON.parse(readFileSync(new URL(files[name], import.meta.url), 'utf8')));
  const steps = stepsOf[name];
  return steps ? withTakes(base, steps) : base;
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
