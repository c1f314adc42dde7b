import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { liesOnTable } from '../geometry/sheets.js';
import { createRandom } from '../units/random.js';
import { add } from '../units/vector.js';

/**
 * How far a set that was built by tape stands off its plan, one standard deviation. A tape is read to a few millimetres, a dial
 * of a flash holds a twentieth to a tenth of a stop, tubes differ by some 50 K, a focus ring is turned to half a percent.
 */
export const BUILT_TO = {
  lightM: 0.006,
  sheetM: 0.004,
  productM: 0.001,
  cameraM: 0.002,
  powerStops: 0.06,
  temperatureK: 50,
  focusPart: 0.005,
} as const;

/** What was built otherwise on purpose, or is set otherwise now. */
export interface Misbuilt {
  /** Power by tag, stops more than in the plan. */
  powerStops?: Readonly<Record<string, number>>;
  /** What a light of the set really is; as by its figures where nothing is said. */
  piece?: ((light: Light) => Light) | undefined;
  /** Sheets by tag, m off their place. */
  sheetByM?: Readonly<Record<string, Vector>>;
}

/** Numbers of the normal distribution with deviation 1. Source: Box and Muller 1958. */
export function createNormal(seed: number): () => number {
  const random = createRandom(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/**
 * The set as somebody built it from its plan: everything a little off, the same for the same seed, and wrong where it is told.
 * What a stand-in camera takes.
 */
export function asItStands(set: SetDocument, seed: number, wrong: Misbuilt = {}): SetDocument {
  const normal = createNormal(seed);
  const off = (m: number): Vector => [m * normal(), m * normal(), m * normal()];
  const level = (m: number): Vector => [m * normal(), m * normal(), 0];
  const lights = set.lights.map((planned) => {
    const light = wrong.piece?.(planned) ?? planned;
    const powerStops =
      light.powerStops + BUILT_TO.powerStops * normal() + (wrong.powerStops?.[light.tag] ?? 0);
    const moved = 'positionM' in light ? { positionM: add(light.positionM, off(BUILT_TO.lightM)) } : {};
    const temperatureK = light.colour?.temperatureK;
    const colour =
      light.colour && temperatureK !== undefined
        ? { colour: { ...light.colour, temperatureK: temperatureK + BUILT_TO.temperatureK * normal() } }
        : {};
    return { ...light, powerStops, ...moved, ...colour } as typeof light;
  });
  const sheets = set.sheets.map((sheet) => {
    const by = off(BUILT_TO.sheetM);
    if (liesOnTable(sheet)) by[2] = 0;
    return {
      ...sheet,
      positionM: add(add(sheet.positionM, by), wrong.sheetByM?.[sheet.tag] ?? [0, 0, 0]),
    };
  });
  const products = set.products.map((product) => ({
    ...product,
    positionM: add(product.positionM, level(BUILT_TO.productM)),
  }));
  // How camera and lens record is theirs, whatever the plan takes them to do.
  const { response: _response, ...body } = set.camera.body;
  const { losses: _losses, ...lens } = set.camera.lens;
  const camera = { ...set.camera, body, lens };
  return {
    ...set,
    lights,
    sheets,
    products,
    camera: {
      ...camera,
      positionM: add(camera.positionM, off(BUILT_TO.cameraM)),
      focusM: camera.focusM * (1 + BUILT_TO.focusPart * normal()),
    },
    takes: [],
    plates: [],
  };
}
