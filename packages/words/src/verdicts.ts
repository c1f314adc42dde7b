import type { SettledVerdict } from '@fendrix/contract';
import {
  formatLength,
  formatStops,
  type Overlap,
  type SideEffect,
  type Verdict,
  type VerdictCode,
} from '@fendrix/core';

type Told = Pick<Verdict, 'code' | 'of' | 'figure'>;

const percent = (part: number) => `${Number((100 * part).toFixed(part < 0.01 ? 2 : part < 0.1 ? 1 : 0))} %`;

/** A figure of a verdict as it is shown. */
export function figureWords({ value, unit }: Pick<Verdict['figure'], 'value' | 'unit'>): string {
  switch (unit) {
    case 'part':
    case 'spread':
      return percent(value);
    case 'stops':
      return formatStops(value);
    case 'm':
      return formatLength(value);
    case 'px':
      return `${value.toFixed(1)} px`;
    case 'deltaE':
      return `ΔE ${value.toFixed(1)}`;
    case 's':
      return `${value} s`;
  }
}

interface VerdictWords {
  /** What is wrong, in few words. */
  title(verdict: Told): string;
  /** How much, and what would be well, with the user's own figures. */
  figures(verdict: Told): string;
  /** Why the limit is where it is. */
  why: string;
}

const nameOf = ({ of }: Told): string => (of ? `“${of.name}”` : 'the picture');
/** Lights by their tag; the name of a sheet has its tag in it. */
const tagOf = ({ of }: Told): string =>
  !of ? 'Something' : of.kind === 'light' ? `Light ${of.key}` : of.name;
const value = ({ figure }: Told) => figureWords(figure);
const limit = ({ figure }: Told) => figureWords({ ...figure, value: figure.limit });
const steps = (stops: number) => Math.abs(stops).toFixed(1);

const WORDS: Readonly<Record<VerdictCode, VerdictWords>> = {
  'hot-lamp': {
    title: (verdict) => `${tagOf(verdict)} is a hot lamp too near to a sheet`,
    figures: (verdict) =>
      `${value(verdict)} away; ${limit(verdict)} or more keeps paper and cloth from scorching.`,
    why: 'A halogen or filament lamp scorches paper and cloth within half a metre. What is printed on the lamp comes first, and local codes.',
  },
  'over-sync': {
    title: () => 'The shutter is too fast for the flash',
    figures: (verdict) =>
      `${steps(verdict.figure.value)} stops faster than the flash sync of this body: a part of the frame stays dark.`,
    why: 'Faster than its sync the shutter is never wholly open.',
  },
  'thing-in-frame': {
    title: (verdict) => `${tagOf(verdict)} is in the frame`,
    figures: (verdict) => `${value(verdict)} of what is kept of the frame.`,
    why: 'Counted within the crops where there are any, otherwise in the whole frame.',
  },
  'not-sharp': {
    title: (verdict) => `${nameOf(verdict)} is not sharp from front to back`,
    figures: (verdict) =>
      `Its nearest or farthest part is blurred over ${value(verdict)}; up to ${limit(verdict)} is sharp at the usual size.`,
    why: 'Blur by the circle of confusion on this sensor. Round things are counted to their outline.',
  },
  burnt: {
    title: (verdict) => `${nameOf(verdict)} is burnt out`,
    figures: (verdict) =>
      `${value(verdict)} of its own surface is paper white or more; ${limit(verdict)} may be.`,
    why: 'Images of lights and cards, and what is seen through glass, are not counted: they may be white.',
  },
  'lost-in-black': {
    title: (verdict) => `${nameOf(verdict)} is lost in black`,
    figures: (verdict) =>
      `${value(verdict)} of its own surface is darker than the darkest tone that is wished; ${limit(verdict)} may be.`,
    why: 'The darkest tone is one of the wishes. Products that are black themselves are not counted.',
  },
  'edge-lost': {
    title: (verdict) => `The edge of ${nameOf(verdict)} is lost in what is behind it`,
    figures: (verdict) =>
      `Along ${value(verdict)} of its outline the step is under a third of a stop; ${limit(verdict)} may be.`,
    why: 'An edge with less than a third of a stop against its ground is not seen.',
  },
  'seen-in-product': {
    title: (verdict) => `What should not be seen is mirrored in ${nameOf(verdict)}`,
    figures: (verdict) => `${value(verdict)} of what mirrors of it; ${limit(verdict)} is hardly found.`,
    why: 'Camera, tripod, persons and stands, where the surface sends back an eighth of the light or more.',
  },
  'dark-hole': {
    title: (verdict) => `${nameOf(verdict)} has a dark hole`,
    figures: (verdict) =>
      `${value(verdict)} of its mirroring surface shows nothing bright; ${limit(verdict)} may be.`,
    why: 'Metal is as bright as what it mirrors: four stops under mid-tone it looks like a hole.',
  },
  'ground-not-white': {
    title: () => 'The background is not white',
    figures: (verdict) => `It is at ${value(verdict)}; paper white is ${limit(verdict)}.`,
    why: 'Mean of all that is seen of background and walls.',
  },
  'ground-too-white': {
    title: () => 'The background is whiter than helps',
    figures: (verdict) =>
      `${value(verdict)} over the white of the products; half to ${steps(verdict.figure.limit)} is white.`,
    why: 'More light from behind wraps round the edges and veils the dark.',
  },
  'ground-not-black': {
    title: () => 'The background is not black',
    figures: (verdict) => `It is at ${value(verdict)}; black is ${limit(verdict)} or less.`,
    why: 'Five stops under mid-tone are black in print and on screens.',
  },
  'ground-off-grey': {
    title: () => 'The background is not the grey that is wished',
    figures: (verdict) =>
      `${steps(verdict.figure.value)} stops off; ${steps(verdict.figure.limit)} is not seen.`,
    why: 'The tone of the grey is one of the wishes.',
  },
  'mixed-colour': {
    title: (verdict) => `${tagOf(verdict)} has another colour than the white balance`,
    figures: (verdict) =>
      `A grey under it alone is off by ${value(verdict)}; ${limit(verdict)} is where it is seen beside other light.`,
    why: 'Colour difference CIEDE2000 of a mid grey. Lights that give under a tenth of the picture are not counted.',
  },
  'room-light': {
    title: () => 'Lasting light shows in the flash picture',
    figures: (verdict) =>
      `It is ${steps(verdict.figure.value)} stops under the flash; ${steps(verdict.figure.limit)} or more keeps it out.`,
    why: 'Four stops are a sixteenth: colour and blur of the room are then hardly seen.',
  },
  'highlight-narrow': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} is narrow`,
    figures: (verdict) =>
      `${value(verdict)} of the width is within a stop of the brightest; ${limit(verdict)} is broad.`,
    why: 'Read across the product at the height of its mirror band.',
  },
  'highlight-uneven': {
    title: (verdict) => `The two sides of ${nameOf(verdict)} are not alike`,
    figures: (verdict) =>
      `Left and right agree to ${value(verdict)}; from ${limit(verdict)} on they look alike.`,
    why: 'Each column against its mirror image at the height of the mirror band.',
  },
  'tone-missed': {
    title: (verdict) => `Spot ${nameOf(verdict)} is off its tone`,
    figures: (verdict) => `${steps(verdict.figure.value)} stops off the tone that is wanted there.`,
    why: 'The tone wanted is set at the spot itself.',
  },
};

/** A verdict that was settled, by its kind; the thing it is of may be gone. */
export function settledWords(
  code: VerdictCode,
  { as, minutes }: Pick<SettledVerdict, 'as' | 'minutes'>,
): string {
  const what = Object.hasOwn(SHORT, code) ? SHORT[code] : 'something';
  return as === 'wanted'
    ? `${capital(what)}: wanted so`
    : `${capital(what)}: left for retouching, ${minutes ?? 0} min`;
}

const SHORT: Readonly<Record<VerdictCode, string>> = {
  'hot-lamp': 'hot lamp',
  'over-sync': 'shutter over sync',
  'thing-in-frame': 'thing in the frame',
  'not-sharp': 'not sharp',
  burnt: 'burnt out',
  'lost-in-black': 'lost in black',
  'edge-lost': 'edge lost',
  'seen-in-product': 'mirrored in the product',
  'dark-hole': 'dark hole',
  'ground-not-white': 'background not white',
  'ground-too-white': 'background too white',
  'ground-not-black': 'background not black',
  'ground-off-grey': 'background off its grey',
  'mixed-colour': 'mixed colour',
  'room-light': 'lasting light',
  'highlight-narrow': 'narrow highlight',
  'highlight-uneven': 'uneven sides',
  'tone-missed': 'tone missed',
};

/** What is wrong, in few words. */
export const verdictTitle = (verdict: Told): string => capital(WORDS[verdict.code].title(verdict));

/** How much, with its uncertainty where it is a matter of light, and what would be well. */
export const verdictFigures = (verdict: Told): string => WORDS[verdict.code].figures(verdict);

/** What a verdict is counted from, and why its limit is where it is. */
export const verdictReason = (code: VerdictCode): string => WORDS[code].why;

/** What a cure makes stand in something else. */
export function clashWords({ kind, key, other }: Pick<Overlap, 'kind' | 'key' | 'other'>): string {
  const what = { light: 'Light', sheet: 'Sheet', stand: 'The stand of' }[kind];
  return `${what} ${key} then stands in “${other.name}”`;
}

/** What a cure does elsewhere: "The background is not white: worse, −1.2". */
export function sideEffectWords({ verdict, when, harm }: SideEffect): string {
  if (when === 'before') return `${verdictTitle(verdict)}: goes away`;
  const way = when === 'after' ? 'comes' : harm > 0 ? 'worse' : 'better';
  return `${verdictTitle(verdict)}: ${way}, ${figureWords(verdict.figure)}`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
