import type { Light, SetDocument, StandingLight, Studio } from '@fendrix/contract';
import { lightShape } from '../geometry/shape.js';
import { formatLength } from '../units/quantity.js';
import { distance } from '../units/vector.js';
import { lastingLoadW, mainsDraw } from './circuit.js';

/** A lamp this warm and continuous is hot: halogen or filament, K. */
const HOT_BELOW_K = 3400;
/** Paper, cloth and frost nearer than this to a hot lamp scorch, m. Usual practice; the lamp's own label comes first. */
const HOT_NEAR_M = 0.5;
/** Something this high over the bench and over the products hangs on a boom, m. */
const OVERHEAD_M = 0.45;
const OVER_GOODS_M = 0.4;
/** What ends between these heights over the floor is walked into, m. */
const HEAD_FROM_M = 1.4;
const HEAD_TO_M = 1.95;
/** A lens axis higher than this over the floor is worked from a step and tempts to draw the centre column, m. */
const CAMERA_HIGH_M = 1.6;

/**
 * Cautions of a set as it stands, the gravest first. Usual practice: local codes and qualified people come first; the
 * interface says so.
 * @param studio its circuit, where it is known
 */
export function setCautions(set: SetDocument, studio?: Pick<Studio, 'breakerA' | 'mainsV'>): string[] {
  return [
    ...hotLamps(set),
    ...hazards(set),
    ...circuit(set, studio),
    ...overTheTable(set),
    ...atHeadHeight(set),
    ...highCamera(set),
    ...wet(set),
  ];
}

function hotLamps({ lights, sheets }: SetDocument): string[] {
  return lights.filter(isHot).map((light) => {
    const near = sheets.find((sheet) => distance(sheet.positionM, light.positionM) < HOT_NEAR_M);
    return near
      ? `${light.tag} is a hot lamp ${formatLength(distance(near.positionM, light.positionM))} from ${near.kind} ${near.tag}: paper and cloth scorch and burn. Give it more room, never leave it on alone, let it cool before moving it.`
      : `${light.tag} is a hot lamp: half a metre from paper, cloth and skin, never left on alone, cooled before it is moved.`;
  });
}

const HAZARD_WORDS: Record<SetDocument['hazards'][number], string> = {
  flame:
    'Open flame: nothing that burns within an arm and nothing above it, extinguisher and fire blanket at hand, never alone, out before the next change.',
  'dry-ice':
    'Dry ice: thick gloves and tongs, windows open since its gas settles low and takes the air, never in a closed vessel, never in a drink that is drunk.',
  spray:
    'Sprays and dulling spray: window open, no flame or hot lamp near, not on food, not towards lens, lamps or faces; test where it does not show.',
  photosensitive:
    'Flashes can harm people who are sensitive to them: say so before the first one, no modelling strobe, no bursts, and let them leave the room.',
};

function hazards({ hazards: present, lights, people }: SetDocument): string[] {
  const words = present.map((hazard) => HAZARD_WORDS[hazard]);
  const flashes = lights.some((light) => light.on && isFlash(light));
  if (people.length > 0 && flashes && !present.includes('photosensitive')) {
    words.push('Flash with people about: ask whether anyone is sensitive to flashes before the first one.');
  }
  return words;
}

function circuit({ lights }: SetDocument, studio?: Pick<Studio, 'breakerA' | 'mainsV'>): string[] {
  if (!studio) return [];
  const { watts, unknown } = mainsDraw(lights);
  const most = lastingLoadW(studio);
  if (watts <= most) return [];
  const without = unknown.length > 0 ? `, without ${unknown.join(', ')}, whose draw is not given` : '';
  return [
    `The lights that are on draw ${Math.round(watts)} W${without}; one circuit lasts ${most} W (80 % of ${studio.breakerA} A at ${studio.mainsV} V). Put some on another circuit, or switch modelling lamps off.`,
  ];
}

function overTheTable({ lights, camera }: SetDocument): string[] {
  const over = ([x, y, z]: readonly number[]) =>
    (z as number) > OVERHEAD_M && Math.hypot(x as number, y as number) < OVER_GOODS_M;
  const hung = lights.filter((light) => isStanding(light) && over(light.positionM)).map(({ tag }) => tag);
  const looksDown = camera.aimM[2] < camera.positionM[2] - 0.4;
  const what = [hung.join(', '), looksDown && over(camera.positionM) ? 'the camera' : ''].filter(Boolean);
  if (what.length === 0) return [];
  return [
    `Above the table: ${what.join(' and ')}. Boom with counterweight, sandbag and safety line, nobody's head below.`,
  ];
}

/** Lights beside the table that end where heads are. */
function atHeadHeight({ lights, mark, bench }: SetDocument): string[] {
  const low = lights.filter((light) => {
    if (!isStanding(light)) return false;
    const lowest = Math.min(
      ...lightShape(light)
        .flat()
        .map(([, , z]) => z),
    );
    const height = mark.heightAboveFloorM + lowest;
    return height > HEAD_FROM_M && height < HEAD_TO_M && !isOver(bench, light);
  });
  if (low.length === 0) return [];
  return [
    `At head height: ${low.map(({ tag }) => tag).join(', ')}. Mark the corners with something bright, sandbag the stand, tape its cable down.`,
  ];
}

function isOver(bench: SetDocument['bench'], { positionM: [x, y] }: StandingLight): boolean {
  if (!bench) return false;
  const [cx, cy] = bench.centreM;
  return Math.abs(x - cx) < bench.widthM / 2 && Math.abs(y - cy) < bench.depthM / 2;
}

function highCamera({ camera, mark }: SetDocument): string[] {
  const height = mark.heightAboveFloorM + camera.positionM[2];
  if (height <= CAMERA_HIGH_M) return [];
  return [
    `The camera is ${formatLength(height)} above the floor: legs out first and the centre column down, a bag on its hook, and a step ladder to look through it.`,
  ];
}

function wet({ products, lights }: SetDocument): string[] {
  const liquid = products.some(
    (product) => product.kind === 'water' || (product.kind === 'turned' && product.hollow?.liquid),
  );
  if (!liquid || !lights.some(isStanding)) return [];
  return [
    'Liquid on the set: residual-current device, drip loops, packs and joints off the floor, dry hands. Flash heads and packs hold their charge: never open them.',
  ];
}

const isStanding = (light: Light): light is Exclude<StandingLight, { kind: 'window' }> =>
  light.kind !== 'window' && light.kind !== 'surround';

const isFlash = ({ output: { kind } }: Light): boolean =>
  kind === 'flash-energy' || kind === 'guide-number' || kind === 'flash-exposure';

function isHot(light: Light): light is Exclude<StandingLight, { kind: 'window' }> {
  if (!isStanding(light) || !light.on) return false;
  const warm = light.colour !== undefined && light.colour.temperatureK < HOT_BELOW_K;
  const modelling = light.modelling?.on === true && light.modelling.temperatureK < HOT_BELOW_K;
  return (!isFlash(light) && warm) || modelling;
}
