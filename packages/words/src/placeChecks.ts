import { formatLength, type PlaceCheck } from '@fendrix/core';

export interface PlaceCheckWords {
  title: string;
  /** What was found, with its figures. */
  found: string;
  /** What would give, where it is not met. */
  cure: string;
}

const mm = (m: number) => `${Math.round(m * 1000)} mm`;
const ratio = (value: number) => `${Math.round((value - 1) * 1000) / 10} %`;

/** A check of the camera's place in words: what was found, against what, and what would give. */
export function placeCheckWords({ what, met, value, limit, focalLengthM }: PlaceCheck): PlaceCheckWords {
  const lens = focalLengthM === undefined ? '' : mm(focalLengthM);
  switch (what) {
    case 'near-limit':
      return {
        title: 'Near limit of the lens',
        found: `From sensor to focus ${formatLength(value)}; the lens goes to ${formatLength(limit)}.`,
        cure: `A lens of ${lens} gives the same frame from far enough; or let the product fill less.`,
      };
    case 'room-behind':
      return {
        title: 'Room behind the camera',
        found:
          value < 0
            ? `The lens would stand ${formatLength(-value)} behind the wall.`
            : `${formatLength(value)} from the lens to the wall; camera and person need ${formatLength(limit)}.`,
        cure: lens
          ? `A lens of ${lens} stands far enough from the wall; or move the table back.`
          : 'Move the table back.',
      };
    case 'ceiling':
      return {
        title: 'Under the ceiling',
        found: `The camera reaches ${formatLength(value)} above the floor; the ceiling is at ${formatLength(limit)}.`,
        cure: lens
          ? `A lens of ${lens} hangs low enough; or work on a lower table.`
          : 'Work on a lower table.',
      };
    case 'support':
      return {
        title: 'Height of the stand',
        found: `The lens is ${formatLength(value)} above the floor; the highest stand of the kit reaches ${formatLength(limit)}.`,
        cure: 'A boom, a lower table, or a shorter lens from nearer.',
      };
    case 'flatness':
      return {
        title: 'Near against far',
        found: `The nearest part looks ${ratio(value)} larger than the farthest; ${ratio(limit)} is allowed.`,
        cure: lens
          ? `A lens of ${lens} from farther away keeps it flatter.`
          : 'Go farther away with a longer lens.',
      };
    case 'verticals':
      return {
        title: 'Verticals',
        found:
          value < 0.5
            ? 'The sensor is upright: verticals stay parallel.'
            : value > 89.5
              ? 'The camera looks straight down.'
              : `Tilted by ${Math.round(10 * value) / 10}°: verticals run together downwards.`,
        cure: 'Level keeps them parallel; otherwise straighten them later and leave room at the sides.',
      };
    case 'ground':
      if (value <= limit && !met) {
        return {
          title: 'Tabletop in the frame',
          found: 'Wide enough, but the frame looks over its near or far edge.',
          cure: 'Bring the table nearer to the camera, tilt down a little, or let the product fill more.',
        };
      }
      return {
        title: 'Tabletop in the frame',
        found: `The frame reaches ${formatLength(value)} across on the tabletop; it is ${formatLength(limit)} wide.`,
        cure: `A tabletop ${formatLength(value)} wide and as deep as the frame, a longer lens, or more of the product in the frame.`,
      };
    default:
      if (value <= limit && !met) {
        return {
          title: 'Background',
          found: 'Wide enough, but the frame looks over its top or past it.',
          cure: 'A taller background, the background nearer, or a longer lens.',
        };
      }
      return {
        title: 'Background',
        found: `The frame sees ${formatLength(value)} across at the background; it is ${formatLength(limit)} wide.`,
        cure: `A background ${formatLength(value)} wide, a longer lens, or the background nearer.`,
      };
  }
}
