import type { Light, Product } from '@fendrix/contract';
import { type MeshOptions, trianglesIn } from '@fendrix/files';
import type { FromImport, ToImport } from './importWorker';

export type Imported = ({ what: 'light'; thing: Light } | { what: 'product'; thing: Product }) & {
  /** What was done to it on the way, in words. */
  note?: string;
};

/** A file that is not read in this time is given up, ms. */
const PATIENCE_MS = 180_000;
/** Larger files are not even opened, bytes. */
const MOST_BYTES = 60_000_000;

/**
 * Reads a body or a measured light in a worker of its own: a file that is made to hang or to fill the memory takes that worker
 * down, not the page.
 * @throws {Error} in words, when it cannot be read, takes too long, or is asked for no longer
 */
export async function importFile(file: File, options: MeshOptions, signal: AbortSignal): Promise<Imported> {
  if (file.size > MOST_BYTES) throw new Error('The file is larger than 60 MB. Thin the mesh out first.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  const answer = await inWorker({ name: file.name, bytes, options }, signal);
  if (!answer.ok) throw new Error(answer.why);
  if ('mesh' in answer) {
    const { mesh, thinnedFrom } = answer;
    const note = thinnedFrom === null ? {} : { note: thinnedWords(thinnedFrom, trianglesIn(mesh)) };
    return { what: 'product', thing: mesh, ...note };
  }
  const { lumens, distribution, openingWidthM, openingLengthM } = answer.measured;
  return {
    what: 'light',
    thing: {
      kind: 'ies',
      tag: 'A',
      name: file.name.replace(/\.\w+$/, '').slice(0, 80) || 'imported',
      positionM: [-0.6, -0.2, 0.6],
      aimM: [0, 0, 0.1],
      rollDeg: 0,
      output: { kind: 'lumens', lumens, modifierEfficiency: 1 },
      powerStops: 0,
      on: true,
      stand: false,
      openingWidthM,
      openingLengthM,
      distribution,
    },
  };
}

const thousands = (count: number) => `${Math.round(count / 1000)} 000`;

const thinnedWords = (from: number, to: number): string =>
  `The file has ${thousands(from)} triangles: they were thinned out to ${thousands(to)}.`;

function inWorker(question: ToImport, signal: AbortSignal): Promise<FromImport> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./importWorker.ts', import.meta.url), { type: 'module' });
    const end = (settle: () => void) => {
      clearTimeout(patience);
      signal.removeEventListener('abort', onAbort);
      worker.terminate();
      settle();
    };
    const onAbort = () => end(() => reject(new Error('It is read no longer.')));
    const patience = setTimeout(
      () => end(() => reject(new Error('The file takes too long to read: thin the mesh out first.'))),
      PATIENCE_MS,
    );
    signal.addEventListener('abort', onAbort, { once: true });
    worker.addEventListener('message', ({ data }: MessageEvent<FromImport>) => end(() => resolve(data)));
    worker.addEventListener('error', (event) => {
      event.preventDefault();
      end(() => reject(new Error('The file is more than this browser can read: thin the mesh out first.')));
    });
    worker.postMessage(question, [question.bytes.buffer as ArrayBuffer]);
  });
}
