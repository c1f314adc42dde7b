import type { Light, LightOf } from './light.js';
import type { Report } from './report.js';

const BY_AXIS = new Set(['guide-number', 'flash-exposure', 'illuminance', 'luminance']);
const FLASH = new Set(['flash-energy', 'guide-number', 'flash-exposure']);

/** Measured intensities closer together, or fainter, are no measurement. */
const LEAST_STEP_DEG = 0.1;
const LEAST_CANDELA = 0.001;

/** Rules within one light. */
export function checkLight(light: Light, path: PropertyKey[], report: Report): void {
  if (light.dial && light.powerStops < light.dial.leastStops - 1e-9) {
    report(
      [...path, 'powerStops'],
      `is below what the dial reaches, ${light.dial.leastStops} stops. Raise the power or widen the dial.`,
    );
  }
  if ('modelling' in light && light.modelling && !FLASH.has(light.output.kind)) {
    report([...path, 'modelling'], 'belongs to a flash. A continuous light shows itself what it does.');
  }
  if (light.kind === 'ring' && light.innerDiameterM >= light.outerDiameterM) {
    report([...path, 'innerDiameterM'], 'leaves no ring. Keep it below the outer diameter.');
  }
  if (light.kind === 'dish' && light.deflectorDiameterM >= light.diameterM) {
    report([...path, 'deflectorDiameterM'], 'covers the whole mouth. Keep it below the diameter.');
  }
  if (light.kind === 'window') checkSun(light, path, report);
  if (light.kind === 'ies') checkDistribution(light, path, report);
}

function checkSun(light: LightOf<'window'>, path: PropertyKey[], report: Report): void {
  if (!light.sun) return;
  const [x, y, z] = light.sun.towards;
  const inwards =
    x * (light.aimM[0] - light.positionM[0]) +
    y * (light.aimM[1] - light.positionM[1]) +
    z * (light.aimM[2] - light.positionM[2]);
  if (!(inwards > 0)) {
    report([...path, 'sun', 'towards'], 'leads out of the room. Sunlight has to come in through the glass.');
  }
}

function checkDistribution(light: LightOf<'ies'>, path: PropertyKey[], report: Report): void {
  const { verticalDeg, horizontalDeg, candela } = light.distribution;
  const at = [...path, 'distribution'];
  const rising = (angles: readonly number[]) =>
    angles.every((angle, i) => i === 0 || angle - (angles[i - 1] as number) >= LEAST_STEP_DEG);
  const cure = `must rise by ${LEAST_STEP_DEG} degree or more from one angle to the next.`;
  if (!rising(verticalDeg)) report([...at, 'verticalDeg'], cure);
  if (!rising(horizontalDeg)) report([...at, 'horizontalDeg'], cure);
  if (candela.length !== horizontalDeg.length) {
    report([...at, 'candela'], `has ${candela.length} rows for ${horizontalDeg.length} horizontal angles.`);
  }
  candela.forEach((row, index) => {
    if (row.length === verticalDeg.length) return;
    report([...at, 'candela', index], `has ${row.length} values for ${verticalDeg.length} vertical angles.`);
  });
  const ahead = verticalDeg[0] === 0 ? (candela[0]?.[0] ?? 0) : 0;
  if (BY_AXIS.has(light.output.kind) && ahead < LEAST_CANDELA) {
    report(
      [...path, 'output', 'kind'],
      'counts on light straight ahead, where this one is dark. Give its lumens or energy instead.',
    );
  }
  if (
    !candela.some((row) => row.some((value, i) => value >= LEAST_CANDELA && (verticalDeg[i] as number) < 90))
  ) {
    report([...at, 'candela'], 'has no light ahead of the opening, below 90 degrees. Turn the light over.');
  }
  if (!candela.some((row) => row.some((value) => value >= LEAST_CANDELA))) {
    report([...at, 'candela'], `is dark everywhere. Give at least one value of ${LEAST_CANDELA} cd or more.`);
  }
}
