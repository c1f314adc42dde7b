export type Movement = 'pour' | 'drizzle' | 'sprinkle' | 'splash' | 'hand';

export interface Kind {
  words: string;
  /** Whether its speed follows from a fall, and how far it usually falls, m; otherwise a usual speed, m/s. */
  fallM?: number;
  speedMS?: number;
  lastsS: number;
  windowS: number;
  hint: string;
}

/** Usual figures to start from; all can be changed. */
export const KINDS: Record<Movement, Kind> = {
  pour: {
    words: 'pour',
    fallM: 0.1,
    lastsS: 3,
    windowS: 1,
    hint: 'A smooth stream looks still at times that smear its drops: judge the edge of the stream and the drops apart. A narrow spout and a thicker liquid keep it smooth.',
  },
  drizzle: {
    words: 'drizzle of syrup or sauce',
    fallM: 0.15,
    lastsS: 6,
    windowS: 2,
    hint: 'A thread of syrup falls slower than this at first and coils where it lands: the figure is the upper end.',
  },
  sprinkle: {
    words: 'sprinkle of sugar or flour',
    fallM: 0.25,
    lastsS: 1.5,
    windowS: 0.3,
    hint: 'Grains are single: there is no smooth part to save the picture. Flour is slowed by the air, coarse sugar hardly.',
  },
  splash: {
    words: 'splash',
    fallM: 0.4,
    lastsS: 0.25,
    windowS: 0.02,
    hint: 'Drops leave about as fast as what fell in. The wanted crown lasts hundredths of a second: many tries, or a trigger.',
  },
  hand: {
    words: 'hand',
    speedMS: 0.3,
    lastsS: 2,
    windowS: 0.7,
    hint: 'Held still it drifts by a few millimetres a second; reaching it moves by some tens of centimetres.',
  },
};

/** The figures of a movement as they are set: usual ones until they are changed. */
export interface MovementFigures extends Kind {
  frames: number;
  confidence: number;
  sharpPx: number;
}

export const usualFigures = (movement: Movement): MovementFigures => ({
  ...KINDS[movement],
  frames: 5,
  confidence: 0.9,
  sharpPx: 2,
});
