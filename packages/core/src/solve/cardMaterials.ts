import type { Kit, Material } from '@fendrix/contract';

/** What the cards, flags and frames are made of that are put on a set for the user: usual papers, boards and frosts. */
export const WHITE_CARD = { kind: 'matte' as const, reflectance: 0.85 };
export const BLACK_CARD = { kind: 'matte' as const, reflectance: 0.04 };
export const FROST = { kind: 'translucent' as const, reflectance: 0.35, transmittance: 0.55, haze: 1 };

/** What ink and paper send back where no printer is calibrated. */
const USUAL_INK = 0.035;
const USUAL_PAPER = 0.82;

/** A card printed with a gradient from bare paper to solid ink, as the printer of the kit gives them. */
export function gradientCard(direction: 'across' | 'out', kit: Pick<Kit, 'printer'> | null) {
  const tones = kit?.printer?.calibrated?.tones;
  const [to, from] = [tones?.[0]?.reflectance ?? USUAL_INK, tones?.at(-1)?.reflectance ?? USUAL_PAPER];
  const tone = { kind: 'gradient' as const, direction, from, to, start: 0, end: 1, gamma: 1 };
  return { kind: 'matte' as const, reflectance: from, tone } satisfies Material;
}
