import { PAPER_WHITE_STOPS } from '../exposure/exposure.js';
import type { Figure, FigureUnit } from './verdict.js';

/**
 * From where on something is told, why, and how grave it is. Numbers are usual practice unless a source is named; each
 * can be overruled. docs/physics/judging.md gives the reasons at length.
 */
export interface Threshold {
  unit: FigureUnit;
  /** The figure from which on it is a fault, and on which side of it. */
  limit: number;
  fault: Figure['fault'];
  /** This much beyond the limit it is as grave as it gets. */
  span: number;
  /** Harm at the limit, 0 to 1; twice as much at its gravest. */
  harm: number;
  /** Minutes to mend it at the set, and in retouching; null where retouching cannot. */
  minutes: { now: number; retouching: number | null };
}

export const THRESHOLDS = {
  /** A lamp that scorches: paper and cloth half a metre away. */
  'hot-lamp': {
    unit: 'm',
    fault: 'below',
    limit: 0.5,
    span: 0.4,
    harm: 2,
    minutes: { now: 2, retouching: null },
  },
  /** Shorter than the sync of the body: a part of the frame stays dark. */
  'over-sync': {
    unit: 'stops',
    fault: 'above',
    limit: 0,
    span: 1,
    harm: 1,
    minutes: { now: 0.5, retouching: null },
  },
  /** Of the frame or its crops; one place of the grid is about a third of a thousandth. */
  'thing-in-frame': {
    unit: 'part',
    fault: 'above',
    limit: 0.0005,
    span: 0.02,
    harm: 0.8,
    minutes: { now: 2, retouching: 5 },
  },
  /** Blur of the nearest or farthest part that is to be sharp: the usual 0.03 mm of a 36 mm sensor is five of 6000 pixels. */
  'not-sharp': {
    unit: 'px',
    fault: 'above',
    limit: 5,
    span: 8,
    harm: 0.7,
    minutes: { now: 2, retouching: null },
  },
  /** Of what the product shows of itself, over paper white: nothing is printed there. */
  burnt: {
    unit: 'part',
    fault: 'above',
    limit: 0.02,
    span: 0.15,
    harm: 0.7,
    minutes: { now: 2, retouching: 15 },
  },
  /** Of what the product shows of itself, under the darkest tone that is wished. */
  'lost-in-black': {
    unit: 'part',
    fault: 'above',
    limit: 0.25,
    span: 0.4,
    harm: 0.4,
    minutes: { now: 3, retouching: 10 },
  },
  /** Of the outline, within a third of a stop of what is behind it. */
  'edge-lost': {
    unit: 'part',
    fault: 'above',
    limit: 0.2,
    span: 0.4,
    harm: 0.5,
    minutes: { now: 4, retouching: 15 },
  },
  /** Of the surface that mirrors: a dark shape of a thousandth is found by the eye, a hundredth is seen at once. */
  'seen-in-product': {
    unit: 'part',
    fault: 'above',
    limit: 0.01,
    span: 0.06,
    harm: 0.6,
    minutes: { now: 4, retouching: 20 },
  },
  /** Of the surface that mirrors, four stops under mid-tone: metal looks black where it mirrors nothing bright. */
  'dark-hole': {
    unit: 'part',
    fault: 'above',
    limit: 0.4,
    span: 0.4,
    harm: 0.45,
    minutes: { now: 4, retouching: 25 },
  },
  /** Tone of a ground that is to be white. */
  'ground-not-white': {
    unit: 'stops',
    fault: 'below',
    limit: PAPER_WHITE_STOPS,
    span: 2,
    harm: 0.5,
    minutes: { now: 4, retouching: 15 },
  },
  /** Over the white of the products: more wraps round their edges. */
  'ground-too-white': {
    unit: 'stops',
    fault: 'above',
    limit: 1,
    span: 1.5,
    harm: 0.35,
    minutes: { now: 2, retouching: 20 },
  },
  /** Five stops under mid-tone are black. */
  'ground-not-black': {
    unit: 'stops',
    fault: 'above',
    limit: -5,
    span: 3,
    harm: 0.5,
    minutes: { now: 5, retouching: 10 },
  },
  /** Stops off the grey that is wished. */
  'ground-off-grey': {
    unit: 'stops',
    fault: 'above',
    limit: 0.5,
    span: 1.5,
    harm: 0.35,
    minutes: { now: 3, retouching: 5 },
  },
  /** CIEDE2000 of a mid grey under a light that gives a tenth of the picture or more. */
  'mixed-colour': {
    unit: 'deltaE',
    fault: 'above',
    limit: 6,
    span: 14,
    harm: 0.5,
    minutes: { now: 3, retouching: 15 },
  },
  /** Lasting light under the flash, stops: four are a sixteenth. */
  'room-light': {
    unit: 'stops',
    fault: 'below',
    limit: 4,
    span: 3,
    harm: 0.5,
    minutes: { now: 1, retouching: null },
  },
  /** Part of the visible width within a stop of the brightest, where it is to be broad. */
  'highlight-narrow': {
    unit: 'part',
    fault: 'below',
    limit: 0.25,
    span: 0.2,
    harm: 0.4,
    minutes: { now: 4, retouching: 30 },
  },
  /** Left against right, where two strips are wished: 1 is even. */
  'highlight-uneven': {
    unit: 'spread',
    fault: 'below',
    limit: 0.7,
    span: 0.5,
    harm: 0.4,
    minutes: { now: 3, retouching: 30 },
  },
  /** Stops of a pinned spot off the tone that is wanted there. */
  'tone-missed': {
    unit: 'stops',
    fault: 'above',
    limit: 0.05,
    span: 1.5,
    harm: 0.45,
    minutes: { now: 2, retouching: 8 },
  },
} as const satisfies Record<string, Threshold>;

export type VerdictCode = keyof typeof THRESHOLDS;
export type Thresholds = Readonly<Record<VerdictCode, Threshold>>;
