import type { Backdrop, Bench, Room, SetDocument, Studio, Vector } from '@fendrix/contract';
import { inStudio, liesOnTable } from '@fendrix/core';
import type { Edit } from './edit';

/** What the set stands on, before and in; there is one of each, or none. */
const KINDS = ['bench', 'backdrop', 'room'] as const;
export type SurroundingKind = (typeof KINDS)[number];

export const isSurrounding = (kind: string): kind is SurroundingKind =>
  (KINDS as readonly string[]).includes(kind);

/** What each is called. */
export const SURROUNDING_NAMES: Record<SurroundingKind, string> = {
  bench: 'Table',
  backdrop: 'Background',
  room: 'Room',
};

/** Where it stands, m from the mark; null where there is none, and for the room, which stands round it all. */
export function surroundingPosition(
  { bench, backdrop }: Pick<SetDocument, 'bench' | 'backdrop'>,
  kind: SurroundingKind,
): Vector | null {
  if (kind === 'bench') return bench ? [...bench.centreM, 0] : null;
  if (kind === 'room' || !backdrop) return null;
  return backdrop.kind === 'panel' ? backdrop.centreM : [0, backdrop.backM, 0];
}

/** Moves the table along the floor, a flat background anywhere, what lies on the table too nearer or farther with its front edge. */
export function moveSurrounding(kind: SurroundingKind, [x, y, z]: Vector): Edit {
  return (set) => {
    const { bench, backdrop } = set;
    if (kind === 'bench' && bench) return { ...set, bench: { ...bench, centreM: [x, y] } };
    if (kind !== 'backdrop' || !backdrop) return set;
    if (backdrop.kind === 'panel') return { ...set, backdrop: { ...backdrop, centreM: [x, y, z] } };
    const frontM = backdrop.frontM + y - backdrop.backM;
    return { ...set, backdrop: { ...backdrop, backM: y, frontM } };
  };
}

/** Moves table or background along one axis; the others stay as they are by then. */
export function moveAlong(kind: SurroundingKind, axis: 0 | 1 | 2, value: number): Edit {
  return (set) => {
    const at = surroundingPosition(set, kind);
    if (!at) return set;
    const to: Vector = [...at];
    to[axis] = value;
    return moveSurrounding(kind, to)(set);
  };
}

export const changeBench =
  (changes: Partial<Bench>): Edit =>
  (set) =>
    set.bench ? { ...set, bench: { ...set.bench, ...changes } } : set;

/** Changes what a background of any kind has. */
export const changeBackdrop =
  (changes: Partial<Backdrop>): Edit =>
  (set) =>
    set.backdrop ? { ...set, backdrop: { ...set.backdrop, ...changes } as Backdrop } : set;

export const changeRoom =
  (changes: Partial<Room>): Edit =>
  (set) =>
    set.room ? { ...set, room: { ...set.room, ...changes } } : set;

export function removeSurrounding(kind: SurroundingKind): Edit {
  return (set) => {
    const { [kind]: _gone, ...rest } = set;
    return rest as SetDocument;
  };
}

/** How far behind the mark a background stands that is put on a set, m, and how large it is. */
const BEHIND_M = 0.55;
const ACROSS_M = 1.1;
const HIGH_M = 0.9;
const BEND_M = 0.2;
const paper = { kind: 'matte', reflectance: 0.84 } as const;

/** The background as another kind, in the same place, as wide and of the same material; white paper where there was none. */
export function backdropAs(kind: Backdrop['kind'], set: SetDocument): Backdrop {
  const { backdrop, bench } = set;
  const widthM = backdrop?.widthM ?? ACROSS_M;
  const material = backdrop?.material ?? paper;
  const at = surroundingPosition(set, 'backdrop')?.[1] ?? BEHIND_M;
  if (kind === 'panel') {
    const heightM = backdrop?.heightM ?? HIGH_M;
    return { kind, widthM, heightM, centreM: [0, at, heightM / 2], turnDeg: 0, material };
  }
  const edge = bench ? bench.centreM[1] - bench.depthM / 2 : -0.45;
  const frontM = liesOnTable(backdrop) ? backdrop.frontM : Math.min(edge + 0.02, at - BEND_M - 0.1);
  const heightM =
    backdrop?.kind === 'panel' ? backdrop.centreM[2] + backdrop.heightM / 2 : (backdrop?.heightM ?? HIGH_M);
  const lying = { widthM, frontM, backM: at, material };
  if (kind === 'boards') return { kind, ...lying, heightM, lyingMaterial: material };
  const radiusM = Math.min(BEND_M, 0.9 * (at - frontM));
  return { kind, ...lying, radiusM, heightM: Math.max(heightM, radiusM) };
}

export const setBackdrop =
  (kind: Backdrop['kind']): Edit =>
  (set) => ({ ...set, backdrop: backdropAs(kind, set) });

/** The table of the studio, at its height over the floor. */
export const addBench =
  ({ bench, benchHeightM }: Studio): Edit =>
  (set) => ({ ...set, bench, mark: { heightAboveFloorM: benchHeightM } });

/** The set in the room of the studio, on its table. */
export const addRoom =
  (studio: Studio): Edit =>
  (set) =>
    inStudio(set, studio);
