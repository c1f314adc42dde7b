import {
  ALPHA_X,
  ALPHA_Y,
  BETWEEN,
  BRUSH_UP,
  COAT_ALPHA,
  COAT_INDEX,
  COAT_INSIDE,
  COAT_PASSED,
  COAT_TABLE,
  COLOUR,
  EDGE_SIDE,
  EDGE_WIDTH,
  INDEX_K,
  INDEX_N,
  KIND,
  LOBE,
  LOBE_TABLE,
  LOST_MEAN,
  MEDIUM,
  MEDIUM_STRIDE,
  RASTER,
  RELIEF,
  RELIEF_DEPTH,
  RELIEF_SIZE,
  SCATTER_PER_M,
  SceneTables,
  SHEEN,
  SINGLE,
  SPREAD,
  STRAIGHT,
  SURFACE,
  TONE,
  TONE_HEIGHT,
  TONE_PLACE,
  TONE_WIDTH,
} from '../engine/tables.js';
import type { PrimitiveTable } from '../geometry/primitives.js';
import type { Scene } from '../geometry/scene.js';
import { letsThroughStraight, type Surface } from '../geometry/surface.js';
import { diffuseFresnelOutside } from '../optics/fresnel.js';
import { joined32, joined64, packEmitters } from '../photometry/packEmitters.js';
import { buildBoundingTree } from './boundingTree.js';

const EDGE_SIDES = ['', 'left', 'right', 'bottom', 'top', 'all'];
const RELIEFS = ['', 'ripples', 'crumb', 'weave', 'crumple'];

/** A scene as the numbers that the engine reads. */
export function packScene(scene: Scene): SceneTables {
  const tables = new SceneTables();
  packPrimitives(tables, scene.table);
  packSurfaces(tables, scene.surfaces);
  packEmitters(tables, scene.emitters);
  tables.media = new Float64Array(scene.media.length * MEDIUM_STRIDE);
  scene.media.forEach(({ index, absorptionPerM, cloudPerM, face }, m) => {
    const figures = [index, ...absorptionPerM, cloudPerM, face, 1 - diffuseFresnelOutside(index)];
    tables.media.set(figures, m * MEDIUM_STRIDE);
  });
  tables.channelCount = scene.channelCount;
  tables.keptChannel = Int32Array.from(scene.keptChannel);
  tables.surrounds = Int32Array.from(scene.surrounds);
  tables.seeThrough = scene.surfaces.some(letsThroughStraight) ? 1 : 0;
  return tables;
}

/** The geometry alone, with its bounding tree. */
export function packPrimitives(tables: SceneTables, table: PrimitiveTable): void {
  const { boxes, children, leaves, order, bounds } = buildBoundingTree(table);
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

function packSurfaces(tables: SceneTables, surfaces: readonly Surface[]): void {
  const data = new Float64Array(surfaces.length * SURFACE);
  const albedos: Float64Array[] = [];
  const tones: Float32Array[] = [];
  let albedoPlace = 0;
  let tonePlace = 0;
  const addAlbedo = (table: Float64Array): number => {
    albedos.push(table);
    albedoPlace += table.length;
    return albedoPlace - table.length;
  };
  surfaces.forEach((surface, index) => {
    const s = data.subarray(index * SURFACE, (index + 1) * SURFACE);
    s[KIND] = surface.kind;
    s.set([surface.r, surface.g, surface.b], COLOUR);
    if (surface.coat) {
      s[COAT_INDEX] = surface.coat.index;
      s[COAT_ALPHA] = surface.coat.alpha;
      s[COAT_PASSED] = surface.coat.passedMean;
      s[COAT_INSIDE] = surface.coat.insideDiffuse;
      s[COAT_TABLE] = addAlbedo(surface.coat.albedo);
    }
    if (surface.lobe) {
      const { alphaX, alphaY, n, k, albedo, lostMean, between } = surface.lobe;
      s[LOBE] = 1;
      s[ALPHA_X] = alphaX;
      s[ALPHA_Y] = alphaY;
      s.set(n, INDEX_N);
      s.set(k, INDEX_K);
      s[LOBE_TABLE] = addAlbedo(albedo);
      s[LOST_MEAN] = lostMean;
      s.set(between, BETWEEN);
    }
    if (surface.frost > 0) {
      s[ALPHA_X] = surface.frost;
      s[ALPHA_Y] = surface.frost;
    }
    s[BRUSH_UP] = surface.brushUp ? 1 : 0;
    s[SHEEN] = surface.sheen;
    s.set(surface.spread, SPREAD);
    s.set(surface.straight, STRAIGHT);
    if (surface.softEdge) {
      s[EDGE_SIDE] = EDGE_SIDES.indexOf(surface.softEdge.side);
      s[EDGE_WIDTH] = surface.softEdge.widthPart;
    }
    s[SCATTER_PER_M] = surface.scatterPerM;
    s.set(surface.single, SINGLE);
    s[MEDIUM] = surface.medium;
    s[TONE] = -1;
    if (surface.tone) {
      const { kind, ends, raster, widthPx, heightPx } = surface.tone;
      const numbers = kind === RASTER ? raster : Float32Array.from(ends);
      s[TONE] = kind;
      s[TONE_PLACE] = tonePlace;
      s[TONE_WIDTH] = widthPx;
      s[TONE_HEIGHT] = heightPx;
      tones.push(numbers);
      tonePlace += numbers.length;
    }
    if (surface.relief) {
      s[RELIEF] = RELIEFS.indexOf(surface.relief.kind);
      s[RELIEF_DEPTH] = surface.relief.depthM;
      s[RELIEF_SIZE] = surface.relief.sizeM;
    }
  });
  tables.surfaceCount = surfaces.length;
  tables.surfaces = data;
  tables.albedos = joined64(albedos, albedoPlace);
  tables.tones = joined32(tones, tonePlace);
}
