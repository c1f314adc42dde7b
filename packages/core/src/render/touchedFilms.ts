import type { SetDocument } from '@fendrix/contract';
import { channelsOf } from '../photometry/channels.js';
import { createLook, look } from './look.js';
import { prepareTracing, type Tracing } from './prepareTracing.js';
import { keyWithoutLights, lightKey } from './traceKey.js';
import { rayThrough } from './view.js';

/** Places of the picture at which the light is compared, across and down. */
const ACROSS = 64;
const DOWN = 44;

/**
 * Films that have to be traced anew after lights have moved, turned or changed their form: their own, and those of
 * other lights whose direct light, or whose image in a mirror or through glass, the moved bodies change anywhere in
 * the picture. Decided by shadow rays from a grid of picture points, before and after, with the same random numbers.
 * Limits: what a moved body changes of light that has bounced twice or more is not looked at; nor is anything that
 * falls between the points.
 * @returns places among the films; null where more than lights has changed, so that all have to be traced
 */
export function touchedFilms(before: SetDocument, after: SetDocument): number[] | null {
  if (keyWithoutLights(before) !== keyWithoutLights(after)) return null;
  const channels = channelsOf(after);
  const same = channelsOf(before);
  if (JSON.stringify(channels) !== JSON.stringify(same) || !alike(before, after)) return null;
  const moved = new Set<number>();
  after.lights.forEach((light, index) => {
    const old = before.lights[index];
    if (!old || lightKey(old) !== lightKey(light)) moved.add(index);
  });
  const touched = new Set(moved);
  if (moved.size > 0 && moved.size < after.lights.length) {
    compare(touched, moved, prepareTracing(before), prepareTracing(after), after);
  }
  return channels.flatMap(({ light }, channel) => (touched.has(light) ? [channel] : []));
}

/** Whether both have the same lights of the same kinds, so that their emitters stand in the same order. */
function alike(before: SetDocument, after: SetDocument): boolean {
  return (
    before.lights.length === after.lights.length &&
    before.lights.every(({ tag, kind }, i) => after.lights[i]?.tag === tag && after.lights[i]?.kind === kind)
  );
}

/** Adds the lights whose film the moved ones change. */
function compare(
  touched: Set<number>,
  moved: ReadonlySet<number>,
  before: Tracing,
  after: Tracing,
  set: SetDocument,
): void {
  const channels = channelsOf(set);
  const isMoved = (tracing: Tracing, thing: number) => {
    const seen = tracing.scene.things[thing];
    return (
      (seen?.kind === 'light' || seen?.kind === 'stand') &&
      moved.has(set.lights.findIndex(({ tag }) => tag === seen.key))
    );
  };
  const lightOfEmitter = after.scene.emitters.map(({ channel }) => channels[channel]?.light ?? -1);
  const direction = new Float64Array(3);
  const seen = createLook();
  for (let place = 0; place < ACROSS * DOWN; place++) {
    const across = ((place % ACROSS) + 0.5) / ACROSS;
    const down = (Math.floor(place / ACROSS) + 0.5) / DOWN;
    rayThrough(direction, after.view, across, down);
    for (const tracing of [before, after]) {
      look(seen, tracing, tracing.view.origin, direction);
      if ([seen.thing, seen.mirrored, seen.through].some((thing) => isMoved(tracing, thing))) {
        // The body itself is in the picture: black in the films of all others.
        for (let light = 0; light < set.lights.length; light++) touched.add(light);
        return;
      }
    }
    for (const from of [0, 6, 9]) {
      if (!Number.isFinite(seen.geometry[from] as number)) continue;
      lightOfEmitter.forEach((light, emitter) => {
        if (touched.has(light)) return;
        const [old, now] = [before, after].map((tracing) =>
          reaches(tracing, seen.geometry, from, emitter, place),
        );
        if (old !== now) touched.add(light);
      });
    }
    if (touched.size === set.lights.length) return;
  }
}

/** Whether a random place of a light shines on a point. */
function reaches(
  { engine }: Tracing,
  geometry: Float64Array,
  from: number,
  emitter: number,
  seed: number,
): boolean {
  for (let a = 0; a < 3; a++) engine.point[a] = geometry[from + a] as number;
  engine.reseed(1);
  engine.startSample(seed, 0);
  return engine.sampleLight(emitter);
}
