import { type CameraLens, type Job, jobDocument, type SetDocument, setDocument } from '@fendrix/contract';
import autumnJob from './autumn-job.json' with { type: 'json' };
import bottle from './bottle.json' with { type: 'json' };
import cordial from './cordial.json' with { type: 'json' };
import cordialFrost from './cordial-frost.json' with { type: 'json' };
import mill from './mill.json' with { type: 'json' };
import pepper from './pepper.json' with { type: 'json' };
import perry from './perry.json' with { type: 'json' };
import { bottleSteps } from './steps/bottle.js';
import { millSteps } from './steps/mill.js';
import { pepperSteps } from './steps/pepper.js';
import { perrySteps } from './steps/perry.js';
import { vinegarSteps } from './steps/vinegar.js';
import { type Step, withTakes } from './steps.js';
import tart from './tart.json' with { type: 'json' };
import tent from './tent.json' with { type: 'json' };
import vinegar from './vinegar.json' with { type: 'json' };

const documents = {
  cordial,
  'cordial-frost': cordialFrost,
  mill,
  tart,
  tent,
  bottle,
  pepper,
  vinegar,
  perry,
} as const;

/** Sets that show their way, take by take. */
const stepsOf: Partial<Record<keyof typeof documents, readonly Step[]>> = {
  mill: millSteps,
  bottle: bottleSteps,
  pepper: pepperSteps,
  vinegar: vinegarSteps,
  perry: perrySteps,
};

export type DemoName = keyof typeof documents;

/** Names of the demo set documents, each a file beside this one. */
export const demoNames = Object.keys(documents) as DemoName[];

/** What reaches into the table or over its edge in these sets, and may. */
const LEFT_SO: Partial<Record<DemoName, readonly string[]>> = {
  cordial: ['bench | sheet 1', 'backdrop | sheet 1'],
  'cordial-frost': ['bench | sheet 1', 'bench | sheet 2'],
  bottle: ['bench | light A', 'bench | light B', 'light A | light C'],
  pepper: ['bench | sheet 2', 'bench | sheet 3'],
  vinegar: ['sheet 1 | sheet 3', 'bench | sheet 1', 'sheet 2 | sheet 3', 'bench | sheet 3'],
  perry: ['bench | light B', 'bench | light C', 'bench | light D'],
};

/** Sets of which one frame cannot hold all. */
const PLATES: Partial<Record<DemoName, readonly unknown[]>> = {
  'cordial-frost': [
    {
      id: 'label',
      name: 'Label',
      gives: 'label',
      note: 'The left dish lower: print and gold keep their tones.',
      lights: [{ tag: 'A', on: true, powerStops: -2.2 }],
      mask: [0, 1, 2, 3].map((index) => ({ area: { by: 'part', product: 'bottle', part: 'label', index } })),
      featherPart: 0.002,
    },
    {
      id: 'liquid',
      name: 'Liquid',
      gives: 'liquid',
      note: 'More from behind, so that the cordial glows.',
      lights: [{ tag: 'C', on: true, powerStops: -2.9 }],
      mask: [{ area: { by: 'part', product: 'bottle', part: 'liquid' } }],
      featherPart: 0.006,
    },
  ],
  perry: [
    {
      id: 'rims',
      name: 'Rims',
      gives: 'outline',
      note: 'Nothing is touched between the two: only the lights change.',
      takeId: 'glass-plate',
      mask: [
        { area: { by: 'products' } },
        { area: { by: 'part', product: 'glass', part: 'liquid' }, leaveOut: true },
      ],
      featherPart: 0.004,
    },
  ],
};

/** A set of the made-up demo job, with its takes where it shows a way; checked like any other document. */
export function demoSet(name: DemoName): SetDocument {
  const base = setDocument.parse({ ...documents[name], allowedOverlaps: LEFT_SO[name] ?? [] });
  const steps = stepsOf[name];
  const shown = steps ? withTakes(base, steps) : base;
  return setDocument.parse({ ...shown, plates: PLATES[name] ?? [] });
}

/** Which set each picture of the demo job is taken on. */
const SET_OF_SHOT: Record<string, DemoName> = {
  cordial: 'cordial-frost',
  mill: 'mill',
  tart: 'tart',
  mould: 'tent',
};

/** What each picture is framed with: lenses of the starting kit that let the camera stand in the small room. */
const LENS_OF_SHOT: Record<string, CameraLens> = {
  cordial: { name: 'Lens 50 mm', focalLengthM: 0.05, pupilRatio: 1, closestFocusM: 0.45 },
  mill: { name: 'Zoom 24 to 70 mm', focalLengthM: 0.07, pupilRatio: 1, closestFocusM: 0.38 },
  tart: { name: 'Zoom 24 to 70 mm', focalLengthM: 0.07, pupilRatio: 1, closestFocusM: 0.38 },
  mould: { name: 'Macro lens 100 mm', focalLengthM: 0.1, pupilRatio: 1, closestFocusM: 0.3 },
};

/**
 * The made-up demo job, its products and bodies those of the demo sets.
 * @param idOf where each set is stored
 */
export function demoJob(idOf: (name: DemoName) => string): Job {
  const bodies = demoNames.flatMap((name) => demoSet(name).products);
  return jobDocument.parse({
    ...autumnJob,
    products: autumnJob.products.map((product) => ({
      ...product,
      body: bodies.find(({ id }) => id === product.id),
    })),
    shots: autumnJob.shots.map((shot) => {
      const name = SET_OF_SHOT[shot.id] as DemoName;
      const { body, fNumber } = demoSet(name).camera;
      return { ...shot, setId: idOf(name), framing: { body, lens: LENS_OF_SHOT[shot.id], fNumber } };
    }),
  });
}
