import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { lightLuminance } from '../photometry/output.js';
import { radians } from '../units/angle.js';
import { add, normalise, scale, subtract, turnUpright } from '../units/vector.js';

/** A turntable's step is off by this, degrees, one deviation; a rail's by this, m. Usual for geared ones. */
export const TURNTABLE_OFF_DEG = 0.1;
export const RAIL_OFF_M = 2e-5;

/** The set with its products turned together on a turntable about the foot of the first, degrees, the front towards camera right. */
export function turnedOnTable(set: SetDocument, turnDeg: number): SetDocument {
  const [first] = set.products;
  if (!first || turnDeg === 0) return set;
  const axis: Vector = [first.positionM[0], first.positionM[1], 0];
  const products = set.products.map((product) => ({
    ...product,
    positionM: add(axis, turnUpright(subtract(product.positionM, axis), radians(turnDeg))),
    turnDeg: wrapped(product.turnDeg + turnDeg),
  }));
  return { ...set, products };
}

/** From -180 to 180 degrees. */
const wrapped = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;

/** The set with its camera moved along its axis on a rail, m towards the products; the focus ring stays as it is. */
export function onRail(set: SetDocument, forwardM: number): SetDocument {
  if (forwardM === 0) return set;
  const { camera } = set;
  const along = scale(normalise(subtract(camera.aimM, camera.positionM)), forwardM);
  const positionM = add(camera.positionM, along);
  return { ...set, camera: { ...camera, positionM, aimM: add(camera.aimM, along) } };
}

/** How a flash fires: its power, stops from full, as it was charged; null where it does not fire. */
export type Fired = Readonly<Record<string, number | null>>;

export const isFlash = (light: Light): boolean => lightLuminance(light).time === 'flash';

/** Stands for no flash at all: its modelling lamp burns on. */
const NO_POWER_STOPS = -60;

/** The set with all flashes silent. */
export const withoutFlash = (set: SetDocument): SetDocument =>
  firedAs(set, Object.fromEntries(set.lights.map(({ tag }) => [tag, null])));

/** The set with its flashes as they fire. Lights that burn all the time are left alone, and so are flashes that are not named. */
export function firedAs(set: SetDocument, fired: Fired): SetDocument {
  const lights = set.lights.map((light) => {
    if (!light.on || !isFlash(light) || !Object.hasOwn(fired, light.tag)) return light;
    return { ...light, powerStops: fired[light.tag] ?? NO_POWER_STOPS };
  });
  return { ...set, lights };
}

/** A flash that is charged to less than this part of what its power asks for does not fire. */
const LEAST_CHARGE = 0.05;

/**
 * When flashes are charged again after they fired. Energy comes in evenly; at a power it takes that part of the time of
 * full power.
 */
export class FlashCharge {
  private readonly readyAt = new Map<string, number>();

  /** Time until a flash is ready, ms. */
  waitMs(tag: string, nowMs: number): number {
    return Math.max(0, (this.readyAt.get(tag) ?? 0) - nowMs);
  }

  /**
   * Fires a flash with what is in it.
   * @param powerStops from full  @param recycleS that full power takes
   * @returns stops less than asked for; null where it does not fire
   */
  fire(tag: string, powerStops: number, recycleS: number, nowMs: number): number | null {
    const fullMs = 1000 * recycleS * 2 ** powerStops;
    const missing = fullMs > 0 ? Math.min(1, this.waitMs(tag, nowMs) / fullMs) : 0;
    if (1 - missing < LEAST_CHARGE) return null;
    this.readyAt.set(tag, nowMs + fullMs);
    return Math.log2(1 - missing);
  }
}
