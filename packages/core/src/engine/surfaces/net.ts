import {
  BOTTOM_EDGE,
  EDGE_SIDE,
  EDGE_WIDTH,
  LEFT_EDGE,
  NO_EDGE,
  RIGHT_EDGE,
  STRAIGHT,
  TOP_EDGE,
} from '../layouts.js';
import { patternCoordinates } from '../normals.js';
import { type i32, whole32 } from '../portable.js';
import { fill3 } from '../vectors.js';
import { EvenBase } from './evenBase.js';

const coordinates = new Float64Array(2);

/** Nets, scrims, dotted flags: holes too small to see, between threads that scatter evenly. Source: docs/physics/surfaces.md */
export class Net extends EvenBase {
  override letsStraight(surface: i32): boolean {
    return this.t.surfaces[surface + EDGE_SIDE] !== NO_EDGE || super.letsStraight(surface);
  }

  override straight(out: Float64Array, surface: i32, primitive: i32, point: Float64Array): void {
    fill3(out, this.openness(surface, primitive, point));
  }

  override closed(surface: i32, straight: Float64Array): number {
    const even = this.t.surfaces[surface + STRAIGHT];
    return even < 1 ? (1 - straight[0]) / (1 - even) : 1;
  }

  /** How far it is open at a point: 1 lets all light pass. */
  private openness(surface: i32, primitive: i32, point: Float64Array): number {
    const s = this.t.surfaces;
    const open = s[surface + STRAIGHT];
    const side = whole32(s[surface + EDGE_SIDE]);
    if (side === NO_EDGE) return open;
    patternCoordinates(coordinates, this.t, primitive, point);
    const a = coordinates[0];
    const b = coordinates[1];
    let away = Math.min(Math.min(a, b), Math.min(1 - a, 1 - b));
    if (side === LEFT_EDGE) away = a;
    else if (side === RIGHT_EDGE) away = 1 - a;
    else if (side === BOTTOM_EDGE) away = b;
    else if (side === TOP_EDGE) away = 1 - b;
    return open + (1 - open) * Math.max(0, 1 - away / s[surface + EDGE_WIDTH]);
  }
}
