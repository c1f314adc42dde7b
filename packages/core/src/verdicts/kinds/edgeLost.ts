import { mostBackM, withPlacement } from '../../solve/placements.js';
import { byStops, those } from '../changes/changes.js';
import { type Evidence, lightCauses, measured, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';

/** Less than a third of a stop across the outline is not seen as an edge. */
const STEP_STOPS = 1 / 3;
/** Fewer places of outline than this are no outline. */
const FEWEST = 10;

/** A place just within the outline and one just outside of it. */
interface Edge {
  inside: number;
  outside: number;
}

/** Pairs across the outline of a product, one place clear of it on both sides so that no place is of both. */
function edgesOf({ across, down, thing, things }: Evidence, index: number): Edge[] {
  const edges: Edge[] = [];
  const at = (x: number, y: number) => (x < 0 || y < 0 || x >= across || y >= down ? null : y * across + x);
  const isGround = (place: number) => {
    const kind = things[thing[place] as number]?.kind;
    return kind === 'backdrop' || kind === 'room' || kind === 'bench';
  };
  for (let y = 0; y < down; y++)
    for (let x = 0; x < across; x++) {
      if (thing[y * across + x] !== index) continue;
      for (const [dx, dy] of [
        [-1, 0],
        [1, 0],
        [0, -1],
      ] as const) {
        const [next, outside, inside] = [at(x + dx, y + dy), at(x + 2 * dx, y + 2 * dy), at(x - dx, y - dy)];
        if (next === null || outside === null || inside === null) continue;
        if (thing[inside] === index && isGround(next) && isGround(outside)) edges.push({ inside, outside });
      }
    }
  return edges;
}

const stepAt = (stops: Float64Array, { inside, outside }: Edge): number =>
  (stops[inside] as number) - (stops[outside] as number);

/** An outline that has nearly the tone of what is behind it. */
export const edgeLost: Judge<'edge-lost'> = {
  code: 'edge-lost',
  judge: (evidence) =>
    seenProducts(evidence).flatMap(({ thing, index }) => {
      const edges = edgesOf(evidence, index);
      if (edges.length < FEWEST) return [];
      const lost = (stops: Float64Array) =>
        edges.filter((edge) => Math.abs(stepAt(stops, edge)) < STEP_STOPS);
      const figure = measured(evidence, (stops) => lost(stops).length / edges.length);
      return beyond(evidence.limits, 'edge-lost', figure, () => {
        const found = lost(evidence.stops);
        const once = (places: readonly number[]) => [...new Set(places)];
        return {
          of: thing,
          places: once(found.map(({ inside }) => inside)),
          causes: lightCauses(evidence, once(found.map(({ outside }) => outside))),
          working: over({ lostPairs: found.length, outlinePairs: edges.length }, { leastStep: STEP_STOPS }),
        };
      });
    }),
  /** What lights the ground behind the edge, lighter or darker; the ground further back; the light further round. */
  cures({ set }, { causes }) {
    const back = mostBackM(set);
    const main = causes[0]?.thing.key ?? '';
    return those(
      ...causes
        .slice(0, 3)
        .flatMap(({ thing }) => [0.7, -0.7, 1.4, -1.4].map((stops) => byStops(set, thing.key, stops))),
      ...[0.3, 0.6, 1].map((part) =>
        back > 0.05 ? withPlacement(set, { vary: 'backdrop-distance' }, part * back) : null,
      ),
      ...[-35, 35, -70, 70].map((deg) => withPlacement(set, { vary: 'light-bearing', light: main }, deg)),
    );
  },
};
