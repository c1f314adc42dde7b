import type {
  AnyMaterial,
  Camera,
  Highlight,
  KitEntry,
  Light,
  OpaqueMaterial,
  Person,
  Product,
  SetDocument,
  Sheet,
  Spot,
  Studio,
  TabletopMaterial,
  Vector,
} from '@fendrix/contract';
import { depthAlongLens, fromStand, studioWindows, toStand, vector, type WindowLight } from '@fendrix/core';
import type { Edit } from './edit';
import { hasLensHole, sheetAt } from './sheetPlaces';
import {
  changeBackdrop,
  changeBench,
  isSurrounding,
  moveSurrounding,
  removeSurrounding,
  SURROUNDING_NAMES,
  type SurroundingKind,
  surroundingPosition,
} from './surroundings';

/** Something on the bench that can be selected and moved. */
export interface ThingRef {
  kind: 'light' | 'sheet' | 'product' | 'person' | 'camera' | SurroundingKind;
  /** Tag of a light or sheet, id of a product, name of a person; empty for what there is one of. */
  key: string;
}

export const sameThing = (a: ThingRef | null, b: ThingRef | null): boolean =>
  a?.kind === b?.kind && a?.key === b?.key;

const replace = <T>(list: T[], matches: (item: T) => boolean, change: (item: T) => T): T[] =>
  list.map((item) => (matches(item) ? change(item) : item));

/** What a thing is called on the bench. */
export function nameOf(set: SetDocument, { kind, key }: ThingRef): string {
  if (isSurrounding(kind)) return SURROUNDING_NAMES[kind];
  switch (kind) {
    case 'light':
      return set.lights.find(({ tag }) => tag === key)?.name ?? key;
    case 'sheet':
      return set.sheets.find(({ tag }) => tag === key)?.name ?? key;
    case 'product':
      return set.products.find(({ id }) => id === key)?.name ?? key;
    case 'person':
      return key;
    case 'camera':
      return 'Camera';
  }
}

/** Where a thing stands; null for a light that stands nowhere. */
export function positionOf(set: SetDocument, ref: ThingRef): Vector | null {
  switch (ref.kind) {
    case 'camera':
      return set.camera.positionM;
    case 'light': {
      const light = set.lights.find(({ tag }) => tag === ref.key);
      return light && light.kind !== 'surround' ? light.positionM : null;
    }
    case 'sheet':
      return set.sheets.find(({ tag }) => tag === ref.key)?.positionM ?? null;
    case 'product':
      return set.products.find(({ id }) => id === ref.key)?.positionM ?? null;
    case 'person': {
      const person = set.people.find(({ name }) => name === ref.key);
      return person ? [...person.positionM, 0] : null;
    }
    default:
      return surroundingPosition(set, ref.kind);
  }
}

export interface Aimed {
  positionM: Vector;
  aimM: Vector;
  keepsDirection?: boolean | undefined;
}

/** In another place, still facing its point; or in the same direction as before, where it keeps that. */
function movedTo<T extends Aimed>(thing: T, positionM: Vector): T {
  if (!thing.keepsDirection) return { ...thing, positionM };
  const by = vector.subtract(positionM, thing.positionM);
  return { ...thing, positionM, aimM: vector.add(thing.aimM, by) };
}

/** Stands a thing at another bearing, distance or height; the others stay as they are by then. */
export function standThing(ref: ThingRef, changes: Partial<ReturnType<typeof toStand>>): Edit {
  return (set) => {
    const position = positionOf(set, ref);
    return position ? moveThing(ref, fromStand({ ...toStand(position), ...changes }))(set) : set;
  };
}

/** Moves a thing. What is aimed goes on facing its point, unless it keeps its direction. */
export function moveThing(ref: ThingRef, positionM: Vector): Edit {
  return (set) => {
    switch (ref.kind) {
      case 'camera':
        return { ...set, camera: movedTo(set.camera, positionM) };
      case 'light':
        return {
          ...set,
          lights: replace(
            set.lights,
            ({ tag }) => tag === ref.key,
            (light) =>
              light.kind === 'surround'
                ? light
                : 'aimM' in light
                  ? movedTo(light, positionM)
                  : { ...light, positionM },
          ),
        };
      case 'sheet':
        return {
          ...set,
          sheets: replace(
            set.sheets,
            ({ tag }) => tag === ref.key,
            (sheet) => movedTo(sheet, positionM),
          ),
        };
      case 'product':
        return {
          ...set,
          products: replace(
            set.products,
            ({ id }) => id === ref.key,
            (product) => ({ ...product, positionM }),
          ),
        };
      case 'person':
        return changePerson(ref.key, (person) => ({ ...person, positionM: [positionM[0], positionM[1]] }))(
          set,
        );
      default:
        return moveSurrounding(ref.kind, positionM)(set);
    }
  };
}

export const changePerson =
  (name: string, change: (person: Person) => Person): Edit =>
  (set) => ({ ...set, people: replace(set.people, (person) => person.name === name, change) });

/** Someone beside the camera, in dark clothes. */
export const addPerson =
  (name: string): Edit =>
  (set) => ({
    ...set,
    people: [
      ...set.people,
      {
        name,
        positionM: [set.camera.positionM[0] + 0.5, set.camera.positionM[1] - 0.2],
        heightM: 1.75,
        clothes: { kind: 'matte', reflectance: 0.05 },
      },
    ],
  });

export function freePersonName({ people }: SetDocument): string {
  for (let i = 1; ; i++) {
    const name = i === 1 ? 'Person' : `Person ${i}`;
    if (!people.some((person) => person.name === name)) return name;
  }
}

export const changeCamera =
  (changes: Partial<Camera>): Edit =>
  (set) => ({ ...set, camera: { ...set.camera, ...changes } });

/** Focuses on a point: of a product, it goes along with it. */
export const focusOn =
  (pointM: Vector, productId: string | null): Edit =>
  (set) => {
    const product = set.products.find(({ id }) => id === productId);
    const focusM = depthAlongLens(set.camera, pointM);
    const on = product
      ? { product: product.id, pointM: vector.subtract(pointM, product.positionM) }
      : { pointM };
    return { ...set, camera: { ...set.camera, focusM, focusOn: on } };
  };

export const changeLight =
  (tag: string, change: (light: Light) => Light): Edit =>
  (set) => ({ ...set, lights: replace(set.lights, (light) => light.tag === tag, change) });

export const changeSheet =
  (tag: string, change: (sheet: Sheet) => Sheet): Edit =>
  (set) => ({
    ...set,
    sheets: replace(set.sheets, (sheet) => sheet.tag === tag, change),
  });

export const changeProduct =
  (productId: string, change: (product: Product) => Product): Edit =>
  (set) => ({ ...set, products: replace(set.products, (product) => product.id === productId, change) });

export const renameSet =
  (name: string): Edit =>
  (set) => ({ ...set, name });

/** What calls for care beside the things on the set: named, or no longer. */
export const toggleHazard =
  (hazard: SetDocument['hazards'][number]): Edit =>
  (set) => ({
    ...set,
    hazards: set.hazards.includes(hazard)
      ? set.hazards.filter((other) => other !== hazard)
      : [...set.hazards, hazard],
  });

export const pinSpot =
  (spot: Spot): Edit =>
  (set) => ({ ...set, spots: [...set.spots, spot] });

export const removeSpot =
  (name: string): Edit =>
  (set) => ({
    ...set,
    spots: set.spots.filter((spot) => spot.name !== name).map((spot) => withoutBase(spot, name)),
  });

/** A target that is counted from a spot goes with it. */
function withoutBase(spot: Spot, name: string): Spot {
  if (spot.target?.against !== name) return spot;
  const { target: _target, ...rest } = spot;
  return rest;
}

export const changeSpot =
  (name: string, changes: Partial<Spot>): Edit =>
  (set) => ({
    ...set,
    spots: replace(
      // Those that count from a renamed spot go on doing so.
      changes.name === undefined
        ? set.spots
        : set.spots.map((spot) =>
            spot.target?.against === name
              ? { ...spot, target: { ...spot.target, against: changes.name as string } }
              : spot,
          ),
      (spot) => spot.name === name,
      (spot) => ({ ...spot, ...changes }),
    ),
  });

export const keepHighlight =
  (highlight: Highlight): Edit =>
  (set) => ({
    ...set,
    highlights: [...set.highlights.filter((other) => !sameHighlight(other, highlight)), highlight],
  });

export const dropHighlight =
  (highlight: Highlight): Edit =>
  (set) => ({ ...set, highlights: set.highlights.filter((other) => !sameHighlight(other, highlight)) });

const sameHighlight = (a: Highlight, b: Highlight) =>
  a.product === b.product && a.kind === b.kind && a.key === b.key && a.heightM === b.heightM;

export function removeThing(ref: ThingRef): Edit {
  if (isSurrounding(ref.kind)) return removeSurrounding(ref.kind);
  return (set) => ({
    ...set,
    lights: set.lights.filter(({ tag }) => ref.kind !== 'light' || tag !== ref.key),
    sheets: set.sheets.filter(({ tag }) => ref.kind !== 'sheet' || tag !== ref.key),
    products: set.products.filter(({ id }) => ref.kind !== 'product' || id !== ref.key),
    people: set.people.filter(({ name }) => ref.kind !== 'person' || name !== ref.key),
  });
}

/** Windows of the studio that are not on the set yet, under free letters. */
export function windowsToAdd(set: SetDocument, studio: Studio): WindowLight[] {
  const isThere = ({ name }: Studio['windows'][number]) =>
    set.lights.some((light) => light.kind === 'window' && light.name === name);
  const tag = freeTag(set, 'light');
  if (!set.room || tag === null) return [];
  const windows = studio.windows.filter((window) => !isThere(window));
  return windows.flatMap((window) => studioWindows({ ...studio, windows: [window] }, [tag]));
}

/** The first tag that is free; null when all are taken. */
export function freeTag(set: SetDocument, kind: 'light' | 'sheet'): string | null {
  const letters = Array.from({ length: 26 }, (_, i) => String.fromCharCode(65 + i));
  const numbers = Array.from({ length: 99 }, (_, i) => String(i + 1));
  const taken = new Set([...set.lights, ...set.sheets].map(({ tag }) => tag));
  return (kind === 'light' ? letters : numbers).find((tag) => !taken.has(tag)) ?? null;
}

/** A thing that can be put on a set: an entry of the kit, or something from a file. */
export type Addable = {
  [W in 'light' | 'sheet' | 'product']: Pick<Extract<KitEntry, { what: W }>, 'what' | 'thing'>;
}['light' | 'sheet' | 'product'];

/** Under which tag or id a thing would go on the set; null when all are taken. */
export function keyOfAdded(set: SetDocument, entry: Addable): ThingRef | null {
  if (entry.what !== 'product') {
    const key = freeTag(set, entry.what);
    return key === null ? null : { kind: entry.what, key };
  }
  const taken = new Set(set.products.map(({ id }) => id));
  for (let i = 1; i <= 50; i++) {
    const key = i === 1 ? entry.thing.id : `${entry.thing.id}-${i}`;
    if (!taken.has(key)) return { kind: 'product', key };
  }
  return null;
}

/** Further products stand beside the first, this far apart, m. */
const BESIDE_M = 0.15;

/** Puts a thing on the set. */
export function addFromKit(entry: Addable, key: string): Edit {
  return (set) => {
    switch (entry.what) {
      case 'light':
        return { ...set, lights: [...set.lights, { ...entry.thing, tag: key }] };
      case 'sheet': {
        const sheet = { ...entry.thing, tag: key };
        return {
          ...set,
          sheets: [...set.sheets, hasLensHole(sheet) ? (sheetAt(set, sheet, 'lens') ?? sheet) : sheet],
        };
      }
      case 'product': {
        const [x, y, z] = entry.thing.positionM;
        const positionM: Vector = [x + BESIDE_M * set.products.length, y, z];
        return { ...set, products: [...set.products, { ...entry.thing, id: key, positionM }] };
      }
    }
  };
}

const SEE_THROUGH = new Set(['translucent', 'net']);

/** What a material can be put on, as a whole. */
export const takesMaterial = (ref: ThingRef | null): ref is ThingRef =>
  ref !== null && ['product', 'sheet', 'bench', 'backdrop'].includes(ref.kind);

/** Makes a product, table, background or the front of a sheet of another material; what lets light through goes on both sides. */
export function giveMaterial(ref: ThingRef, material: AnyMaterial): Edit {
  if (ref.kind === 'bench') return changeBench({ material: material as TabletopMaterial });
  if (ref.kind === 'backdrop') return changeBackdrop({ material: material as OpaqueMaterial });
  if (ref.kind === 'product')
    return changeProduct(ref.key, (product) => ({ ...product, material }) as Product);
  return changeSheet(ref.key, (sheet) => {
    const both = SEE_THROUGH.has(material.kind) || SEE_THROUGH.has(sheet.back.kind);
    return { ...sheet, front: material, ...(both ? { back: material } : {}) } as Sheet;
  });
}
