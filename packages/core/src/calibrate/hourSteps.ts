import type { CalibrationHour, CameraLens, CardReading, Light } from '@fendrix/contract';
import { fStopsOf, ISO_SPEEDS } from '../exposure/series.js';
import { lightLuminance } from '../photometry/output.js';
import { faceSizeM, type KitLight } from '../plan/kitLight.js';
import { cardStops, lightOnCard } from './expectedReading.js';
import type { HourLight } from './fitCalibration.js';

/** One thing to do in the hour: where the light stands, how it is set, how the card is taken. */
export interface HourStep extends Omit<CardReading, 'id' | 'rgb' | 'luxSeconds' | 'frame'> {
  id: string;
  /** What it is for. */
  for: 'output' | 'meter' | 'dial' | 'distance' | 'curve' | 'corner' | 'veil';
}

/** The card is exposed to this tone, stops from mid-tone: well inside of what a file holds. */
const CARD_STOPS = -0.3;
/** For a veil the card is as light as a file holds it surely. */
const VEIL_STOPS = 1.6;
/** Exposures round that for the curve, stops. */
const CURVE_STOPS = [-4, -3, -2, -1, 1, 2] as const;
/** Powers under full that are read, where the dial has them, stops. */
const DIAL_STOPS = [-1, -2, -3, -4, -6] as const;
const MIDDLE_M = 1;
const FAR_M = 2;
const SHUTTER_S = 1 / 125;
const LASTING_SHUTTERS_S = [1 / 125, 1 / 30, 1 / 8, 1 / 2] as const;
/** A card that comes out lighter than wanted by more asks for less power, stops. */
const MOST_MISS = 0.4;
/** A face of this size is read at its nearest from half of its longer side, and from no nearer than this, m. */
const NEAREST_M = 0.3;

/**
 * What is read in the hour, in the order in which least has to be moved: light by light, full power at a metre by frame and meter,
 * down its dial, then near and far; with the first light the curve, the corner and the veil of camera and lens.
 * Exposures are by the figures of the kit, so that each card comes out near mid-tone.
 */
export function hourSteps(
  hour: CalibrationHour,
  lights: readonly HourLight[],
  lens: Pick<CameraLens, 'widestFNumber' | 'smallestFNumber'>,
): HourStep[] {
  return lights
    .filter(({ light }) => canBeCalibrated(light))
    .flatMap((own, index) => {
      const { entry, light } = own;
      const least = light.dial?.leastStops ?? 0;
      /** @param power wanted, turned down as far as its dial goes where the card would be too bright */
      const at = (
        what: HourStep['for'],
        distanceM: number,
        power: number,
        place: CardReading['place'] = 'middle',
        wantedStops = CARD_STOPS,
      ): HourStep => {
        let found = settingsFor(
          own,
          { distanceM, powerStops: power },
          hour.cardReflectance,
          wantedStops,
          lens,
        );
        while (found.missStops > MOST_MISS && found.powerStops - 1 >= least - 1e-9) {
          const powerStops = found.powerStops - 1;
          found = settingsFor(own, { distanceM, powerStops }, hour.cardReflectance, wantedStops, lens);
        }
        const { missStops: _, ...settings } = found;
        return {
          id: [entry, what, distanceM.toFixed(2), power, wantedStops, place].join(' '),
          for: what,
          light: entry,
          place,
          ...settings,
        };
      };
      const output = at('output', MIDDLE_M, 0);
      const top = output.powerStops;
      const dial = DIAL_STOPS.map((stops) => top + stops).filter((stops) => stops >= least - 1e-9);
      const nearM = nearOf(light);
      // So dim that the darkest card is one of f-stop and ISO alone: the dial is not what is read there.
      const dim = at('curve', MIDDLE_M, top, 'middle', CARD_STOPS + Math.min(...CURVE_STOPS)).powerStops;
      return [
        output,
        { ...output, id: `${output.id} meter`, for: 'meter' },
        ...dial.map((power) => at('dial', MIDDLE_M, power)),
        at('distance', nearM, top),
        at('distance', FAR_M, top),
        ...(index === 0
          ? [
              ...CURVE_STOPS.map((stops) => at('curve', MIDDLE_M, dim, 'middle', CARD_STOPS + stops)),
              at('corner', MIDDLE_M, top, 'corner'),
              at('veil', MIDDLE_M, top, 'trap', VEIL_STOPS),
            ]
          : []),
      ];
    });
}

/** A card tells nothing of a light that throws a pattern, shines through its own shade, or cannot be moved. */
const NOT_BY_CARD: ReadonlySet<Light['kind']> = new Set(['projector', 'table-lamp', 'window', 'surround']);

/** Whether a light can be read off a card before it. */
export const canBeCalibrated = (light: Light): light is KitLight => !NOT_BY_CARD.has(light.kind);

function nearOf(light: KitLight): number {
  const { widthM, heightM } = faceSizeM(light);
  return Number(Math.max(NEAREST_M, Math.max(widthM, heightM) / 2).toFixed(2));
}

/** An f-stop, a sensitivity and, of lasting light, a shutter at which a card comes out at a tone, as near usual ones as can be. */
function settingsFor(
  { light }: HourLight,
  reading: { distanceM: number; powerStops: number },
  reflectance: number,
  wantedStops: number,
  lens: Pick<CameraLens, 'widestFNumber' | 'smallestFNumber'>,
) {
  const taken = { light, outputStops: 0, givesPart: light.dial?.givesPart ?? 1, hotCentre: null };
  const isFlash = lightLuminance(light).time === 'flash';
  const usual = fStopsOf(lens).filter(({ value }) => value >= 4 && value <= 23);
  const fStops = usual.length > 0 ? usual : fStopsOf(lens);
  let best = { fNumber: 8, iso: 100, shutterS: SHUTTER_S };
  let [least, missStops] = [Number.POSITIVE_INFINITY, 0];
  for (const shutterS of isFlash ? [SHUTTER_S] : LASTING_SHUTTERS_S) {
    const luxSeconds = lightOnCard(taken, { ...reading, shutterS }, 0);
    for (const { value: fNumber } of fStops) {
      for (const { value: iso } of ISO_SPEEDS) {
        const miss = cardStops(luxSeconds, reflectance, { fNumber, iso }) - wantedStops;
        const cost =
          Math.abs(miss) +
          0.02 * Math.abs(Math.log2(iso / 100)) +
          0.01 * Math.abs(Math.log2(fNumber / 8)) +
          0.01 * Math.log2(shutterS / SHUTTER_S);
        if (cost < least) {
          [least, missStops] = [cost, miss];
          best = { fNumber, iso, shutterS };
        }
      }
    }
  }
  return { ...reading, ...best, missStops };
}
