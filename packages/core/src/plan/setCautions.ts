import type { Light, SetDocument, Sheet, StandingLight, Studio } from '@fendrix/contract';
import { lightShape } from '../geometry/shape.js';
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

/** Something about a set that can hurt someone; lengths m. */
export type SetCaution =
  /** A hot lamp, and the sheet that is too near to it, if any. */
  | { code: 'hot-lamp'; light: string; near: { kind: Sheet['kind']; tag: string; awayM: number } | null }
  | { code: 'hazard'; hazard: SetDocument['hazards'][number] }
  | { code: 'flash-with-people' }
  | {
      code: 'circuit';
      drawW: number;
      /** Lights whose draw is not given. */
      without: string[];
      mostW: number;
      breakerA: number;
      mainsV: number;
    }
  | { code: 'overhead'; lights: string[]; camera: boolean }
  | { code: 'head-height'; lights: string[] }
  | { code: 'high-camera'; aboveFloorM: number }
  | { code: 'liquid' };

/**
 * Cautions of a set as it stands, the gravest first. Usual practice: local codes and qualified people come first; the
 * interface says so.
 * @param studio its circuit, where it is known
 */
export function setCautions(set: SetDocument, studio?: Pick<Studio, 'breakerA' | 'mainsV'>): SetCaution[] {
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

function hotLamps({ lights, sheets }: SetDocument): SetCaution[] {
  return lights.filter(isHot).map((light) => {
    const near = sheets.find((sheet) => distance(sheet.positionM, light.positionM) < HOT_NEAR_M);
    return {
      code: 'hot-lamp',
      light: light.tag,
      near: near
        ? { kind: near.kind, tag: near.tag, awayM: distance(near.positionM, light.positionM) }
        : null,
    };
  });
}

function hazards({ hazards: present, lights, people }: SetDocument): SetCaution[] {
  const cautions: SetCaution[] = present.map((hazard) => ({ code: 'hazard', hazard }));
  const flashes = lights.some((light) => light.on && isFlash(light));
  if (people.length > 0 && flashes && !present.includes('photosensitive')) {
    cautions.push({ code: 'flash-with-people' });
  }
  return cautions;
}

function circuit({ lights }: SetDocument, studio?: Pick<Studio, 'breakerA' | 'mainsV'>): SetCaution[] {
  if (!studio) return [];
  const { watts: drawW, unknown: without } = mainsDraw(lights);
  const mostW = lastingLoadW(studio);
  const { breakerA, mainsV } = studio;
  return drawW <= mostW ? [] : [{ code: 'circuit', drawW, without, mostW, breakerA, mainsV }];
}

function overTheTable({ lights, camera }: SetDocument): SetCaution[] {
  const over = ([x, y, z]: readonly number[]) =>
    (z as number) > OVERHEAD_M && Math.hypot(x as number, y as number) < OVER_GOODS_M;
  const hung = lights.filter((light) => isStanding(light) && over(light.positionM)).map(({ tag }) => tag);
  const looksDown = camera.aimM[2] < camera.positionM[2] - 0.4;
  const hangs = looksDown && over(camera.positionM);
  return hung.length === 0 && !hangs ? [] : [{ code: 'overhead', lights: hung, camera: hangs }];
}

/** Lights beside the table that end where heads are. */
function atHeadHeight({ lights, mark, bench }: SetDocument): SetCaution[] {
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
  return low.length === 0 ? [] : [{ code: 'head-height', lights: low.map(({ tag }) => tag) }];
}

function isOver(bench: SetDocument['bench'], { positionM: [x, y] }: StandingLight): boolean {
  if (!bench) return false;
  const [cx, cy] = bench.centreM;
  return Math.abs(x - cx) < bench.widthM / 2 && Math.abs(y - cy) < bench.depthM / 2;
}

function highCamera({ camera, mark }: SetDocument): SetCaution[] {
  const aboveFloorM = mark.heightAboveFloorM + camera.positionM[2];
  return aboveFloorM <= CAMERA_HIGH_M ? [] : [{ code: 'high-camera', aboveFloorM }];
}

function wet({ products, lights }: SetDocument): SetCaution[] {
  const liquid = products.some(
    (product) => product.kind === 'water' || (product.kind === 'turned' && product.hollow?.liquid),
  );
  return liquid && lights.some(isStanding) ? [{ code: 'liquid' }] : [];
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
