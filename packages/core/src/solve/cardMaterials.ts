/** What the cards, flags and frames are made of that are put on a set for the user: usual papers, boards and frosts. */
export const WHITE_CARD = { kind: 'matte' as const, reflectance: 0.85 };
export const BLACK_CARD = { kind: 'matte' as const, reflectance: 0.04 };
export const FROST = { kind: 'translucent' as const, reflectance: 0.35, transmittance: 0.55, haze: 1 };
