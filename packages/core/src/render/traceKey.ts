import type { SetDocument } from '@fendrix/contract';

/**
 * What rays depend on, as text: two sets with the same key have the same films, maps and bands.
 * Left out is all that is applied to films afterwards: outputs, power, switches, f-stop, shutter, ISO; and
 * names, notes and spots.
 */
export function traceKey(set: SetDocument): string {
  const lights = set.lights.map((light) => {
    const { output: _output, powerStops: _power, on: _on, name: _name, ...shape } = light;
    if (!('grid' in shape) || !shape.grid) return shape;
    return { ...shape, grid: shape.grid.cutoffDeg };
  });
  const { body, lens, positionM, aimM, rollDeg, focusM } = set.camera;
  return JSON.stringify([
    set.mark,
    set.room,
    set.bench,
    set.backdrop,
    set.products,
    lights,
    set.sheets,
    [body.sensorWidthM, body.sensorHeightM, lens.focalLengthM, lens.pupilRatio],
    [positionM, aimM, rollDeg, focusM],
  ]);
}
