import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { checkDocument, jobDocument, kitDocument, setDocument } from '../src/index.js';
import { upgraded } from '../src/versions.js';

/** A document as it was kept by the version in its name; these files are never changed. */
const kept = (name: string) =>
  JSON.parse(readFileSync(new URL(`documents/${name}.json`, import.meta.url), 'utf8'));

describe('documents of before read for ever', () => {
  test.each([
    ['set-1', setDocument],
    ['job-1', jobDocument],
    ['kit-1', kitDocument],
  ] as const)('%s', (name, schema) => {
    const document = kept(name);
    const checked = checkDocument<{ version: number }>(schema, document);
    expect(checked.ok ? [] : checked.problems).toEqual([]);
    const again = checkDocument<{ version: number }>(schema, checked.ok ? checked.value : null);
    expect(again).toEqual(checked);
  });

  test.each([
    ['set-1', setDocument],
    ['job-1', jobDocument],
    ['kit-1', kitDocument],
  ] as const)('%s of a version to come is refused in words, at its version', (name, schema) => {
    const checked = checkDocument<unknown>(schema, { ...kept(name), version: 99, unheardOf: true });
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
