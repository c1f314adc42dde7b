import type { SetDocument } from '@fendrix/contract';
import { illuminanceByLight } from '../judge/illuminance.js';
import { type FieldTrace, traceField } from '../judge/readField.js';
import { type SpotTrace, traceSpot } from '../judge/readSpot.js';
import { type BandProfile, bandProfile } from '../mirror/bandProfile.js';
import { type MirrorMap, mirrorMapTile } from '../mirror/mirrorMap.js';
import { depthTile } from '../render/depthMap.js';
import type { Tracing } from '../render/prepareTracing.js';
import { pointsSeen } from './pointsSeen.js';
import { shadedBy } from './shadedBy.js';
import { type Glare, traceGlare } from './traceGlare.js';

/** The picture as judges look at it: few places, each film apart, free of powers, switches and settings. */
export interface TracedView {
  /** The same places, each time with samples of their own: what the batches differ by is the uncertainty. */
  batches: readonly FieldTrace[];
  /** All batches together. */
  whole: FieldTrace;
  /** By place: thing mirrored, -1 the dark, -2 no mirror; and the part of its light that is mirrored, 0 to 1. */
  mirrored: Int32Array;
  mirroredPart: Float32Array;
  /** Point mirrored, 3 a place, m; NaN where there is none. */
  mirroredPointM: Float32Array;
  /** By place: thing seen through it, -2 nothing is; and the part of its light that comes through, 0 to 1. */
  through: Int32Array;
  throughPart: Float32Array;
  /** By place: depth of what is seen along the lens axis from the entrance pupil, m; NaN where nothing is. */
  depthM: Float32Array;
  /** Point seen at each place, 3 a place, m; NaN where nothing is. */
  pointM: Float32Array;
  /** What is seen, mirrored and seen through, four times as fine. */
  fine: MirrorMap;
  /** For each light, by place: the product, by its number in the set, that stands before it; `LIT`, or `NOT_ASKED`. */
  shade: readonly Int8Array[];
  /** What comes from each film straight into the lens at unit luminance, lx per cd/m2; of what is not in the frame as well as of what is. */
  intoLens: readonly number[];
  /** What labels mirror. */
  glare: Glare;
  /** Across each product that has an upright side, at its band's height. */
  profiles: readonly BandProfile[];
  /** The pinned spots. */
  spots: readonly SpotTrace[];
}

const WHOLE = { left: 0, top: 0, right: 1, bottom: 1 };
const ACROSS = 60;
/** The fine map has so many places for one of the others, each way. */
const FINER = 4;
const BATCHES = 4;
const COLUMNS = 48;
const SPOT_SAMPLES = 192;
const GLARE_SAMPLES = 4;
const LENS_SAMPLES = 64;

export interface ViewEffort {
  /** Paths a place in each batch, and a column of the profiles; 0 for what is seen and mirrored alone, see `BY_MAPS`. */
  samples: number;
}

/** Traces the view of a set: about 2400 places, four batches, lightmaps included. Without samples all is black. */
export function traceView(tracing: Tracing, set: SetDocument, { samples }: ViewEffort): TracedView {
  const { sensorWidthM, sensorHeightM } = set.camera.body;
  const across = ACROSS;
  const down = Math.max(8, Math.round((ACROSS * sensorHeightM) / sensorWidthM));
  const frame = { x: 0, y: 0, width: across, height: down };
  const map = mirrorMapTile(tracing, across, down, frame);
  const depthM = depthTile(tracing, across, down, frame);
  const pointM = pointsSeen(tracing.view, across, down, depthM);
  const fine = { x: 0, y: 0, width: FINER * across, height: FINER * down };
  const maps = {
    mirrored: map.mirrored,
    mirroredPart: map.weight,
    mirroredPointM: map.point,
    through: map.through,
    throughPart: map.throughWeight,
    depthM,
    pointM,
    fine: mirrorMapTile(tracing, fine.width, fine.height, fine),
    shade: shadedBy(set, pointM),
  };
  if (samples === 0) {
    const { things, channelCount } = tracing.scene;
    const unit = new Float32Array(3 * channelCount * across * down);
    const whole = { rect: WHOLE, across, down, thing: map.thing, things, unit, samples };
    const glare = { places: new Int32Array(0), unit: new Float32Array(0) };
    return { ...maps, batches: [], whole, intoLens: [], glare, profiles: [], spots: [] };
  }
  const batches = Array.from({ length: BATCHES }, (_, i) =>
    traceField(tracing, WHOLE, { across, down, samples, seed: i + 1 }),
  );
  return {
    ...maps,
    batches,
    whole: mean(batches),
    intoLens: lightIntoLens(tracing),
    glare: traceGlare(tracing, set, pointM, map.thing, GLARE_SAMPLES),
    profiles: set.products.flatMap(
      (product) => bandProfile(tracing, product, { columns: COLUMNS, samples: 2 * samples }) ?? [],
    ),
    spots: set.spots.map((spot) => traceSpot(tracing, spot, SPOT_SAMPLES, 1)),
  };
}

const lightIntoLens = (tracing: Tracing): number[] =>
  illuminanceByLight(tracing, tracing.view.origin, tracing.view.forward, {
    samples: LENS_SAMPLES,
    seed: 1,
    directOnly: true,
  }).map(({ direct }) => direct);

function mean(batches: readonly FieldTrace[]): FieldTrace {
  const [first, ...rest] = batches as [FieldTrace, ...FieldTrace[]];
  const unit = first.unit.slice();
  for (const batch of rest)
    for (let k = 0; k < unit.length; k++) unit[k] = (unit[k] as number) + (batch.unit[k] as number);
  for (let k = 0; k < unit.length; k++) unit[k] = (unit[k] as number) / batches.length;
  return { ...first, unit, samples: first.samples * batches.length };
}
