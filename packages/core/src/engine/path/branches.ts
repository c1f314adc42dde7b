import type { i32 } from '../portable.js';
import { most3 } from '../vectors.js';
import type { TraceMode } from './traceMode.js';
import { Way } from './way.js';

/** Branches of one path that may wait at once. */
const MOST_WAITING: i32 = 8;
/** Of what mirrors and lets through, a part smaller than this is followed by chance. */
export const LEAST_BRANCH = 0.01;

/**
 * Ways a path has parted into and not yet gone: where a surface both mirrors and lets through, both are followed, so
 * that chance does not pick what is seen in clear things; where light is first scattered, two ways are.
 */
export class Branches {
  waiting: i32 = 0;
  /** How often a path may still part. */
  left: i32 = 0;
  private mode: TraceMode;
  private ways: Array<Way> = new Array<Way>(MOST_WAITING);

  constructor(mode: TraceMode) {
    this.mode = mode;
    for (let i: i32 = 0; i < MOST_WAITING; i++) this.ways[i] = new Way();
  }

  start(): void {
    this.waiting = 0;
    this.left = MOST_WAITING;
  }

  /** Sets aside a copy of a way, to be changed. */
  add(way: Way): Way {
    const kept = this.ways[this.waiting];
    kept.copy(way);
    this.waiting = this.waiting + 1;
    this.left = this.left - 1;
    return kept;
  }

  /** Whether a way that has met only mirrors and clear things parts here. @param part the smaller one */
  mayPart(way: Way, part: number): boolean {
    if (!way.sharp || this.left === 0) return false;
    return way.bounce === 0 || (!this.mode.quick && part * most3(way.throughput) > LEAST_BRANCH);
  }

  /** Whether it may part into three: each of them may part again. */
  mayPartTwice(way: Way): boolean {
    return way.sharp && this.left > 2;
  }

  /** Sets aside the mirrored part of what is met at a point; its direction is to be written. */
  addReflection(way: Way, point: Float64Array, reflected: number): Way {
    const kept = this.add(way);
    kept.setOutFrom(point, reflected);
    kept.sharp = true;
    kept.pdf = 0;
    kept.forgetSampled();
    kept.sampleOnce();
    return kept;
  }

  /** The way set aside last. */
  take(): Way {
    this.waiting = this.waiting - 1;
    return this.ways[this.waiting];
  }
}
