import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { productBounds } from '../../geometry/shape.js';
import { lightLuminance, onAxisLx } from '../../photometry/output.js';
import { add, dot, length, normalise, scale, subtract } from '../../units/vector.js';

/**
 * Lights in the order in which they are built: the one that gives the first product most, then each by what it adds, those that
 * are off last. By the light of each alone along its axis, turned away by the square of the cosine; cards and frosts are not
 * counted. It orders, and gives no figure.
 * @returns tags
 */
export function lightOrder(set: SetDocument): string[] {
  const [product] = set.products;
  if (!product) return set.lights.map(({ tag }) => tag);
  const { low, high } = productBounds(product);
  const middle = scale(add(low, high), 0.5);
  const gives = new Map(set.lights.map((light) => [light.tag, givenAt(light, middle, set.camera.shutterS)]));
  return set.lights
    .map(({ tag }) => tag)
    .sort((a, b) => (gives.get(b) as number) - (gives.get(a) as number) || a.localeCompare(b));
}

/** Exposure at a point, lx s, as far as it orders lights. */
function givenAt(light: Light, point: Vector, shutterS: number): number {
  if (!light.on || light.kind === 'surround' || light.kind === 'window') return 0;
  const { time, luminance } = lightLuminance(light);
  const away = subtract(point, light.positionM);
  const turned = 'aimM' in light ? dot(normalise(subtract(light.aimM, light.positionM)), normalise(away)) : 1;
  if (!(turned > 0)) return 0;
  return luminance * onAxisLx(light, length(away)) * turned * turned * (time === 'flash' ? 1 : shutterS);
}
