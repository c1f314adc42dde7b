import type { Relief } from '@fendrix/contract';
import {
  ABSORPTION,
  ALL_EDGES,
  ALPHA_X,
  ALPHA_Y,
  BASE_COLOUR,
  BOTTOM_EDGE,
  BRUSH_UP,
  CLOUD_FACE,
  CLOUD_PER_M,
  COAT_ALPHA,
  COAT_INDEX,
  COAT_INSIDE,
  COAT_PASSED,
  COAT_TABLE,
  COLOUR_INDEX,
  CRUMB,
  CRUMPLE,
  EDGE_SIDE,
  EDGE_WIDTH,
  HAS_LOBE,
  INDEX_K,
  INDEX_N,
  LEFT_EDGE,
  LETS_IN,
  LOBE_BETWEEN,
  LOBE_TABLE,
  MEDIUM_INDEX,
  MEDIUM_STRIDE,
  NO_TONE,
  RASTER,
  RELIEF,
  RELIEF_DEPTH,
  RELIEF_SIZE,
  RETURN_ALPHA,
  RETURN_COLOUR,
  RETURN_MEAN,
  RETURN_TABLE,
  RIGHT_EDGE,
  RIPPLES,
  SCATTER_PER_M,
  SHEEN,
  SHEEN_MEAN,
  SHEEN_TABLE,
  SINGLE_ALBEDO,
  SPREAD,
  STRAIGHT,
  SURFACE_KIND,
  SURFACE_MEDIUM,
  SURFACE_STRIDE,
  TONE,
  TONE_HEIGHT,
  TONE_OFFSET,
  TONE_WIDTH,
  TOP_EDGE,
  WEAVE,
} from '../engine/layouts.js';
import { SceneTables } from '../engine/tables.js';
import type { PrimitiveTable } from '../geometry/primitives.js';
import type { Scene } from '../geometry/scene.js';
import { letsThroughStraight, type Medium, type SoftEdge, type Surface } from '../geometry/surface.js';
import { diffuseFresnelOutside } from '../optics/fresnel.js';
import { joined32, joined64, packEmitters } from '../photometry/packEmitters.js';
import { buildBoundingTree, refittedTree } from './boundingTree.js';

const EDGES: Record<SoftEdge['side'], number> = {
  left: LEFT_EDGE,
  right: RIGHT_EDGE,
  bottom: BOTTOM_EDGE,
  top: TOP_EDGE,
  all: ALL_EDGES,
};
const RELIEFS: Record<Relief['kind'], number> = {
  ripples: RIPPLES,
  crumb: CRUMB,
  weave: WEAVE,
  crumple: CRUMPLE,
};

/** A scene as the numbers that the engine reads. @param like see `prepareTracing` */
export function packScene(scene: Scene, like: SceneTables | null = null): SceneTables {
  const tables = new SceneTables();
  packPrimitives(tables, scene.table, like);
  packSurfaces(tables, scene.surfaces);
  packEmitters(tables, scene.emitters);
  packMedia(tables, scene.media);
  tables.channelCount = scene.channelCount;
  tables.planeChannel = Int32Array.from(scene.planeChannel);
  tables.surrounds = Int32Array.from(scene.surrounds);
  tables.seeThrough = scene.surfaces.some(letsThroughStraight) ? 1 : 0;
  return tables;
}

/** The geometry alone, with its bounding tree. */
export function packPrimitives(
  tables: SceneTables,
  table: PrimitiveTable,
  like: SceneTables | null = null,
): void {
  const tree = (like && refittedTree(like, table)) ?? buildBoundingTree(table);
  const { boxes, children, leaves, order, bounds } = tree;
  tables.count = table.count;
  tables.room = table.room;
  tables.kind = Int32Array.from(table.kind);
  tables.data = table.data;
  tables.thing = table.thing;
  tables.front = table.front;
  tables.back = table.back;
  tables.emitterOf = table.emitter;
  tables.boxes = boxes;
  tables.children = children;
  tables.leaves = leaves;
  tables.order = order;
  tables.bounds = bounds;
}

function packMedia(tables: SceneTables, media: readonly Medium[]): void {
  const data = new Float64Array(media.length * MEDIUM_STRIDE);
  media.forEach((medium, index) => {
    const m = data.subarray(index * MEDIUM_STRIDE, (index + 1) * MEDIUM_STRIDE);
    m[MEDIUM_INDEX] = medium.index;
    m.set(medium.absorptionPerM, ABSORPTION);
    m[CLOUD_PER_M] = medium.cloudPerM;
    m[CLOUD_FACE] = medium.face;
    m[LETS_IN] = 1 - diffuseFresnelOutside(medium.index);
    m.set(medium.colourIndex ?? [medium.index, medium.index, medium.index], COLOUR_INDEX);
  });
  tables.media = data;
  tables.splits = media.some(({ colourIndex }) => colourIndex !== null) ? 1 : 0;
}

function packSurfaces(tables: SceneTables, surfaces: readonly Surface[]): void {
  const data = new Float64Array(surfaces.length * SURFACE_STRIDE);
  const albedos: Float64Array[] = [];
  const tones: Float32Array[] = [];
  let albedoOffset = 0;
  let toneOffset = 0;
  const addAlbedo = (table: Float64Array): number => {
    albedos.push(table);
    albedoOffset += table.length;
    return albedoOffset - table.length;
  };
  surfaces.forEach((surface, index) => {
    const s = data.subarray(index * SURFACE_STRIDE, (index + 1) * SURFACE_STRIDE);
    s[SURFACE_KIND] = surface.kind;
    s.set([surface.r, surface.g, surface.b], BASE_COLOUR);
    if (surface.coat) {
      s[COAT_INDEX] = surface.coat.index;
      s[COAT_ALPHA] = surface.coat.alpha;
      s[COAT_PASSED] = surface.coat.passedMean;
      s[COAT_INSIDE] = surface.coat.insideDiffuse;
      s[COAT_TABLE] = addAlbedo(surface.coat.albedo);
    }
    if (surface.lobe) {
      const { alphaX, alphaY, n, k, albedo, between } = surface.lobe;
      s[HAS_LOBE] = 1;
      s[ALPHA_X] = alphaX;
      s[ALPHA_Y] = alphaY;
      s.set(n, INDEX_N);
      s.set(k, INDEX_K);
      s[LOBE_TABLE] = addAlbedo(albedo);
      s.set(between, LOBE_BETWEEN);
    }
    if (surface.returned) {
      const { lobe, colour } = surface.returned;
      s.set(colour, RETURN_COLOUR);
      s[RETURN_ALPHA] = lobe.alphaX;
      s[RETURN_TABLE] = addAlbedo(lobe.albedo);
      s[RETURN_MEAN] = 1 - lobe.lostMean;
    }
    if (surface.frost > 0) {
      s[ALPHA_X] = surface.frost;
      s[ALPHA_Y] = surface.frost;
    }
    s[BRUSH_UP] = surface.brushUp ? 1 : 0;
    if (surface.sheen) {
      s[SHEEN] = surface.sheen.part;
      s[SHEEN_TABLE] = addAlbedo(surface.sheen.albedo);
      s[SHEEN_MEAN] = surface.sheen.mean;
    }
    s.set(surface.spread, SPREAD);
    s.set(surface.straight, STRAIGHT);
    if (surface.softEdge) {
      s[EDGE_SIDE] = EDGES[surface.softEdge.side];
      s[EDGE_WIDTH] = surface.softEdge.widthPart;
    }
    s.set(surface.scatterPerM, SCATTER_PER_M);
    s.set(surface.single, SINGLE_ALBEDO);
    s[SURFACE_MEDIUM] = surface.medium;
    s[TONE] = NO_TONE;
    if (surface.tone) {
      const { kind, ends, raster, widthPx, heightPx } = surface.tone;
      const numbers = kind === RASTER ? raster : Float32Array.from(ends);
      s[TONE] = kind;
      s[TONE_OFFSET] = toneOffset;
      s[TONE_WIDTH] = widthPx;
      s[TONE_HEIGHT] = heightPx;
      tones.push(numbers);
      toneOffset += numbers.length;
    }
    if (surface.relief) {
      s[RELIEF] = RELIEFS[surface.relief.kind];
      s[RELIEF_DEPTH] = surface.relief.depthM;
      s[RELIEF_SIZE] = surface.relief.sizeM;
    }
  });
  tables.surfaceCount = surfaces.length;
  tables.surfaces = data;
  tables.albedos = joined64(albedos, albedoOffset);
  tables.tones = joined32(tones, toneOffset);
}
