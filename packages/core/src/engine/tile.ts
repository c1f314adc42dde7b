import type { Kernel } from './kernel.js';
import {
  VIEW_FOCUS,
  VIEW_FORWARD,
  VIEW_HALF_HEIGHT,
  VIEW_HALF_WIDTH,
  VIEW_ORIGIN,
  VIEW_PUPIL,
  VIEW_RIGHT,
  VIEW_STRIDE,
  VIEW_UP,
} from './layouts.js';
import type { PathTracer } from './path/pathTracer.js';
import { divide32, type i32, real, whole32 } from './portable.js';
import type { Sampler } from './sampler.js';
import { dot3, scale3 } from './vectors.js';

/** Unit direction of the ray through a picture point, 0 to 1 right and down. @param out 0-2 direction */
export function viewRay(out: Float64Array, view: Float64Array, across: number, down: number): void {
  const a = (2 * across - 1) * view[VIEW_HALF_WIDTH];
  const b = (1 - 2 * down) * view[VIEW_HALF_HEIGHT];
  const inverse = 1 / Math.sqrt(1 + a * a + b * b);
  out[0] = inverse * (view[VIEW_FORWARD] + a * view[VIEW_RIGHT] + b * view[VIEW_UP]);
  out[1] = inverse * (view[VIEW_FORWARD + 1] + a * view[VIEW_RIGHT + 1] + b * view[VIEW_UP + 1]);
  out[2] = inverse * (view[VIEW_FORWARD + 2] + a * view[VIEW_RIGHT + 2] + b * view[VIEW_UP + 2]);
}

/** Side of the blocks of pixels whose rays of the camera are asked together. */
export const BLOCK = 8;

/** Takes up a block of pixels for rays of the camera, see `Kernel.openView`. */
export function openBlock(
  kernel: Kernel,
  view: Float64Array,
  px: i32,
  py: i32,
  columns: i32,
  rows: i32,
  width: i32,
  height: i32,
): void {
  const left = real(px) / real(width);
  const right = real(px + columns) / real(width);
  kernel.openView(view, left, right, real(py) / real(height), real(py + rows) / real(height));
}

/** Pixels asked for in one call. */
export const CALL_PIXELS = 256;

/** Renders tiles of a picture: box filter over the pixel, pinhole or entrance pupil. */
export class TileRenderer {
  view: Float64Array = new Float64Array(VIEW_STRIDE);
  /**
   * Which pixels to render, py * width + px; answered in place by what is seen sharply in the last sample of each, see
   * `QuickStep.seen`.
   */
  list: Float64Array = new Float64Array(CALL_PIXELS);
  /** Sums of the samples of the pixels rendered last: [(pixel * channels + channel) * 3 + colour]. */
  sums: Float64Array;
  private tracer: PathTracer;
  private sampler: Sampler;
  private origin: Float64Array = new Float64Array(3);
  private direction: Float64Array = new Float64Array(3);

  constructor(tracer: PathTracer, sampler: Sampler) {
    this.tracer = tracer;
    this.sampler = sampler;
    this.sums = new Float64Array(CALL_PIXELS * tracer.films.sums.length);
  }

  /** Renders the first `count` pixels of `list` into `sums`. */
  renderPixels(count: i32, width: i32, height: i32, first: i32, samples: i32): void {
    for (let a = 0; a < 3; a++) this.tracer.level[a] = this.view[VIEW_RIGHT + a];
    const films = this.tracer.films.sums;
    const size = films.length;
    for (let i = 0; i < count; i++) {
      const pixel = whole32(this.list[i]);
      const py = divide32(pixel, width);
      this.renderPixel(pixel - py * width, py, width, height, first, samples);
      for (let c = 0; c < size; c++) this.sums[i * size + c] = films[c];
      this.list[i] = real(this.tracer.quick.seen);
    }
  }

  /** Adds samples of one pixel to the tracer's films. */
  private renderPixel(px: i32, py: i32, width: i32, height: i32, firstSample: i32, samples: i32): void {
    const sampler = this.sampler;
    const view = this.view;
    const tracer = this.tracer;
    tracer.films.sums.fill(0);
    for (let i = 0; i < samples; i++) {
      if (tracer.mode.quick) this.startShared(px, py, width, firstSample + i);
      else sampler.start(py * width + px, firstSample + i);
      sampler.next();
      const across = (real(px) + sampler.uv[0]) / real(width);
      const down = (real(py) + sampler.uv[1]) / real(height);
      viewRay(this.direction, view, across, down);
      for (let a = 0; a < 3; a++) this.origin[a] = view[VIEW_ORIGIN + a];
      if (view[VIEW_PUPIL] > 0) {
        sampler.next();
        this.throughPupil();
      }
      tracer.trace(this.origin, this.direction, false);
    }
  }

  /**
   * Pixels of a quick picture share sequences with those round them, in an order in which neighbours that are averaged lie evenly
   * together: every fourth pixel of every fourth row by turns of the Z curve.
   */
  private startShared(px: i32, py: i32, width: i32, sample: i32): void {
    const blocks = (width >> 5) + 1;
    const block = ((py >> 5) * blocks + (px >> 5)) * 16 + (px & 3) + 4 * (py & 3);
    const x = (px >> 2) & 7;
    const y = (py >> 2) & 7;
    const turn = (x & 1) | ((y & 1) << 1) | ((x & 2) << 1) | ((y & 2) << 2) | ((x & 4) << 2) | ((y & 4) << 3);
    this.sampler.start(block, 64 * sample + turn);
  }

  /** Moves a ray to a place of the entrance pupil so that it still meets its point of the plane in focus. */
  private throughPupil(): void {
    const view = this.view;
    const direction = this.direction;
    const radius = view[VIEW_PUPIL] * Math.sqrt(this.sampler.uv[0]);
    const phi = 2 * Math.PI * this.sampler.uv[1];
    const across = radius * Math.cos(phi);
    const up = radius * Math.sin(phi);
    let along: number = 0;
    for (let a = 0; a < 3; a++) along += direction[a] * view[VIEW_FORWARD + a];
    const reach = view[VIEW_FOCUS] / along;
    for (let a = 0; a < 3; a++) {
      const shift = across * view[VIEW_RIGHT + a] + up * view[VIEW_UP + a];
      this.origin[a] = view[VIEW_ORIGIN + a] + shift;
      direction[a] = reach * direction[a] - shift;
    }
    scale3(direction, 1 / Math.sqrt(dot3(direction, direction)));
  }
}
