import type { Light, SetDocument } from '@fendrix/contract';
import { formatLength } from '../units/quantity.js';
import { distance } from '../units/vector.js';

/** A lamp this warm and continuous is hot: halogen or filament, K. */
const HOT_BELOW_K = 3400;
/** Paper, cloth and frost nearer than this to a hot lamp scorch, m. Usual practice; the lamp's own label comes first. */
const HOT_NEAR_M = 0.5;
/** Something this high over the bench and over the goods hangs on a boom, m. */
const OVERHEAD_M = 0.45;
const OVER_GOODS_M = 0.4;

/** Cautions of a set as it stands. Usual practice: local codes and qualified people come first; the interface says so. */
export function setCautions(set: SetDocument): string[] {
  const cautions: string[] = [];
  for (const light of set.lights) {
    if (!isHot(light)) continue;
    const near = set.sheets.find((sheet) => distance(sheet.positionM, light.positionM) < HOT_NEAR_M);
    cautions.push(
      near
        ? `${light.tag} is a hot lamp ${formatLength(distance(near.positionM, light.positionM))} from ${near.kind} ${near.tag}: paper and cloth scorch and burn. Give it more room, never leave it on alone, let it cool before moving it.`
        : `${light.tag} is a hot lamp: half a metre from paper, cloth and skin, never left on alone, cooled before it is moved.`,
    );
  }
  const hung = set.lights.filter(
    (light) =>
      light.kind !== 'surround' &&
      light.kind !== 'window' &&
      light.positionM[2] > OVERHEAD_M &&
      Math.hypot(light.positionM[0], light.positionM[1]) < OVER_GOODS_M,
  );
  const high = hung.map(({ tag }) => tag).join(', ');
  const cameraHigh =
    set.camera.positionM[2] > OVERHEAD_M && set.camera.aimM[2] < set.camera.positionM[2] - 0.4;
  const overhead = cameraHigh && Math.hypot(set.camera.positionM[0], set.camera.positionM[1]) < OVER_GOODS_M;
  if (hung.length > 0 || overhead) {
    cautions.push(
      `Over the table: ${[high, overhead ? 'the camera' : ''].filter(Boolean).join(' and ')}. Boom with counterweight, sandbag and safety line, nobody's head below.`,
    );
  }
  const wet = set.products.some(
    (product) => product.kind === 'water' || (product.kind === 'turned' && product.hollow?.liquid),
  );
  if (wet && set.lights.some((light) => light.kind !== 'window' && light.kind !== 'surround')) {
    cautions.push(
      'Liquid on the set: residual-current device, drip loops, packs and joints off the floor, dry hands. Flash heads and packs hold their charge: never open them.',
    );
  }
  return cautions;
}

function isHot(light: Light): light is Exclude<Light, { kind: 'surround' | 'window' }> {
  if (light.kind === 'surround' || light.kind === 'window' || !light.on) return false;
  const { kind } = light.output;
  const continuous = kind === 'lumens' || kind === 'illuminance' || kind === 'luminance';
  const warm = light.colour !== undefined && light.colour.temperatureK < HOT_BELOW_K;
  const modelling =
    'modelling' in light && light.modelling?.on === true && light.modelling.temperatureK < HOT_BELOW_K;
  return (continuous && warm) || modelling;
}
