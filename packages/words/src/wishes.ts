import type { Wishes } from '@fendrix/contract';

/** Wishes that are a figure. */
export type WishFigure =
  | 'greyStops'
  | 'gradientFromStops'
  | 'gradientToStops'
  | 'groundBlurPart'
  | 'overWhiteStops'
  | 'darkestStops'
  | 'brightestStops'
  | 'highlightPart'
  | 'highlightBendPart'
  | 'shadowStops'
  | 'shadowEdgeM'
  | 'liquidStops'
  | 'keyToFillStops';
/** Wishes that are one of a few. */
export type WishName = Exclude<keyof Wishes, WishFigure | 'like' | 'held'>;

/** What each figure is called, what it is counted in, and what it means. */
export const WISH_FIGURES: {
  readonly [Name in WishFigure]: { label: string; in: 'stops' | 'part' | 'finePart' | 'm'; hint: string };
} = {
  greyStops: { label: 'Grey', in: 'stops', hint: 'Tone of a grey background, from mid-tone' },
  gradientFromStops: {
    label: 'Fades from',
    in: 'stops',
    hint: 'Tone that a gradient background begins with',
  },
  gradientToStops: { label: 'Fades to', in: 'stops', hint: 'Tone that it ends with' },
  groundBlurPart: {
    label: 'Blur behind',
    in: 'finePart',
    hint: 'How blurred the background is at least, of the width of the frame',
  },
  overWhiteStops: {
    label: 'Over white',
    in: 'stops',
    hint: 'How far a white background may be over the white of the products',
  },
  darkestStops: {
    label: 'Darkest',
    in: 'stops',
    hint: 'Darkest tone of the products that is to hold detail',
  },
  brightestStops: {
    label: 'Brightest',
    in: 'stops',
    hint: 'Brightest tone that is to hold detail; paper white if empty',
  },
  highlightPart: {
    label: 'Highlight',
    in: 'part',
    hint: 'How much of the width a strip or a broad highlight takes',
  },
  highlightBendPart: {
    label: 'Straight',
    in: 'finePart',
    hint: 'How far a strip may wander along a straight side, of the width',
  },
  shadowStops: { label: 'Shadow', in: 'stops', hint: 'How deep a soft shadow may be under the lit ground' },
  shadowEdgeM: { label: 'Soft edge', in: 'm', hint: 'How wide the soft edge of a shadow is at least' },
  liquidStops: { label: 'Glow', in: 'stops', hint: 'How far a glowing liquid is over its label' },
  keyToFillStops: {
    label: 'Light over shade',
    in: 'stops',
    hint: 'Light side of the products over their shadow side',
  },
};

type Choices<Name extends WishName> = Readonly<Record<Wishes[Name], string>>;

/** What each wish is called, and its choices. */
export const WISH_WORDS: { readonly [Name in WishName]: { label: string; choices: Choices<Name> } } = {
  mood: { label: 'Mood', choices: { bright: 'bright and airy', neutral: 'neutral', dark: 'dark and moody' } },
  ground: {
    label: 'Background',
    choices: { white: 'white', grey: 'grey', black: 'black', gradient: 'gradient', open: 'as it comes' },
  },
  gradientTowards: {
    label: 'Fades towards',
    choices: { up: 'the top', down: 'the bottom', left: 'the left', right: 'the right' },
  },
  edges: {
    label: 'Edges',
    choices: {
      'dark-line': 'dark line on light',
      'bright-line': 'bright line on dark',
      open: 'left alone',
    },
  },
  highlight: {
    label: 'Highlight',
    choices: {
      'one-strip': 'one strip',
      'two-strips': 'two strips',
      broad: 'broad',
      'bright-front': 'gradient, bright to the front',
      'bright-back': 'gradient, bright to the back',
      none: 'none',
      open: 'as it comes',
    },
  },
  centre: {
    label: 'Middle facing the lens',
    choices: {
      dark: 'dark, for a logo',
      bright: 'bright',
      closed: 'closed by a lens-hole card',
      open: 'as it comes',
    },
  },
  shadow: { label: 'Shadow', choices: { soft: 'soft', hard: 'hard', none: 'none', open: 'as it comes' } },
  shadowTowards: {
    label: 'Shadow falls',
    choices: {
      left: 'to the left',
      right: 'to the right',
      front: 'to the front',
      back: 'to the back',
      open: 'as it comes',
    },
  },
  words: {
    label: 'Label',
    choices: { readable: 'flat and readable', 'picked-out': 'detail picked out', open: 'as it comes' },
  },
  liquid: { label: 'Liquid', choices: { glows: 'glows', clear: 'clear', open: 'as it comes' } },
  texture: { label: 'Texture', choices: { raked: 'raked', smooth: 'smooth', open: 'as it comes' } },
  sharp: {
    label: 'Sharp',
    choices: { 'front-to-back': 'front to back', front: 'the front', open: 'as it comes' },
  },
  movement: { label: 'Movement', choices: { frozen: 'frozen', flowing: 'flowing', open: 'as it comes' } },
};
