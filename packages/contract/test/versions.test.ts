import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import {
  backupManifest,
  checkDocument,
  jobDocument,
  kitDocument,
  type SetDocument,
  setDocument,
} from '../src/index.js';
import { upgraded, VERSIONS_TODAY } from '../src/versions.js';

/** A document as it was kept by the version in its name; these files are never changed. */
const kept = (name: string) =>
  JSON.parse(readFileSync(new URL(`documents/${name}.json`, import.meta.url), 'utf8'));

const SCHEMAS = {
  'fendrix-set': setDocument,
  'fendrix-job': jobDocument,
  'fendrix-kit': kitDocument,
  'fendrix-backup': backupManifest,
} as const;
/** Every version that was ever written of every kind: a new one without a file here is named. */
const EVERY = Object.entries(VERSIONS_TODAY).flatMap(([format, today]) =>
  Array.from(
    { length: today },
    (_, i) => [`${format.replace('fendrix-', '')}-${i + 1}`, format as keyof typeof SCHEMAS, today] as const,
  ),
);

describe('documents of before read for ever', () => {
  test.each(EVERY)('%s', (name, format, today) => {
    const schema = SCHEMAS[format];
    const checked = checkDocument<{ version: number }>(schema, kept(name));
    expect(checked.ok ? [] : checked.problems).toEqual([]);
    expect(checked.ok && checked.value.version).toBe(today);
    const again = checkDocument<{ version: number }>(schema, checked.ok ? checked.value : null);
    expect(again).toEqual(checked);
  });

  test.each(EVERY)('%s of a version to come is refused in words, at its version', (name, format) => {
    const checked = checkDocument<unknown>(SCHEMAS[format], { ...kept(name), version: 99, unheardOf: true });
    expect(checked).toEqual({
      ok: false,
      problems: [{ path: 'version', message: expect.stringContaining('a newer Fendrix wrote it') }],
    });
  });

  test.each([0, -1, 1.5, '1', null])('a version %s is none', (version) => {
    const checked = checkDocument(setDocument, { ...kept('set-1'), version });
    expect(checked.ok ? [] : checked.problems.map(({ path }) => path)).toEqual(['version']);
  });
});

describe('sets of before wishes', () => {
  const opened = (name: string) => {
    const checked = checkDocument(setDocument, kept(`demo-${name}-1`));
    if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
    return checked.value;
  };

  test.each(['bottle', 'cordial', 'cordial-frost', 'mill', 'pepper', 'perry', 'tart', 'tent', 'vinegar'])(
    '%s opens with wishes for what stands on it, and all else as it was',
    (name) => {
      const { wishes, settled, version, ...rest } = opened(name);
      const { version: _before, ...before } = kept(`demo-${name}-1`);
      // It faces nearly straight down, from where it was turned the other way: see below.
      if (name === 'mill') before.lights[0].rollDeg = 180;
      expect(version).toBe(3);
      expect(settled).toEqual([]);
      expect(rest).toMatchObject(before);
      expect(wishes.mood).toBe('neutral');
    },
  );

  test('words are to be read, liquid in glass is to glow, black cloth is to be black', () => {
    expect(opened('cordial').wishes).toMatchObject({
      words: 'readable',
      edges: 'dark-line',
      liquid: 'glows',
    });
    expect(opened('pepper').wishes.ground).toBe('black');
    expect(opened('mill').wishes).toMatchObject({ edges: 'open', liquid: 'open' });
  });

  test('what faces nearly straight down keeps its turn by a roll, in takes too', () => {
    const document = kept('set-2');
    const down = { ...document.lights[0], positionM: [0.02, 0, 1], aimM: [0, 0, 0], rollDeg: 10 };
    document.lights[0] = down;
    document.takes[0].set.lights[0] = down;
    const read = checkDocument<SetDocument>(setDocument, document);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    for (const own of [read.value, read.value.takes[0]?.set])
      expect(own?.lights[0]).toMatchObject({ ...down, rollDeg: expect.closeTo(-80, 3) });
  });

  test('takes get wishes of their own', () => {
    const document = kept('set-1');
    const before = { ...document, takes: [{ id: 'a', name: 'A', set: standingOf(document) }] };
    const checked = checkDocument(setDocument, before);
    expect(checked.ok && checked.value.takes[0]?.set.wishes).toEqual(checked.ok && checked.value.wishes);
  });
});

const standingOf = ({
  format: _f,
  version: _v,
  name: _n,
  note: _o,
  takes: _t,
  takeId: _i,
  plates: _p,
  ...rest
}: Record<string, unknown>) => rest;

describe('steps from one version to the next', () => {
  const upgrades = {
    list: [
      ({ goods, ...rest }: Record<string, unknown>) => ({ ...rest, products: goods }),
      ({ products, ...rest }: Record<string, unknown>) => ({
        ...rest,
        products,
        many: products !== undefined,
      }),
    ],
  };

  test.each([
    [{ format: 'list', version: 1, goods: ['jar'] }],
    [{ format: 'list', version: 2, products: ['jar'] }],
    [{ format: 'list', version: 3, products: ['jar'], many: true }],
  ])('%o', (document) => {
    const before = JSON.stringify(document);
    expect(upgraded(document, upgrades)).toEqual({
      ok: true,
      data: { format: 'list', version: 3, products: ['jar'], many: true },
    });
    expect(JSON.stringify(document)).toBe(before);
  });

  test('what is no document of ours is left to the check', () => {
    for (const data of [
      null,
      7,
      'set',
      [],
      {},
      { format: 'toString', version: 1 },
      { format: 'other', version: 9 },
    ])
      expect(upgraded(data, upgrades)).toEqual({ ok: true, data });
  });
});
