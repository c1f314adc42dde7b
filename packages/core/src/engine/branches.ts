import type { i32 } from './portable.js';

/** Branches of one path that may wait at once. */
const MOST_WAITING = 8;
// Numbers kept of each: origin m, unit direction, throughput, density with which the direction was chosen.
const BRANCH_ORIGIN: i32 = 0;
const BRANCH_DIRECTION: i32 = BRANCH_ORIGIN + 3;
const BRANCH_WEIGHT: i32 = BRANCH_DIRECTION + 3;
const BRANCH_PDF: i32 = BRANCH_WEIGHT + 3;
const BRANCH_STRIDE: i32 = BRANCH_PDF + 1;

/**
 * Ways a path has parted into and not yet gone: where a surface both mirrors and lets through, both are followed, so
 * that chance does not pick what is seen in clear things; where light is first scattered, two ways are.
 */
export class Branches {
  waiting: i32 = 0;
  /** How often a path may still part. */
  left: i32 = 0;
  private numbers: Float64Array = new Float64Array(MOST_WAITING * BRANCH_STRIDE);
  private insides: Int32Array = new Int32Array(MOST_WAITING);
  private flags: Int32Array = new Int32Array(MOST_WAITING);
  private bounces: Int32Array = new Int32Array(MOST_WAITING);

  start(): void {
    this.waiting = 0;
    this.left = MOST_WAITING;
  }

  /**
   * Sets a way aside. @param part of the weight that goes it  @param inside media  @param bounce surfaces met
   * @param pdf density of the direction, 1/sr; 0 where light sampling had no part  @param flags of the path
   */
  push(
    origin: Float64Array,
    direction: Float64Array,
    weight: Float64Array,
    part: number,
    inside: i32,
    bounce: i32,
    pdf: number,
    flags: i32,
  ): void {
    const numbers = this.numbers;
    const o = this.waiting * BRANCH_STRIDE;
    for (let a = 0; a < 3; a++) {
      numbers[o + BRANCH_ORIGIN + a] = origin[a];
      numbers[o + BRANCH_DIRECTION + a] = direction[a];
      numbers[o + BRANCH_WEIGHT + a] = part * weight[a];
    }
    numbers[o + BRANCH_PDF] = pdf;
    this.flags[this.waiting] = flags;
    this.insides[this.waiting] = inside;
    this.bounces[this.waiting] = bounce;
    this.waiting = this.waiting + 1;
    this.left = this.left - 1;
  }

  /** Takes the last way set aside. @returns its media; the others `OfLast` are to be read before */
  pop(origin: Float64Array, direction: Float64Array, weight: Float64Array): i32 {
    this.waiting = this.waiting - 1;
    const numbers = this.numbers;
    const o = this.waiting * BRANCH_STRIDE;
    for (let a = 0; a < 3; a++) {
      origin[a] = numbers[o + BRANCH_ORIGIN + a];
      direction[a] = numbers[o + BRANCH_DIRECTION + a];
      weight[a] = numbers[o + BRANCH_WEIGHT + a];
    }
    return this.insides[this.waiting];
  }

  pdfOfLast(): number {
    return this.numbers[(this.waiting - 1) * BRANCH_STRIDE + BRANCH_PDF];
  }

  flagsOfLast(): i32 {
    return this.flags[this.waiting - 1];
  }

  bounceOfLast(): i32 {
    return this.bounces[this.waiting - 1];
  }
}
