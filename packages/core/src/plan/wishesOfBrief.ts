import type { SetDocument, Wishes } from '@fendrix/contract';

const DARK = /\b(dark|moody|night|low[- ]key|dramatic)\b/i;
const BRIGHT = /\b(bright|airy|light|fresh|high[- ]key)\b/i;
/** Pictures for these are usually cut out or stand on white. */
const ON_WHITE = /\b(shop|catalogue|cut ?out|packshot|marketplace)\b/i;

/** The mood that words of a brief ask for; the first that says one counts. */
export function moodOf(...words: readonly string[]): Wishes['mood'] {
  for (const text of words) {
    if (DARK.test(text)) return 'dark';
    if (BRIGHT.test(text)) return 'bright';
  }
  return 'neutral';
}

/** Nothing is wanted yet but the mood. */
export const openWishes = (mood: Wishes['mood']): Wishes => ({
  mood,
  ground: 'open',
  greyStops: 0,
  gradientFromStops: 0,
  gradientToStops: -2,
  gradientTowards: 'up',
  edges: 'open',
  highlight: 'open',
  centre: 'open',
  shadow: 'open',
  shadowTowards: 'open',
  words: 'open',
  liquid: 'open',
  texture: 'open',
  sharp: 'front-to-back',
  movement: 'open',
  darkestStops: -5,
  held: [],
});

/** Wishes of a set after what its picture is for: a shop picture that is not moody stands on white where it has a background. */
export function forPurpose(
  { wishes, backdrop }: Pick<SetDocument, 'wishes' | 'backdrop'>,
  purpose: string,
): Wishes {
  const white = ON_WHITE.test(purpose) && wishes.mood !== 'dark' && wishes.ground === 'open' && backdrop;
  return white ? { ...wishes, ground: 'white' } : wishes;
}
