import {
  type KitEntry,
  kitDocument,
  materialKinds,
  type SetDocumentInput,
  setDocument,
} from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { kindsOf } from '../../core/test/anyDocument.js';
import { defaultKit } from '../src/index.js';

const kit = defaultKit();

/** The demo set with an entry put on it, as the palette does. */
function withEntry(entry: KitEntry): unknown {
  const set: SetDocumentInput = demoSet('cordial');
  switch (entry.what) {
    case 'light':
      return { ...set, lights: [...(set.lights ?? []), { ...entry.thing, tag: 'Z' }] };
    case 'sheet':
      return { ...set, sheets: [...(set.sheets ?? []), { ...entry.thing, tag: '99' }] };
    case 'product':
      return { ...set, products: [...(set.products ?? []), { ...entry.thing, id: 'another' }] };
    case 'material':
    case 'equipment':
      return set;
  }
}

describe('the kit a studio starts with', () => {
  test('each entry says where its figures come from and what it is for', () => {
    expect(kit.entries.length).toBeGreaterThan(80);
    for (const entry of kit.entries) {
      expect(entry.source.length, entry.id).toBeGreaterThan(10);
      expect(entry.purposes.length, entry.id).toBeGreaterThan(1);
    }
  });

  test.each(kit.entries.map((entry) => [entry.id, entry] as const))(
    '%s can be put on a set',
    (_id, entry) => {
      expect(setDocument.safeParse(withEntry(entry)).error?.issues).toBeUndefined();
    },
  );

  test('each flash says how long it burns and how it is turned down', () => {
    const flashes = kit.entries.flatMap(({ what, id, thing }) =>
      what === 'light' && /^flash|^guide/.test(thing.output.kind) ? [{ id, thing }] : [],
    );
    expect(flashes.length).toBeGreaterThan(15);
    for (const { id, thing } of flashes) {
      expect('duration' in thing ? thing.duration?.fullS : undefined, id).toBeGreaterThan(1 / 2000);
      expect(thing.dial, id).toBeDefined();
    }
  });

  test('has every kind of light, sheet and product that a set can have, but for what is imported', () => {
    const kinds = (what: KitEntry['what']) =>
      new Set(kit.entries.filter((entry) => entry.what === what).map((entry) => entry.thing.kind));
    const notOwned = new Set(['surround', 'ies', 'cut-out', 'mesh']);
    const asked: [list: string, what: KitEntry['what']][] = [
      ['lights', 'light'],
      ['sheets', 'sheet'],
      ['products', 'product'],
    ];
    for (const [list, what] of asked) {
      for (const kind of kindsOf(list)) if (!notOwned.has(kind)) expect(kinds(what)).toContain(kind);
    }
    // Frost and nets come with the sheets that are made of them.
    const ofSheets = new Set(['translucent', 'net']);
    for (const kind of [...materialKinds.body, ...materialKinds.sheet])
      if (!ofSheets.has(kind)) expect(kinds('material')).toContain(kind);
  });

  test('two entries of one id are refused', () => {
    const twice = { ...kit, entries: [kit.entries[0], kit.entries[0]] };
    const checked = kitDocument.safeParse(twice);
    expect(checked.error?.issues[0]?.path).toEqual(['entries', 1, 'id']);
  });
});
