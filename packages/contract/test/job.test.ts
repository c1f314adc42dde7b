import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkDocument, jobDocument, kitDocument } from '../src/index.js';

fc.configureGlobal({ seed: 20261126 });

const bottle = {
  kind: 'turned',
  id: 'bottle',
  name: 'Bottle',
  positionM: [0, 0, 0],
  material: { kind: 'dielectric', index: 1.52 },
  profile: [
    { radiusM: 0.03, heightM: 0 },
    { radiusM: 0.03, heightM: 0.2 },
  ],
};
const product = { id: 'bottle', name: 'Bottle', body: bottle };
const shot = { id: 'front', name: 'Front', products: ['bottle'] };
const format = { id: 'shop', name: 'Shop page', widthPx: 2000, heightPx: 2000 };

const job = (changes: object = {}) => ({
  format: 'fendrix-job',
  version: 1,
  name: 'Autumn',
  products: [product],
  shots: [shot],
  ...changes,
});

const problems = (document: unknown) => {
  const checked = checkDocument(jobDocument, document);
  return checked.ok ? [] : checked.problems.map(({ path, message }) => `${path} ${message}`);
};

describe('a job document', () => {
  test('a name is enough; all else has a default', () => {
    const checked = jobDocument.parse({ format: 'fendrix-job', version: 1, name: 'New job' });
    expect(checked).toMatchObject({ client: '', delivered: false, products: [], shots: [] });
    expect(checked.brief.deliverables).toEqual([]);
    expect('dueOn' in checked).toBe(false);
  });

  test('what is read is written the same', () => {
    const once = jobDocument.parse(job({ brief: { deliverables: [format] }, dueOn: '2027-02-28' }));
    expect(jobDocument.parse(JSON.parse(JSON.stringify(once)))).toEqual(once);
  });

  test.each<[string, object, RegExp]>([
    ['no name', { name: '' }, /^name must have at least 1/],
    ['an unknown field', { colour: 'red' }, /^colour is not a known field/],
    ['a day that is none', { dueOn: '2027-02-30' }, /^dueOn /],
    ['words that never end', { client: 'x'.repeat(81) }, /^client must have at most 80/],
    [
      'a format without pixels',
      { brief: { deliverables: [{ ...format, widthPx: 0 }] } },
      /widthPx must be at least 16/,
    ],
    [
      'two formats of one id',
      { brief: { deliverables: [format, format] } },
      /deliverables\[1\]\.id "shop" is taken/,
    ],
    [
      'a picture of nothing',
      { shots: [{ ...shot, products: [] }] },
      /shots\[0\]\.products must have at least 1/,
    ],
    ['a picture of what is not there', { shots: [{ ...shot, products: ['jar'] }] }, /"jar" is no product/],
    [
      'a format that is not there',
      { shots: [{ ...shot, deliverables: ['poster'] }] },
      /"poster" is no format/,
    ],
    [
      'a series of what is not there',
      { series: { products: ['jar'] } },
      /series\.products\[0\] "jar" is no product/,
    ],
    ['a tilt beyond straight down', { shots: [{ ...shot, tiltDeg: 95 }] }, /tiltDeg must be at most 90/],
    ['a set that is no address', { shots: [{ ...shot, setId: '../etc' }] }, /shots\[0\]\.setId/],
    [
      'a reference that is no hash',
      { brief: { references: [{ sha256: 'abc', name: 'Look' }] } },
      /64 hexadecimal/,
    ],
    [
      'an outline that falls',
      {
        products: [{ ...product, body: { ...bottle, profile: [...bottle.profile].reverse() } }],
      },
      /products\[0\]\.body\.profile/,
    ],
    [
      'a step of no words',
      { products: [{ ...product, steps: [{ id: 'a', text: '' }] }] },
      /steps\[0\]\.text/,
    ],
  ])('%s is told by field', (_name, changes, expected) => {
    expect(problems(job(changes)).join('\n')).toMatch(expected);
  });

  test('whatever is sent gives an answer, never an exception', () => {
    fc.assert(
      fc.property(fc.anything(), (value) => {
        expect(typeof checkDocument(jobDocument, value).ok).toBe('boolean');
      }),
    );
  });

  test('whatever stands in one field gives an answer that names it, or is taken', () => {
    const fields = Object.keys(jobDocument.shape);
    fc.assert(
      fc.property(fc.constantFrom(...fields), fc.jsonValue(), (field, value) => {
        const checked = checkDocument(jobDocument, job({ [field]: value }));
        if (!checked.ok) expect(checked.problems.every(({ message }) => message.length > 5)).toBe(true);
      }),
    );
  });
});

describe('equipment and studio in the kit', () => {
  const kit = (thing: object) => ({
    format: 'fendrix-kit',
    version: 1,
    entries: [{ what: 'equipment', id: 'one', name: 'One', thing }],
  });

  test('a lens, a support, a filter are taken with their defaults', () => {
    const lens = {
      kind: 'lens',
      shortestM: 0.05,
      longestM: 0.05,
      closestFocusM: 0.4,
      widestFNumber: 2,
      smallestFNumber: 16,
    };
    expect(kitDocument.parse(kit(lens)).entries[0]).toMatchObject({ count: 2, thing: { pupilRatio: 1 } });
    expect(kitDocument.safeParse(kit({ kind: 'filter', lossStops: 3 })).success).toBe(true);
  });

  test('a kind there is not and a figure out of range are told', () => {
    expect(kitDocument.safeParse(kit({ kind: 'drone' })).success).toBe(false);
    const checked = checkDocument(kitDocument, kit({ kind: 'filter', lossStops: -1 }));
    expect(checked.ok ? '' : checked.problems[0]?.path).toBe('entries[0].thing.lossStops');
  });

  test('a kit from before equipment and studio still reads', () => {
    expect(kitDocument.parse({ format: 'fendrix-kit', version: 1, entries: [] }).studio).toBeUndefined();
  });
});

describe('the day of a job', () => {
  const day = (changes: object, shotChanges: object = {}) =>
    checkDocument(
      jobDocument,
      job({ products: [product], shots: [{ ...shot, ...shotChanges }], day: changes }),
    );

  test('starts at nine in an order of nobody, where nothing is said', () => {
    const read = jobDocument.parse(job());
    expect(read.day).toEqual({
      startsAt: '09:00',
      order: [],
      tapesFrom: ['table-front-left', 'table-front-right'],
    });
  });

  test.each([['24:00'], ['9:30'], ['09:60'], ['noon'], ['09:30:00']])(
    '%s is no time of the day',
    (startsAt) => {
      const checked = day({ startsAt });
      expect(checked.ok ? '' : checked.problems[0]?.path).toBe('day.startsAt');
      expect(checked.ok ? '' : checked.problems[0]?.message).toContain('such as 09:30');
    },
  );

  test('times of a picture are checked by the field that holds them', () => {
    expect(day({}, { notBefore: '08:15', endedBy: '17:00', last: true }).ok).toBe(true);
    const checked = day({}, { endedBy: 'late' });
    expect(checked.ok ? '' : checked.problems[0]?.path).toBe('shots[0].endedBy');
  });
});

describe('own limits of verdicts', () => {
  const kitWith = (verdicts: object) =>
    checkDocument(kitDocument, { format: 'fendrix-kit', version: 1, entries: [], verdicts });

  test('a kit from before them has none', () => {
    expect(kitDocument.parse({ format: 'fendrix-kit', version: 1, entries: [] }).verdicts).toEqual({});
  });

  test.each([
    [{ burnt: { limit: 'much' } }, 'verdicts.burnt.limit'],
    [{ burnt: { minutesNow: -1 } }, 'verdicts.burnt.minutesNow'],
    [{ burnt: { volume: 3 } }, 'verdicts.burnt'],
  ])('%j is refused, and told where', (verdicts, path) => {
    const checked = kitWith(verdicts);
    expect(checked.ok ? '' : checked.problems[0]?.path).toContain(path);
  });

  test('a name that no kind of verdict can have is refused', () => {
    expect(kitWith({ '__proto__ x': { off: true } }).ok).toBe(false);
    expect(kitWith({ burnt: { off: true } }).ok).toBe(true);
  });
});
