import type { SetDocument, Vector } from '@fendrix/contract';
import { bareSet } from '../geometry/bareSet.js';
import { NOTHING, thingOf } from '../render/look.js';
import { prepareTracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';
import { distance, normalise, subtract } from '../units/vector.js';

/** Of `shadedBy`: the light's middle is in sight; or a sheet is before it, or it has no place: then its shadow is none of one line. */
export const LIT = -1;
export const NOT_ASKED = -2;

/** Off a surface by so much, towards the light, m: it does not shade itself by a rounding. */
const OFF_M = 2e-3;

/**
 * Which product stands between each place and the middle of each light. Where a sheet stands before the light, frost spreads
 * it and a flag takes it: that place is not asked. Clear glass counts as standing in the way; its tones tell its shadow.
 * @param pointM 3 a place, m; NaN where nothing is seen
 */
export function shadedBy(set: SetDocument, pointM: ArrayLike<number>): Int8Array[] {
  const { engine, scene } = prepareTracing(bareSet(set, { products: set.products }), 'plain');
  const sheets =
    set.sheets.length > 0 ? prepareTracing(bareSet(set, { sheets: set.sheets }), 'plain').engine : null;
  const places = pointM.length / 3;
  const numbers = scene.things.map((thing) =>
    thing.kind === 'product' ? set.products.findIndex(({ id }) => id === thing.key) : NOT_ASKED,
  );
  return set.lights.map((light) => {
    const shade = new Int8Array(places).fill(NOT_ASKED);
    if (light.kind === 'surround') return shade;
    for (let place = 0; place < places; place++) {
      const point = [0, 1, 2].map((a) => pointM[3 * place + a]) as Vector;
      if (!point.every(Number.isFinite)) continue;
      const way = normalise(subtract(light.positionM, point));
      const from = point.map((value, a) => value + OFF_M * (way[a] as number)) as Vector;
      const away = distance(from, light.positionM);
      if (sheets) {
        setRay(sheets.ray, from, way, away);
        if (sheets.anyHit()) continue;
      }
      setRay(engine.ray, from, way, away);
      const thing = thingOf(scene.table.thing, engine.closestHit());
      shade[place] = thing === NOTHING ? LIT : (numbers[thing] ?? NOT_ASKED);
    }
    return shade;
  });
}
