import type { Sheet } from '@fendrix/contract';
import { prepareTracing } from '../../render/prepareTracing.js';
import { aimFrame } from '../../units/frame.js';
import { add, dot, length, normalise, scale, subtract, toTenthMm } from '../../units/vector.js';
import { BLACK_CARD, FROST, gradientCard, WHITE_CARD } from '../cardMaterials.js';
import { freeSheetTag } from '../movables.js';
import {
  type Asked,
  type CardAnswer,
  canStand,
  cutSize,
  fittingSheet,
  measuredAnswer,
  overTable,
} from './cardAnswer.js';
import type { RegionPoint } from './region.js';

/** What a region is to mirror. */
export type MirroredKind = 'white' | 'black' | 'frost' | 'gradient';

const FRONTS: Readonly<Record<Exclude<MirroredKind, 'gradient'>, Sheet['front']>> = {
  white: WHITE_CARD,
  black: BLACK_CARD,
  frost: FROST,
};
const NAMES: Readonly<Record<MirroredKind, string>> = {
  white: 'White card',
  black: 'Black card',
  frost: 'Frame of frost',
  gradient: 'Gradient card',
};

/** From the region, m. */
export const MIRROR_AWAYS: readonly number[] = [0.15, 0.22, 0.32, 0.45, 0.65, 0.9];
const MARGIN_M = 0.01;
/** Rays that leave the others by more than this go elsewhere: round a rim, cosine. */
const TOGETHER = 0.5;

/**
 * The card that a region mirrors all over, at a distance: across the mirrored rays of its points, as large as they spread,
 * facing it. From the kit where it has one as large, or with the size to cut. Measured by what the region then mirrors.
 * Limits: mirrored once; rough surfaces by the middle of their lobe. @returns nothing where the region mirrors nothing
 */
export function mirrorIn(asked: Asked, kind: MirroredKind, awayM: number): CardAnswer[] {
  const { set, region } = asked;
  const tag = freeSheetTag(set);
  const rays = region.flatMap(({ pointM, mirrors }) => (mirrors ? [{ from: pointM, way: mirrors.way }] : []));
  if (tag === null || rays.length === 0) return [];
  const sum = rays.map(({ way }) => way).reduce(add);
  if (length(sum) < 0.05 * rays.length) return [];
  const mean = normalise(sum);
  const own = rays.filter(({ way }) => dot(way, mean) > TOGETHER);
  const middle = scale(own.map(({ from }) => from).reduce(add), 1 / own.length);
  const centre = add(middle, scale(mean, awayM));
  const { right, up } = aimFrame(centre, middle);
  const at = own.flatMap(({ from, way }) => {
    const t = dot(subtract(centre, from), mean) / dot(way, mean);
    if (t <= 0) return [];
    const met = subtract(add(from, scale(way, t)), centre);
    return [[dot(met, right), dot(met, up)] as const];
  });
  const [x, y] = [at.map(([across]) => across), at.map(([, high]) => high)];
  const [left, far, low, high] = [Math.min(...x), Math.max(...x), Math.min(...y), Math.max(...y)];
  const [widthM, heightM] = [far - left + 2 * MARGIN_M, high - low + 2 * MARGIN_M];
  if (!(widthM > 0 && widthM < 3 && heightM < 3)) return [];
  const positionM = add(centre, add(scale(right, (left + far) / 2), scale(up, (low + high) / 2)));
  const held = kind === 'gradient' ? null : fittingSheet(asked, isAlike(kind), widthM, heightM);
  const whole = {
    kind: kind === 'frost' ? ('frame' as const) : ('card' as const),
    tag,
    name: held?.entry.name ?? NAMES[kind],
    positionM: toTenthMm(positionM),
    aimM: toTenthMm(middle),
    rollDeg: 0,
    widthM: held?.widthM ?? cutSize(widthM),
    heightM: held?.heightM ?? cutSize(heightM),
    front: kind === 'gradient' ? gradientCard('across', asked.kit) : FRONTS[kind],
    back: kind === 'frost' ? FROST : WHITE_CARD,
    stand: false,
  } satisfies Sheet;
  const sheet = overTable(set, whole);
  if (!sheet || !canStand(set, sheet)) return [];
  const answer = measuredAnswer(asked, sheet, held?.entry.name ?? null);
  return [{ ...answer, mirrored: false, mirroredPart: partThatMirrors(asked, sheet, own.length) }];
}

/** Part of the region's mirroring points that mirror the sheet once it stands there. */
function partThatMirrors({ set, region }: Asked, sheet: Sheet, rays: number): number {
  const changed = { ...set, sheets: [...set.sheets, sheet] };
  const { engine, scene } = prepareTracing(changed, 'plain');
  const shown = region.filter(({ mirrors, pointM }: RegionPoint) => {
    if (!mirrors) return false;
    engine.point.set(pointM.map((value, a) => value + 1e-4 * (mirrors.way[a] as number)));
    engine.direction.set(mirrors.way);
    engine.look();
    const thing = scene.things[scene.table.thing[engine.sight[0] as number] ?? -1];
    return thing?.kind === 'sheet' && thing.key === sheet.tag;
  });
  return shown.length / Math.max(1, rays);
}

const isAlike =
  (kind: MirroredKind) =>
  ({ front }: Sheet): boolean => {
    if (kind === 'frost') return front.kind === 'translucent';
    const grey = 'reflectance' in front && typeof front.reflectance === 'number' ? front.reflectance : null;
    if (front.kind !== 'matte' || front.tone || grey === null) return false;
    return kind === 'white' ? grey > 0.6 : grey < 0.1;
  };
