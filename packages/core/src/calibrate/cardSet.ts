import type { SetDocument, Studio, Vector } from '@fendrix/contract';
import type { KitLight } from '../plan/kitLight.js';
import { openWishes } from '../plan/wishesOfBrief.js';

/** A card as it is held for calibration. */
export const CARD_M = 0.4;
/** The black trap: a hole in a closed box lined with velvet sends back so little. Source: usual of such traps. */
export const TRAP_REFLECTANCE = 0.001;
/** The card over the floor, m: far from the things of a table. */
const OVER_FLOOR_M = 1.2;
/** The camera stands beside the light, off its axis by its face and so much, m. */
const BESIDE_M = 0.3;
const CAMERA_M = 1.2;
/** The meter is held right before the card. */
const BEFORE_CARD_M = 0.0005;

/**
 * The set of one reading: a card on a stand in the middle of the room, one light straight before it, the camera beside the light.
 * Nothing else stands near. What the room sends back is in it.
 */
export function cardSet(
  light: KitLight,
  distanceM: number,
  cardReflectance: number,
  studio: Pick<Studio, 'room'> | null,
): SetDocument {
  const room = studio?.room && {
    ...studio.room,
    markFromLeftM: studio.room.widthM / 2,
    markFromFrontM: studio.room.depthM / 2,
  };
  const heightM = room ? Math.min(OVER_FLOOR_M, room.heightM / 2) : OVER_FLOOR_M;
  // The origin lies on a table that is not there.
  const overM = 0.4;
  const middle: Vector = [0, 0, overM];
  const positionM: Vector = [0, -distanceM, overM];
  const aside = BESIDE_M + halfWidth(light);
  return {
    format: 'fendrix-set',
    version: 3,
    name: 'Calibration',
    note: '',
    mark: { heightAboveFloorM: Math.max(0.1, heightM - overM) },
    ...(room ? { room } : {}),
    products: [],
    lights: [
      { ...light, tag: 'A', on: true, positionM, ...('aimM' in light ? { aimM: middle } : {}) } as KitLight,
    ],
    sheets: [
      {
        kind: 'card',
        tag: '1',
        name: 'Card',
        positionM: middle,
        aimM: [0, -1, overM],
        rollDeg: 0,
        widthM: CARD_M,
        heightM: CARD_M,
        front: { kind: 'matte', reflectance: cardReflectance },
        back: { kind: 'matte', reflectance: 0.05 },
        stand: false,
      },
    ],
    people: [],
    camera: {
      body: {
        name: 'Body',
        sensorWidthM: 0.036,
        sensorHeightM: 0.024,
        pixelsWide: 600,
        pixelsHigh: 400,
        syncSpeedS: 1 / 200,
      },
      lens: { name: 'Lens', focalLengthM: 0.1, pupilRatio: 1 },
      positionM: [aside, -CAMERA_M, overM],
      aimM: middle,
      rollDeg: 0,
      focusM: Math.hypot(aside, CAMERA_M),
      focusLocked: false,
      fNumber: 8,
      shutterS: 1 / 125,
      iso: 100,
      whiteBalanceK: 5500,
      depthOfField: false,
      release: 'cable',
      crops: [],
    },
    hazards: [],
    spots: [{ name: 'card', pointM: [0, -BEFORE_CARD_M, overM], normal: [0, -1, 0] }],
    highlights: [],
    allowedOverlaps: [],
    wishes: openWishes('neutral'),
    settled: [],
    takes: [],
    plates: [],
  };
}

function halfWidth(light: KitLight): number {
  if ('widthM' in light) return light.widthM / 2;
  if ('diameterM' in light) return light.diameterM / 2;
  return 0.1;
}
