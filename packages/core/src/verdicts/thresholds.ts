import type { OwnLimit } from '@fendrix/contract';
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

const row = (
  unit: FigureUnit,
  fault: Figure['fault'],
  limit: number,
  span: number,
  harm: number,
  now: number,
  retouching: number | null,
): Threshold => ({ unit, fault, limit, span, harm, minutes: { now, retouching } });

/** Unit, side of the fault, limit, span, harm at the limit, minutes at the set and in retouching. */
export const THRESHOLDS = {
  /** A lamp that scorches: paper and cloth half a metre away. */
  'hot-lamp': row('m', 'below', 0.5, 0.4, 2, 2, null),
  /** Shorter than the sync of the body: a part of the frame stays dark. */
  'over-sync': row('stops', 'above', 0, 1, 1, 0.5, null),
  /** Of the frame or its crops; one place of the grid is about a third of a thousandth. */
  'thing-in-frame': row('part', 'above', 0.0005, 0.02, 0.8, 2, 5),
  /** Blur of the nearest or farthest part that is to be sharp: the usual 0.03 mm of a 36 mm sensor is five of 6000 pixels. */
  'not-sharp': row('px', 'above', 5, 8, 0.7, 2, null),
  /** Of what the product shows of itself, over paper white: nothing is printed there. */
  burnt: row('part', 'above', 0.02, 0.15, 0.7, 2, 15),
  /** Its lightest tenth against its material in full light; a stop less in dark pictures. */
  'product-dark': row('stops', 'below', -2, 3, 0.5, 2, 10),
  /** Of what the product shows of itself, under the darkest tone that is wished. */
  'lost-in-black': row('part', 'above', 0.25, 0.4, 0.4, 3, 10),
  /** Of the outline, within a third of a stop of what is behind it. */
  'edge-lost': row('part', 'above', 0.2, 0.4, 0.5, 4, 15),
  /** Of the surface that mirrors: a dark shape of a thousandth is found by the eye, a hundredth is seen at once. */
  'seen-in-product': row('part', 'above', 0.01, 0.06, 0.6, 4, 20),
  /** Of the surface that mirrors, four stops under mid-tone: metal looks black where it mirrors nothing bright. */
  'dark-hole': row('part', 'above', 0.4, 0.4, 0.45, 4, 25),
  /** Tone of a ground that is to be white. */
  'ground-not-white': row('stops', 'below', PAPER_WHITE_STOPS, 2, 0.5, 4, 15),
  /** Over the white of the products: more wraps round their edges. */
  'ground-too-white': row('stops', 'above', 1, 1.5, 0.35, 2, 20),
  /** Five stops under mid-tone are black. */
  'ground-not-black': row('stops', 'above', -5, 3, 0.5, 5, 10),
  /** Stops off the grey that is wished. */
  'ground-off-grey': row('stops', 'above', 0.5, 1.5, 0.35, 3, 5),
  /** The worse end of a ground that is to fade, off its tone: three quarters of a stop is seen in a fading one. */
  'ground-gradient': row('stops', 'above', 0.75, 2, 0.4, 4, 10),
  /** Blur of the ground behind, of the width of the frame, where one is wished. */
  'ground-sharp': row('part', 'below', 0.004, 0.004, 0.3, 2, 15),
  /** CIEDE2000 of a mid grey under a light that gives a tenth of the picture or more. */
  'mixed-colour': row('deltaE', 'above', 6, 14, 0.5, 3, 15),
  /** Lasting light under the flash, stops: four are a sixteenth. */
  'room-light': row('stops', 'below', 4, 3, 0.5, 1, null),
  /** Part of the visible width within a stop of the brightest, where it is to be broad. */
  'highlight-narrow': row('part', 'below', 0.25, 0.2, 0.4, 4, 30),
  /** Left against right, where two strips are wished: 1 is even. */
  'highlight-uneven': row('spread', 'below', 0.7, 0.5, 0.4, 3, 30),
  /** Stops of a pinned spot off the tone that is wanted there. */
  'tone-missed': row('stops', 'above', 0.05, 1.5, 0.45, 2, 8),
  /** Of a label, where ink against paper keeps less than 4.5 to 1: WCAG 2.2, 1.4.3. */
  'words-glare': row('part', 'above', 0.1, 0.5, 0.65, 3, 20),
  /** Tone of a light label: under mid-tone less a stop it is not read at a glance. */
  'label-dark': row('stops', 'below', -1, 2, 0.45, 3, 8),
  /** The middle of a label off the lens: a sixth of a wide label is then out of sight. */
  'label-turned': row('deg', 'above', 12, 60, 0.45, 1, null),
  /** Middle of a strip off its mean along a straight side, of the width: a thirtieth is seen as bent. */
  'highlight-bent': row('part', 'above', 0.035, 0.1, 0.45, 4, 30),
  /** Of a straight side, top to bottom, that its strip leaves out. */
  'highlight-broken': row('part', 'above', 0.2, 0.5, 0.4, 4, 30),
  /** Highlights where one is wished. */
  'highlight-doubled': row('count', 'above', 1, 2, 0.4, 3, 30),
  /** Width of a strip off the wished one, part of that: a third is seen. */
  'highlight-width': row('part', 'above', 0.35, 1.5, 0.35, 3, 25),
  /** Brightest column of a highlight over its middle tone: a stop and a half is a hot spot. */
  'highlight-hot': row('stops', 'above', 1.5, 2, 0.35, 4, 20),
  /** Where it is to fade: a stop in a hundredth of the width is an edge. */
  'highlight-hard': row('steep', 'above', 1, 2, 0.35, 4, 25),
  /** Of the lowest part of a glass, through which light table is seen. */
  'glass-base': row('part', 'above', 0.3, 0.5, 0.4, 4, 15),
  /** Of the width, on either side: a dark line is a twentieth, a bar a seventh. */
  'thick-rims': row('part', 'above', 0.15, 0.25, 0.4, 5, 20),
  /** Liquid over its label: glowing liquid is lighter. */
  'liquid-dull': row('stops', 'below', 0, 2, 0.45, 5, 20),
  /** Lightest fifth of a liquid over its darkest. */
  'liquid-uneven': row('stops', 'above', 2.5, 2, 0.3, 5, 20),
  /** A soft shadow under the lit ground: two and a half stops are a sixth. */
  'shadow-deep': row('stops', 'above', 2.5, 2.5, 0.4, 3, 10),
  /** Where no shadow is wished. */
  'shadow-unwanted': row('stops', 'above', 0.7, 2, 0.45, 4, 15),
  /** Soft edge of a shadow that is to be soft. */
  'shadow-hard': row('m', 'below', 0.025, 0.02, 0.35, 4, 15),
  /** Shadows that are seen apart from each other. */
  'shadow-doubled': row('count', 'above', 1, 1, 0.4, 3, 15),
  /** Off the way that is wished: half a right angle still reads as that way. */
  'shadow-direction': row('deg', 'above', 45, 90, 0.4, 3, null),
  /** Of the lit side of a product, in the shadow of another. */
  'shadow-across': row('part', 'above', 0.15, 0.4, 0.45, 3, 15),
  /** Veil over the whole picture: black, five stops under mid-tone, is then half as bright again and more. */
  'light-in-lens': row('stops', 'above', -4, 3, 0.5, 1, 10),
  /** Blur of what falls, on the sensor: two pixels are sharp. */
  moves: row('px', 'above', 2, 30, 0.6, 2, null),
  /** Longer than this the finger on the release shakes the camera, also on a tripod. */
  shaken: row('s', 'above', 1 / 60, 0.5, 0.4, 0.5, null),
  /** Light and shade on a matte thing: less than two thirds of a stop tells little of its form. */
  flat: row('stops', 'below', 0.7, 0.5, 0.35, 4, 15),
  /** Contrast on a product off the one that is wished: a stop is seen. */
  'contrast-off': row('stops', 'above', 1, 2, 0.35, 3, 10),
  /** A flat lay, lightest ninth over darkest. */
  'lay-uneven': row('stops', 'above', 1, 1.5, 0.35, 4, 5),
  /** Products of one kind in a row, lightest over darkest: a third of a stop is seen side by side. */
  'row-uneven': row('stops', 'above', 0.4, 1.5, 0.4, 4, 8),
  /** Widest gap of a row over the narrowest. */
  'row-spacing': row('m', 'above', 0.004, 0.03, 0.35, 1, 10),
  /** Front of a row off the line. */
  'row-line': row('m', 'above', 0.005, 0.03, 0.35, 1, null),
  /** Of a product that mirrors well, in which another is seen. */
  'row-mirrored': row('part', 'above', 0.12, 0.3, 0.3, 2, 20),
  /** Gap between two outlines, of the width: nearer they seem to touch. */
  touching: row('part', 'below', 0.008, 0.008, 0.3, 1, null),
  /** Gap to an edge of the frame. */
  'at-the-edge': row('part', 'below', 0.008, 0.008, 0.35, 1, null),
  /** Of the place for words, ground that is even. */
  'no-room-for-words': row('part', 'below', 0.9, 0.4, 0.4, 2, 15),
  /** From the middle of the product to the line behind it, of its height. */
  'horizon-through': row('part', 'below', 0.25, 0.25, 0.15, 2, 20),
  /** Off the middle of the frame: from a fiftieth of the width on it is seen, and looks like a mistake. */
  'off-centre': row('part', 'above', 0.02, 0.05, 0.2, 0.5, 1),
  /** A camera held askew: a third of a degree shows against an edge of the frame. */
  tilted: row('deg', 'above', 0.3, 3, 0.4, 0.5, 1),
  /** Main light over what lies there: a raking light stands lower than a third of the way up. */
  'not-raked': row('deg', 'above', 35, 40, 0.35, 2, null),
  /** The two sides of a slope of five degrees, part of the light there: one light 41 degrees off straight ahead gives 0.15. */
  'not-picked-out': row('part', 'below', 0.15, 0.12, 0.4, 3, null),
  /** Larger or smaller than in the picture that it is to be like: a twentieth is seen side by side. */
  'unlike-size': row('part', 'above', 0.04, 0.2, 0.4, 2, 3),
  /** Off its place in that picture, of the frame. */
  'unlike-place': row('part', 'above', 0.015, 0.06, 0.35, 1, 2),
  /** The camera looks down more or less than there: round rims and table edges change. */
  'unlike-angle': row('deg', 'above', 1.5, 8, 0.4, 2, null),
  /** Ground or label lighter or darker than there. */
  'unlike-tone': row('stops', 'above', 0.33, 1.5, 0.4, 2, 5),
  /** CIEDE2000 of the ground at one lightness: three are seen where pictures stand side by side. */
  'unlike-colour': row('deltaE', 'above', 3, 10, 0.4, 1, 5),
  /** Over what the circuit bears for hours. */
  'circuit-over': row('W', 'above', 0, 1000, 1.5, 2, null),
} as const satisfies Record<string, Threshold>;

export type VerdictCode = keyof typeof THRESHOLDS;
export type Thresholds = Readonly<Record<VerdictCode, Threshold>>;

/** The table with what a studio has set for itself; what is never told has no limit. Kinds that are not known are left out. */
export function limitsWith(own: Readonly<Record<string, OwnLimit>>): Thresholds {
  const table: Record<VerdictCode, Threshold> = { ...THRESHOLDS };
  for (const code of Object.keys(THRESHOLDS) as VerdictCode[]) {
    const set = Object.hasOwn(own, code) ? own[code] : undefined;
    if (!set) continue;
    const usual = table[code];
    const never = usual.fault === 'above' ? Number.POSITIVE_INFINITY : Number.NEGATIVE_INFINITY;
    table[code] = {
      ...usual,
      limit: set.off ? never : (set.limit ?? usual.limit),
      minutes: {
        now: set.minutesNow ?? usual.minutes.now,
        retouching: set.minutesRetouching ?? usual.minutes.retouching,
      },
    };
  }
  return table;
}
