import type { SetDocument } from '@fendrix/contract';
import type { Thing } from '../geometry/scene.js';
import type { Evidence } from './evidence.js';
import type { Working } from './working.js';

/**
 * What a figure of a verdict is counted in. `part`: of a whole, 0 to 1; `spread`: 1 even, 0 all on one side; `steep`: stops
 * in a hundredth of the width.
 */
export type FigureUnit =
  | 'part'
  | 'stops'
  | 'm'
  | 'px'
  | 'deltaE'
  | 's'
  | 'spread'
  | 'deg'
  | 'count'
  | 'W'
  | 'steep';

/** How much, with its uncertainty, and where it would be well. */
export interface Figure {
  value: number;
  /** Standard error by the batches of samples; 0 for what is no matter of light. */
  error: number;
  unit: FigureUnit;
  /** The limit, and on which side of it the fault lies. */
  limit: number;
  fault: 'above' | 'below';
}

/** What has a part in a fault. */
export interface Cause {
  thing: Thing;
  /** Of the fault, 0 to 1; null where it has no measure. */
  part: number | null;
}

/** A fault that a judge found. */
export interface Finding {
  code: string;
  /** What it is a fault of; null for the picture as a whole. */
  of: Thing | null;
  /** Where it is seen: places of the evidence; none where it is not a matter of places. */
  places: readonly number[];
  figure: Figure;
  /** How the figure was worked out. */
  working: Working;
  /** Largest part first. */
  causes: readonly Cause[];
}

/** One kind of fault: how it is known and what usually mends it. Both are pure. */
export interface Judge<C extends string = string> {
  code: C;
  /** Whether it can hurt someone: told before all else. */
  danger?: true;
  /** Whether it is known by what is seen and mirrored alone, before any light is traced. */
  byMaps?: true;
  judge(evidence: Evidence): Omit<Finding, 'code'>[];
  /** Sets in which it may be mended, the least change first; each is tried before it is offered. */
  cures(evidence: Evidence, finding: Finding): SetDocument[];
}

/** How far a figure lies beyond its limit, in its unit; 0 or less where it is well. */
export const excessOf = ({ value, limit, fault }: Pick<Figure, 'value' | 'limit' | 'fault'>): number =>
  fault === 'above' ? value - limit : limit - value;
