import {
  ANGLES_OFFSET,
  EMITTER_STRIDE,
  GOBO_HEIGHT,
  GOBO_OFFSET,
  GOBO_WIDTH,
  HORIZONTALS,
  VERTICALS,
} from '../engine/layouts.js';
import type { SceneTables } from '../engine/tables.js';
import type { Emitter } from './emitter.js';
import { drawGobo } from './gobo.js';

/** Puts emitters into the tables of the engine, with their gobos and tables of intensities. */
export function packEmitters(tables: SceneTables, emitters: readonly Emitter[]): void {
  const data = new Float64Array(emitters.length * EMITTER_STRIDE);
  const rasters: Float32Array[] = [];
  const angles: Float64Array[] = [];
  let rasterOffset = 0;
  let angleOffset = 0;
  emitters.forEach((emitter, index) => {
    const e = index * EMITTER_STRIDE;
    data.set(emitter.data, e);
    if (emitter.gobo) {
      const { widthPx, heightPx, value } = drawGobo(emitter.gobo);
      data[e + GOBO_OFFSET] = rasterOffset;
      data[e + GOBO_WIDTH] = widthPx;
      data[e + GOBO_HEIGHT] = heightPx;
      rasters.push(value);
      rasterOffset += value.length;
    }
    if (emitter.table) {
      const { verticalRad, horizontalRad, value } = emitter.table;
      data[e + ANGLES_OFFSET] = angleOffset;
      data[e + VERTICALS] = verticalRad.length;
      data[e + HORIZONTALS] = horizontalRad.length;
      angles.push(verticalRad, horizontalRad, value);
      angleOffset += verticalRad.length + horizontalRad.length + value.length;
    }
  });
  tables.filmAxis = Float64Array.from(emitters.flatMap(({ filmAxis }) => filmAxis ?? [0, 0, 0]));
  tables.emitterCount = emitters.length;
  tables.emitters = data;
  tables.rasters = joined32(rasters, rasterOffset);
  tables.angles = joined64(angles, angleOffset);
}

export function joined32(parts: readonly Float32Array[], length: number): Float32Array {
  const whole = new Float32Array(length);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

export function joined64(parts: readonly Float64Array[], length: number): Float64Array {
  const whole = new Float64Array(length);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
