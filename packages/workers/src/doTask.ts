import type { SetDocument } from '@fendrix/contract';
import {
  ambientByLight,
  bakedLight,
  bandHeightM,
  bandProfile,
  clashesOf,
  createLook,
  denoiseFeatures,
  depthTile,
  type Evidence,
  evidenceOf,
  evidenceOfFrame,
  type FrameTones,
  gatherLight,
  glareZones,
  judgeSet,
  keepLight,
  lampBehindFrost,
  layFrame,
  lessFound,
  likelyPlaces,
  likenessOf,
  look,
  loseGlare,
  mirrorBand,
  mirrorMapTile,
  movedTile,
  overlaps,
  partTile,
  pickSources,
  placeForBand,
  pointsOfRegion,
  rayThrough,
  rebuildWith,
  renderTile,
  sendLight,
  solveLight,
  type Tracing,
  takeBakedLight,
  thingsInFrame,
  toldThings,
  touchedFilms,
  traceField,
  traceKey,
  traceRims,
  traceSpot,
  traceView,
  triedCure,
  tryCard,
  usualCures,
  weighPlaces,
} from '@fendrix/core';
import type { Pick, Task, TaskResults } from './protocol.js';

/** What a worker does: one task about a set that is made ready. @param tracing of that set */
export function doTask(set: SetDocument, tracing: Tracing, task: Task): TaskResults[Task['kind']] {
  switch (task.kind) {
    case 'tile':
      return renderTile(tracing, task.job);
    case 'movedTile':
      return movedTile(tracing, set, task.moves, task.job);
    case 'toldThings':
      return toldThings(task.pictures);
    case 'layFrame':
      return layFrame(task.pictures, task.frame);
    case 'lessFound':
      return lessFound(task.laid, task.picture);
    case 'likelyPlaces':
      return likelyPlaces(task.laid);
    case 'weighPlaces':
      return weighPlaces(task.laid, task.pictures, task.stepM);
    case 'gather':
      return tracing.tables.lit === 0
        ? { gathered: gatherLight(tracing, task.part, task.of) }
        : { known: bakedLight(tracing.tables) };
    case 'solve':
      return solveLight(tracing, task.parts);
    case 'send':
      takeBakedLight(tracing, task.solved);
      return sendLight(tracing, task.part, task.of);
    case 'keep':
      takeBakedLight(tracing, task.solved);
      return keepLight(tracing, task.photons);
    case 'mirror':
      return {
        map: mirrorMapTile(tracing, task.width, task.height, task.tile),
        things: tracing.scene.things,
      };
    case 'features':
      return denoiseFeatures(tracing, task.width, task.height, task.tile);
    case 'ambient':
      return ambientByLight(tracing, 1);
    case 'bands':
      return set.products.map((product) => mirrorBand(tracing, product)).filter((band) => band !== null);
    case 'bandsAt':
      return set.products.flatMap((product) =>
        task.parts.flatMap((part) => mirrorBand(tracing, product, part * bandHeightM(product)) ?? []),
      );
    case 'touched':
      return touchedFilms(task.before, set);
    case 'spots':
      return task.spots.map((spot) => traceSpot(tracing, spot, task.samples, task.seed));
    case 'pick':
      return pick(tracing, task.across, task.down);
    case 'things':
      return tracing.scene.things;
    case 'parts':
      return partTile(tracing, set, task.width, task.height, task.tile);
    case 'depth':
      return depthTile(tracing, task.width, task.height, task.tile);
    case 'profile': {
      const product = set.products.find(({ id }) => id === task.product);
      return product ? bandProfile(tracing, product, task) : null;
    }
    case 'zones':
      return glareZones(set, task.options);
    case 'field':
      return traceField(tracing, task.rect, task);
    case 'placeForBand':
      return placeForBand(set, task.wish);
    case 'rebuild':
      return rebuildWith(set, task.wish);
    case 'loseGlare':
      return loseGlare(set, task.across, task.down);
    case 'gradient':
      return lampBehindFrost(set, task.wish);
    case 'overlaps':
      return overlaps(set);
    case 'inFrame':
      return thingsInFrame(tracing);
    case 'rims':
      return traceRims(tracing);
    case 'view':
      return { key: traceKey(set), view: traceView(tracing, set, task) };
    case 'judge':
      return judged(evidenceOf(set, traceView(tracing, set, task), task.by), task.frame);
    case 'likeness':
      return likenessOf(evidenceOf(set, traceView(tracing, set, task)), set.name);
    case 'cures':
      return usualCures(evidenceOf(set, task.view, task.by), task.verdict);
    case 'tryCure': {
      const clashes = task.view ? [] : clashesOf(task.stoodBefore, overlaps(set));
      const view = task.view ?? traceView(tracing, set, task);
      return triedCure(task.by, task.before, task.verdict, task.change, set, view, clashes);
    }
    case 'card':
      return tryCard(tracing, set, task.wish, task.one, task.kit);
    case 'region': {
      const points = pointsOfRegion(tracing, set, task.region, REGION_PLACES);
      const things = [...new Set(points.map(({ thing }) => thing.name))];
      const mirrors = points.filter((point) => (point.mirrors?.part ?? 0) > MIRROR).length;
      const mirrorPart = mirrors / Math.max(1, points.length);
      return { things, mirrorPart, places: points.map(({ across, down }) => ({ across, down })) };
    }
  }
}

const judged = (evidence: Evidence, frame: FrameTones | undefined) =>
  judgeSet(frame ? evidenceOfFrame(evidence, frame) : evidence);

/** From here on a surface shows what it mirrors, not itself. */
const MIRROR = 0.5;
/** Places that are drawn of a region. */
const REGION_PLACES = 600;

/** Paths for each part of a picked spot: enough to name its sources in order. */
const PICK_SAMPLES = 384;

function pick(tracing: Tracing, across: number, down: number): Pick | null {
  const direction = new Float64Array(3);
  const seen = createLook();
  rayThrough(direction, tracing.view, across, down);
  look(seen, tracing, tracing.view.origin, direction);
  const thing = tracing.scene.things[seen.thing];
  if (!thing) return null;
  const mirrored = tracing.scene.things[seen.mirrored] ?? null;
  const through = tracing.scene.things[seen.through] ?? null;
  const triple = (from: number) => [...seen.geometry.subarray(from, from + 3)] as [number, number, number];
  return {
    thing,
    pointM: triple(0),
    normal: triple(3),
    mirrored,
    mirroredPointM: mirrored ? triple(6) : null,
    weight: seen.weight,
    through,
    throughPointM: through ? triple(9) : null,
    throughWeight: seen.throughWeight,
    sources: pickSources(tracing, tracing.view.origin, direction, PICK_SAMPLES),
  };
}
