import type { Kit, SetDocument } from '@fendrix/contract';
import { kitCheck, leftInKit, type MissingThing } from '../kitCheck.js';

/** A set of the day and the picture it is for. */
export interface PackedPicture {
  name: string;
  set: SetDocument;
}

/** One kind of thing that has to be there on the day. */
export interface PackedThing {
  what: 'body' | 'lens' | 'light' | 'sheet' | 'background' | 'product';
  name: string;
  /** The most that stand on one set at once. */
  count: number;
  /** Names of the pictures that need it. */
  pictures: string[];
  /** Whether the kit holds as many; null for what a kit does not keep. */
  inKit: boolean | null;
  /** Of what is missing: names of what could stand in, the nearest first. */
  instead: string[];
}

/**
 * All that the sets of a day need: of each thing as many as stand on one set at once, what is missing first. Things of a kit
 * by the entry that they are taken from, see `kitCheck`; a lens by its focal length, a body by its name.
 */
export function packingList(pictures: readonly PackedPicture[], kit: Pick<Kit, 'entries'>): PackedThing[] {
  const packed = new Map<string, PackedThing>();
  const pack = (picture: string, thing: Omit<PackedThing, 'pictures'>) => {
    const key = `${thing.what} ${thing.inKit} ${thing.name}`;
    const old = packed.get(key);
    packed.set(key, {
      ...thing,
      count: Math.max(thing.count, old?.count ?? 0),
      pictures: [...new Set([...(old?.pictures ?? []), picture])],
    });
  };
  for (const { name, set } of pictures) {
    const { body, lens } = set.camera;
    pack(name, { what: 'body', name: body.name, count: 1, inKit: hasBody(kit, body.name), instead: [] });
    pack(name, {
      what: 'lens',
      name: lens.name,
      count: 1,
      inKit: hasLens(kit, lens.focalLengthM),
      instead: [],
    });
    for (const thing of fromKit(set, kit)) pack(name, thing);
    for (const thing of notInKit(set, kit)) pack(name, thing);
    if (set.backdrop)
      pack(name, { what: 'background', name: set.backdrop.kind, count: 1, inKit: null, instead: [] });
    for (const [product, count] of counted(set.products.map((own) => own.name)))
      pack(name, { what: 'product', name: product, count, inKit: null, instead: [] });
  }
  const rank = ({ what, inKit }: PackedThing) => (inKit === false ? -1 : KINDS.indexOf(what));
  return [...packed.values()].sort((a, b) => rank(a) - rank(b));
}

const KINDS: readonly PackedThing['what'][] = ['body', 'lens', 'light', 'sheet', 'background', 'product'];

const equipment = <K extends 'body' | 'lens'>({ entries }: Pick<Kit, 'entries'>, kind: K) =>
  entries.flatMap((entry) =>
    entry.what === 'equipment' && entry.thing.kind === kind ? [{ ...entry.thing, name: entry.name }] : [],
  );

/** Null where the kit has no bodies at all: then it does not keep them. */
function hasBody(kit: Pick<Kit, 'entries'>, name: string): boolean | null {
  const bodies = equipment(kit, 'body');
  return bodies.length === 0 ? null : bodies.some((own) => own.name === name);
}

/** As told and as engraved differ by less than this, part. */
const SAME_FOCAL = 0.02;

function hasLens(kit: Pick<Kit, 'entries'>, focalLengthM: number): boolean | null {
  const lenses = equipment(kit, 'lens');
  const covers = (own: (typeof lenses)[number]) =>
    own.kind === 'lens' &&
    own.shortestM <= focalLengthM * (1 + SAME_FOCAL) &&
    own.longestM >= focalLengthM * (1 - SAME_FOCAL);
  return lenses.length === 0 ? null : lenses.some(covers);
}

function fromKit(set: SetDocument, kit: Pick<Kit, 'entries'>): Omit<PackedThing, 'pictures'>[] {
  const left = leftInKit(set, kit);
  return kit.entries.flatMap((entry) => {
    const used = entry.count - (left.get(entry.id) ?? entry.count);
    const { what, name } = entry;
    return used > 0 && (what === 'light' || what === 'sheet')
      ? [{ what, name, count: used, inKit: true, instead: [] }]
      : [];
  });
}

function notInKit(set: SetDocument, kit: Pick<Kit, 'entries'>): Omit<PackedThing, 'pictures'>[] {
  const missing = kitCheck(set, kit);
  const isLight = ({ tag }: MissingThing) => set.lights.some((light) => light.tag === tag);
  return [...counted(missing.map(({ name }) => name))].flatMap(([name, count]) => {
    const one = missing.find((own) => own.name === name);
    return one
      ? [
          {
            what: isLight(one) ? ('light' as const) : ('sheet' as const),
            name,
            count,
            inKit: false,
            instead: one.instead.map((other) => other.name),
          },
        ]
      : [];
  });
}

function counted(names: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return counts;
}
