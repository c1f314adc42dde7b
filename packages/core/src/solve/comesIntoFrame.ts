import type { Camera, SetDocument } from '@fendrix/contract';
import type { Thing } from '../geometry/builder.js';
import { isKept } from '../plan/frameFit.js';
import { createLook, type Look, look } from '../render/look.js';
import type { Tracing } from '../render/prepareTracing.js';
import { rayThrough } from '../render/view.js';
import type { MovableRef } from './movables.js';

const ACROSS = 60;
const DOWN = 40;

/** Whether the lens sees a light or sheet itself, at any of 2400 places of the frame that are kept; not as a mirror image. */
export function comesIntoFrame(tracing: Tracing, { camera }: SetDocument, ref: MovableRef): boolean {
  return anywhere(tracing, ref, ({ thing }) => [thing], camera);
}

/** Whether it is seen anywhere in the frame at all: itself, mirrored, or through glass. */
export function showsInFrame(tracing: Tracing, ref: MovableRef): boolean {
  return anywhere(tracing, ref, ({ thing, mirrored, through }) => [thing, mirrored, through]);
}

/** All things that the lens sees themselves at any of those places, in no order. */
export function thingsInFrame(tracing: Tracing): Thing[] {
  const found = new Set<number>();
  throughFrame(tracing, ({ thing }) => {
    found.add(thing);
    return false;
  });
  return tracing.scene.things.filter((_, index) => found.has(index));
}

/** @param camera whose crops say what is kept; all of the frame counts where it is left out */
function anywhere(
  tracing: Tracing,
  { kind, key }: MovableRef,
  things: (look: Look) => number[],
  camera?: Camera,
): boolean {
  return throughFrame(
    tracing,
    (seen) =>
      things(seen).some((index) => {
        const thing = tracing.scene.things[index];
        return thing?.kind === kind && thing.key === key;
      }),
    camera,
  );
}

/** Looks at each place of the frame until it is enough. @returns whether it was */
function throughFrame(tracing: Tracing, enough: (look: Look) => boolean, camera?: Camera): boolean {
  const direction = new Float64Array(3);
  const seen = createLook();
  for (let i = 0; i < ACROSS * DOWN; i++) {
    const [x, y] = [((i % ACROSS) + 0.5) / ACROSS, (Math.floor(i / ACROSS) + 0.5) / DOWN];
    if (camera && !isKept(camera, x, y)) continue;
    rayThrough(direction, tracing.view, x, y);
    look(seen, tracing, tracing.view.origin, direction);
    if (enough(seen)) return true;
  }
  return false;
}
