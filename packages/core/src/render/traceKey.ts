import type { Light, SetDocument } from '@fendrix/contract';
import { textDigest } from '../units/textDigest.js';

/**
 * What rays depend on, as text: two sets with the same key have the same films, maps and bands.
 * Left out is all that is applied to films afterwards: outputs, power, colour, switches, shutter, ISO, filters, the
 * f-stop where depth of field is off; and names, notes and spots.
 */
export function traceKey(set: SetDocument): string {
  return JSON.stringify([sceneKey(set), cameraKey(set)]);
}

/**
 * The same of everything but the camera: what stands there, and so the light of the sheets. Whether a polariser is on it says
 * how many films there are.
 */
export function sceneKey(set: SetDocument): string {
  return keyOf([standing(set), set.lights.map(lightKey), set.camera.polariser !== undefined]);
}

/** The same of everything but the lights. */
export function keyWithoutLights(set: SetDocument): string {
  return keyOf([standing(set), cameraKey(set)]);
}

const standing = (set: SetDocument) => [
  set.mark,
  set.room,
  set.bench,
  set.backdrop,
  set.products,
  set.sheets,
  set.people,
  set.camera.rig && [set.camera.rig, set.camera.positionM, set.camera.aimM, set.camera.rollDeg],
];

/** Texts longer than this, as of meshes and pictures, are named by their digest, signs. */
const LONG_TEXT = 10_000;

/** JSON in which megabytes of meshes and pictures are a few signs: a key is made at each step of a drag. */
const keyOf = (value: unknown): string => JSON.stringify(value, withDigests);

function withDigests(key: string, value: unknown): unknown {
  // How it will move says nothing of where it stands.
  if (key === 'keepsDirection') return undefined;
  return typeof value === 'string' && value.length > LONG_TEXT ? textDigest(value) : value;
}

function cameraKey({ camera }: SetDocument): unknown[] {
  const { body, lens, positionM, aimM, rollDeg, focusM, fNumber, depthOfField, polariser } = camera;
  return [
    [body.sensorWidthM, body.sensorHeightM, lens.focalLengthM, lens.pupilRatio],
    [positionM, aimM, rollDeg, focusM, depthOfField ? fNumber : 0],
    // How it is turned is a weight.
    ...(polariser ? ['polariser'] : []),
  ];
}

/** The same of one light. */
export function lightKey(light: Light): string {
  const {
    output: _output,
    powerStops: _power,
    on: _on,
    name: _name,
    colour: _colour,
    dial: _dial,
    ...rest
  } = light;
  if (rest.kind === 'surround') return JSON.stringify(rest);
  const { modelling: _modelling, duration: _duration, drawW: _draw, polarised, ...shape } = rest;
  return JSON.stringify([JSON.stringify(shape, withoutFactors), polarised ? polarised.axisDeg : null]);
}

/** Figures within a light that only weigh its films, or say how it will move. */
const FACTORS = new Set([
  'keepsDirection',
  'lossStops',
  'illuminanceLx',
  'temperatureK',
  'driftStopsPerHour',
]);

function withoutFactors(key: string, value: unknown): unknown {
  return FACTORS.has(key) ? undefined : value;
}
