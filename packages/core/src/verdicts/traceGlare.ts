import type { SetDocument, Vector } from '@fendrix/contract';
import { MIRRORED, MIRRORED_WAY, MIRRORED_WEIGHT, SEEN_POINT } from '../engine/sight.js';
import { partAt } from '../geometry/products/partAt.js';
import { polariseMirrored } from '../render/polariseMirrored.js';
import type { Tracing } from '../render/prepareTracing.js';
import { writeView } from '../render/view.js';
import { normalise, subtract } from '../units/vector.js';

/** What the places of labels mirror, free of powers and settings. */
export interface Glare {
  /** Places of labels that mirror at all. */
  places: Int32Array;
  /** [(place * films + film) * 3 + colour] at unit luminance: what is mirrored, times the part that is. */
  unit: Float32Array;
}

/** Off a label by so much, m. */
const OFF_M = 1e-4;

/**
 * Light that labels send to the lens as mirrors, over their print: traced from each place along its mirrored ray.
 * Limits: a rough coat by the middle of its lobe.
 * @param thing seen at each place, by its number in the scene
 */
export function traceGlare(
  tracing: Tracing,
  { products }: Pick<SetDocument, 'products'>,
  pointM: ArrayLike<number>,
  thing: Int32Array,
  samples: number,
): Glare {
  const { engine, scene, view } = tracing;
  const width = 3 * scene.channelCount;
  const places: number[] = [];
  const units: number[] = [];
  writeView(engine.view, view);
  engine.reseed(1);
  for (let place = 0; place < thing.length; place++) {
    const seen = scene.things[thing[place] as number];
    const product = seen?.kind === 'product' ? products.find(({ id }) => id === seen.key) : undefined;
    const point = [0, 1, 2].map((a) => pointM[3 * place + a]) as Vector;
    if (!product || partAt(product, point).kind !== 'label') continue;
    engine.setMode({ lightmaps: true });
    engine.point.set(view.origin);
    engine.direction.set(normalise(subtract(point, view.origin)));
    engine.look();
    const direction = Float64Array.from(engine.direction);
    const sight = Float64Array.from(engine.sight);
    if ((sight[MIRRORED] as number) < -1) continue;
    const triple = (at: number) => [...sight.subarray(at, at + 3)] as Vector;
    const [from, way, weight] = [triple(SEEN_POINT), triple(MIRRORED_WAY), triple(MIRRORED_WEIGHT)];
    engine.films.fill(0);
    for (let sample = 0; sample < samples; sample++) {
      engine.startSample(place, sample);
      engine.point.set(from.map((value, a) => value + OFF_M * (way[a] as number)));
      engine.direction.set(way);
      engine.trace(false);
    }
    const films = Float64Array.from(engine.films);
    polariseMirrored(tracing, direction, sight, films);
    places.push(place);
    for (let k = 0; k < width; k++) units.push(((films[k] as number) * (weight[k % 3] as number)) / samples);
  }
  engine.setMode({});
  return { places: Int32Array.from(places), unit: Float32Array.from(units) };
}
