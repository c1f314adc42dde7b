import { PARTED, SLANT_KEPT } from '../fresnel.js';
import type { i32 } from '../portable.js';
import { copy3, dot3 } from '../vectors.js';

const across = new Float64Array(3);
const upright = new Float64Array(3);

function cross3(out: Float64Array, a: Float64Array, b: Float64Array): void {
  out[0] = a[1] * b[2] - a[2] * b[1];
  out[1] = a[2] * b[0] - a[0] * b[2];
  out[2] = a[0] * b[1] - a[1] * b[0];
}

/** The part of a direction that is square to another, unit; 0 where there is none. */
function square(out: Float64Array, direction: Float64Array, to: Float64Array): void {
  const along = dot3(direction, to);
  for (let a = 0; a < 3; a++) out[a] = direction[a] - along * to[a];
  const size = Math.sqrt(dot3(out, out));
  for (let a = 0; a < 3; a++) out[a] = size > 1e-9 ? out[a] / size : 0;
}

/**
 * What light with any linear polarisation, met where a way stands, counts for the three linear Stokes numbers of the light at
 * its start: all; level less upright; slanted one way less the other. A row for each, in the frame of `level` and what is
 * square to it and to the way; the mean of what surfaces mirror or let through is in the way's throughput.
 * Limits: no circular part, so that what metal or total reflection has made elliptical is not turned back by the next; sums
 * over all wavelengths alike.
 * Source: Mueller calculus, backwards along the way; Collett 1992
 */
export class Stokes {
  rows: Float64Array = new Float64Array(9);
  /** Unit, square to the way. */
  level: Float64Array = new Float64Array(3);

  /** At the lens. @param level the direction that counts as level there */
  begin(direction: Float64Array, level: Float64Array): void {
    for (let i: i32 = 0; i < 9; i++) this.rows[i] = i % 4 === 0 ? 1 : 0;
    square(this.level, level, direction);
  }

  copy(from: Stokes): void {
    for (let i: i32 = 0; i < 9; i++) this.rows[i] = from.rows[i];
    copy3(this.level, from.level);
  }

  /** Scattered so that nothing is left of its polarisation. */
  depolarise(): void {
    for (let k: i32 = 0; k < 3; k++) {
      this.rows[3 * k + 1] = 0;
      this.rows[3 * k + 2] = 0;
    }
  }

  /**
   * Mirrored or let through. @param direction of the way before  @param normal of the surface, or of the facet that mirrors
   * @param part of the light that is treated so; the rest loses its polarisation
   */
  meet(direction: Float64Array, normal: Float64Array, how: Float64Array, part: number): void {
    const rows = this.rows;
    this.turn(direction, normal);
    const parted = how[PARTED];
    const kept = how[SLANT_KEPT];
    for (let k: i32 = 0; k < 9; k += 3) {
      const all = rows[k];
      const plane = rows[k + 1];
      rows[k] = all + part * plane * parted;
      rows[k + 1] = part * (all * parted + plane);
      rows[k + 2] = part * rows[k + 2] * kept;
    }
  }

  /** Into the frame of the plane of incidence: `level` is then what lies across it. Straight on any frame will do. */
  private turn(direction: Float64Array, normal: Float64Array): void {
    cross3(across, direction, normal);
    const size = Math.sqrt(dot3(across, across));
    if (!(size > 1e-6)) return;
    for (let a = 0; a < 3; a++) across[a] = across[a] / size;
    this.turnTo(direction);
  }

  /** Into the frame in which a direction is level, as nearly as it can be square to the way. */
  levelBy(direction: Float64Array, level: Float64Array): void {
    square(across, level, direction);
    this.turnTo(direction);
  }

  /** Into the frame of `across`. */
  private turnTo(direction: Float64Array): void {
    cross3(upright, direction, this.level);
    const cosine = dot3(across, this.level);
    const sine = dot3(across, upright);
    const twice = cosine * cosine - sine * sine;
    const slant = 2 * cosine * sine;
    const rows = this.rows;
    for (let k: i32 = 0; k < 9; k += 3) {
      const plane = rows[k + 1];
      const slanted = rows[k + 2];
      rows[k + 1] = twice * plane + slant * slanted;
      rows[k + 2] = twice * slanted - slant * plane;
    }
    copy3(this.level, across);
  }

  /**
   * What light met counts for each row. @param direction of the way  @param axes of polarising films, three numbers each
   * @param film first of the three of the film before the light, none before it where they are 0 or this is below 0
   */
  count(out: Float64Array, direction: Float64Array, axes: Float64Array, film: i32): void {
    let plane: number = 0;
    let slanted: number = 0;
    if (film >= 0) {
      for (let a: i32 = 0; a < 3; a++) across[a] = axes[film + a];
      cross3(upright, direction, this.level);
      const x = dot3(across, this.level);
      const y = dot3(across, upright);
      const squared = x * x + y * y;
      if (squared > 1e-12) {
        plane = (x * x - y * y) / squared;
        slanted = (2 * x * y) / squared;
      }
    }
    const rows = this.rows;
    for (let k: i32 = 0; k < 3; k++) {
      out[k] = rows[3 * k] + plane * rows[3 * k + 1] + slanted * rows[3 * k + 2];
    }
  }
}
