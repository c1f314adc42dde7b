import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { brighter, onDial } from '../exposure/dials.js';
import { standsInRoom } from '../geometry/roomBounds.js';
import { GROUND_KINDS } from '../judge/ground.js';
import { type FieldTrace, fieldByLight } from '../judge/readField.js';
import { faceSizeM, softLightOf } from '../plan/kitLight.js';
import { projectPoint, viewOf } from '../render/view.js';

/** Face wanted of the light for a ground, m, and how far before the ground it stands. */
const WIDTH_M = 0.3;
const HEIGHT_M = 0.6;
const BEFORE_M = 0.4;
const OUTSIDE_M = 0.12;
const OVER_TABLE_M = 0.03;
/** Power until it is solved, stops from full. */
const FIRST_STOPS = -3;
/** Where the other lights do it already, the added ones give it no more than this, over mid-tone. */
const LEAST_GIVEN = 1e-6;

/**
 * A light for the ground alone: a soft one of the kit behind the products at the side, just out of the frame, facing the
 * backdrop, so that its black back is to the products. Where it stands follows from the frame; its power is left to be solved.
 * @param tag free letter  @param kit lights of the kit; a plain strip where there is none
 * @returns null without a backdrop, or where the room leaves no place for it
 */
export function groundLight(
  set: SetDocument,
  tag: string,
  side: 1 | -1,
  kit: readonly Light[] = [],
): Light | null {
  const { backdrop, camera } = set;
  const own = softLightOf(kit, WIDTH_M, HEIGHT_M);
  const { widthM, heightM } = faceSizeM(own);
  if (!backdrop) return null;
  const y = backdrop.kind === 'panel' ? backdrop.centreM[1] : backdrop.backM;
  // Its lower edge stays over the table.
  const height = Math.max(camera.aimM[2], heightM / 2 + OVER_TABLE_M);
  const view = viewOf(camera);
  let x = 0.2;
  // Out of the frame with all its width, plus a hand.
  while (x < 3) {
    const at = projectPoint(view, [side * (x - widthM / 2 - OUTSIDE_M), y - BEFORE_M, height]);
    if (!at || at[0] < 0 || at[0] > 1) break;
    x += 0.02;
  }
  const positionM: Vector = [(side * Math.round(100 * x)) / 100, y - BEFORE_M, height];
  if (!standsInRoom(set, positionM)) return null;
  return {
    ...own,
    tag,
    on: true,
    stand: false,
    positionM,
    ...('aimM' in own ? { aimM: [0, y, height] } : {}),
    powerStops: onDial(own, FIRST_STOPS),
  } as Light;
}

/**
 * Lights added for a ground, at the power with which they bring its mean to a tone, all other lights as they are; on their
 * dials. No rays.
 * @param field traced with the added lights after those of the set
 * @returns null where they give the ground nothing
 */
export function poweredForGround(
  set: SetDocument,
  added: readonly Light[],
  field: FieldTrace,
  wantedStops: number,
): Light[] | null {
  const byLight = fieldByLight({ ...set, lights: [...set.lights, ...added] }, field, GROUND_KINDS);
  const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0);
  const rest = sum(byLight.slice(0, set.lights.length));
  const given = sum(byLight.slice(set.lights.length));
  if (!(given > 0)) return null;
  const raise = Math.log2(Math.max(LEAST_GIVEN, 2 ** wantedStops - rest) / given);
  return added.map((light) => ({ ...light, powerStops: brighter(light, raise) }));
}
