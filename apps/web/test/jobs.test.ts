import { defaultKit } from '@fendrix/catalogue';
import { jobDocument, type ProfilePoint } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { ratioWords } from '../src/features/jobs/brief/FormatDrawings';
import { dayWords, dueWords, parseDay } from '../src/features/jobs/days';
import { insertAfter, movePoint, photoPlace, removePoint } from '../src/features/jobs/products/profile';
import { minutesQuantity, partQuantity } from '../src/features/jobs/quantities';
import { copyOf } from '../src/features/jobs/useJobActions';
import { kitCsv, readKitCsv } from '../src/features/kit/kitCsv';
import { changeRow, freeId, withoutRow } from '../src/shared/rows';

describe('an outline that is edited', () => {
  const profile: ProfilePoint[] = [
    { radiusM: 0.03, heightM: 0, smooth: false },
    { radiusM: 0.036, heightM: 0.1, smooth: true },
    { radiusM: 0.014, heightM: 0.2, smooth: false },
  ];

  test('heights stay in order, the foot on the table, radii off the far side of the axis', () => {
    expect(movePoint(profile, 1, { radiusM: 0.04, heightM: 0.9 })[1]).toMatchObject({
      radiusM: 0.04,
      heightM: 0.2,
    });
    expect(movePoint(profile, 1, { radiusM: -0.01, heightM: -1 })[1]).toMatchObject({
      radiusM: 0,
      heightM: 0,
    });
    expect(movePoint(profile, 0, { radiusM: 0.02, heightM: 0.05 })[0]).toMatchObject({
      radiusM: 0.02,
      heightM: 0,
    });
    expect(movePoint(profile, 1, { radiusM: 0.036123, heightM: 0.1 })[1]?.radiusM).toBe(0.0361);
  });

  test('a point more stands half-way, or over the last; two are always left', () => {
    expect(insertAfter(profile, 0)[1]).toMatchObject({ radiusM: 0.033, heightM: 0.05 });
    expect(insertAfter(profile, 2)[3]).toMatchObject({ radiusM: 0.014, heightM: 0.21 });
    expect(removePoint(profile, 0)[0]).toMatchObject({ radiusM: 0.036, heightM: 0 });
    expect(removePoint(profile.slice(0, 2), 0)).toHaveLength(2);
  });

  test('a photograph lies at true size: 100 px of known 20 cm make 2 mm a pixel', () => {
    const place = photoPlace({
      url: '',
      widthPx: 400,
      heightPx: 300,
      foot: [200, 280],
      from: [200, 280],
      to: [200, 180],
      lengthM: 0.2,
    });
    expect(place.widthM).toBeCloseTo(0.8, 9);
    expect(place.leftM).toBeCloseTo(-0.4, 9);
    expect(place.topM).toBeCloseTo(0.56, 9);
  });
});

describe('rows', () => {
  const rows = [{ id: 'a' }, { id: 'shop-page' }];

  test('a free id is made of the name and never taken', () => {
    expect(freeId(rows, 'Shop page', 'row')).toBe('shop-page-2');
    expect(freeId(rows, '1 2 3', 'row')).toBe('row');
    expect(freeId(rows, 'x'.repeat(90), 'row').length).toBeLessThanOrEqual(40);
  });

  test('one is changed or taken out, the others stay the same objects', () => {
    const changed = changeRow(
      [
        { id: 'a', n: 1 },
        { id: 'b', n: 2 },
      ],
      'b',
      { n: 3 },
    );
    expect(changed).toEqual([
      { id: 'a', n: 1 },
      { id: 'b', n: 3 },
    ]);
    expect(withoutRow(rows, 'a')).toEqual([{ id: 'shop-page' }]);
  });
});

describe('words', () => {
  test.each([
    ['2026-12-11', '11 Dec, in 15 days'],
    ['2026-11-27', '27 Nov, in 1 day'],
    ['2026-11-26', '26 Nov, today'],
    ['2026-11-24', '24 Nov, 2 days late'],
  ])('due %s', (day, words) => {
    expect(dueWords(day, new Date(2026, 10, 26, 23, 30))).toBe(words);
  });

  test('minutes and parts are read as they are said', () => {
    expect(['40', '40 min', '1,5 h', '30 s', 'soon'].map(minutesQuantity.parse)).toEqual([
      40,
      40,
      90,
      0.5,
      null,
    ]);
    expect(['60', '60 %', '7,5 %', 'half'].map(partQuantity.parse)).toEqual([0.6, 0.6, 0.075, null]);
  });
});

test('a copy of a job has done nothing yet, and its sets stay with the first', () => {
  const job = demoJob(() => '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11');
  const copy = copyOf({ ...job, delivered: true });
  expect(jobDocument.safeParse(copy).success).toBe(true);
  expect(copy.delivered).toBe(false);
  expect(copy.shots.every(({ setId, done }) => setId === undefined && !done)).toBe(true);
  expect(copy.products.flatMap(({ steps }) => steps).some(({ done }) => done)).toBe(false);
});

describe('the kit as CSV', () => {
  const { entries } = defaultKit();

  test('out and in again changes nothing, down to gels, grids and gradients', () => {
    const read = readKitCsv(entries, kitCsv(entries));
    if (!read.ok) throw new Error(read.why);
    expect([read.added, read.changed]).toEqual([0, entries.length]);
    expect(read.entries).toEqual(entries);
  });

  const HEAD = 'what,id,kind,name,shortestM,longestM,closestFocusM,widestFNumber,smallestFNumber\n';

  test('a row without an id is added, one with an id that is there changes it', () => {
    const csv = `${HEAD}equipment,,lens,Lens 35 mm,0.035,0.035,0.3,2,22\nequipment,prime-50,lens,Own 50 mm,0.05,0.05,0.4,1.4,16\n`;
    const read = readKitCsv(entries, csv);
    if (!read.ok) throw new Error(read.why);
    expect([read.added, read.changed]).toEqual([1, 1]);
    expect(read.entries.find(({ id }) => id === 'lens-35-mm')?.name).toBe('Lens 35 mm');
    expect(read.entries.find(({ id }) => id === 'prime-50')?.name).toBe('Own 50 mm');
  });

  test('names that a table would take for formulas go out harmless and come back as they were; numbers stay', () => {
    const [first, ...rest] = entries;
    for (const name of ['-2+3', '=1+1', '+a', '@x', "'quoted", "'=kept", 'plain', '-dash']) {
      const named = [{ ...first, name }, ...rest] as typeof entries;
      const csv = kitCsv(named);
      if (name !== 'plain' && !name.startsWith("'"))
        expect(csv).not.toMatch(new RegExp(`(^|,)\\${name[0]}${name.slice(1).replace('+', '\\+')}`, 'm'));
      const read = readKitCsv(named, csv);
      if (!read.ok) throw new Error(read.why);
      expect(read.entries).toEqual(named);
    }
    expect(kitCsv(entries)).toMatch(/,-\d/);
  });

  test('columns that contradict each other and files beyond the limits are told before anything is read', () => {
    const csv = 'what,kind,name,lossStops,lossStops.x\nequipment,filter,F,1,2\n';
    expect(readKitCsv(entries, csv)).toMatchObject({
      ok: false,
      why: expect.stringContaining('lossStops.x'),
    });
    const twice = 'what,kind,name,name\nequipment,filter,F,G\n';
    expect(readKitCsv(entries, twice).ok).toBe(false);
    const long = `${HEAD}${'equipment,,lens,L,0.03,0.03,0.3,2,22\n'.repeat(2001)}`;
    expect(readKitCsv(entries, long)).toMatchObject({ ok: false, why: 'It has more than 2000 rows.' });
    expect(readKitCsv(entries, 'x'.repeat(5_000_001))).toMatchObject({
      ok: false,
      why: 'It is larger than 5 MB.',
    });
  });

  test('figures within figures go by dots', () => {
    const csv =
      'what,kind,name,tag,positionM,aimM,widthM,heightM,output.kind,output.energyJ\nlight,softbox,Own box,A,"[0,0,1]","[0,0,0]",0.5,0.7,flash-energy,300\n';
    const read = readKitCsv([], csv);
    if (!read.ok) throw new Error(read.why);
    expect(read.entries[0]?.thing).toMatchObject({
      widthM: 0.5,
      output: { kind: 'flash-energy', energyJ: 300 },
    });
  });

  test('a bad row is told by row and column, and nothing is taken', () => {
    const read = readKitCsv(entries, `${HEAD}equipment,,lens,Lens,-1,0.035,0.3,2,22\n`);
    expect(read.ok ? '' : read.why).toMatch(/^Row 2, shortestM: must be at least/);
    expect(readKitCsv(entries, 'just,text\n1,2')).toMatchObject({ ok: false });
    const foreign = readKitCsv(entries, 'what,kind,name,__proto__.polluted\nequipment,filter,F,1\n');
    expect(foreign.ok).toBe(false);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
});

test.each([
  [2000, 2000, '1 : 1'],
  [1080, 1350, '4 : 5'],
  [1080, 1920, '9 : 16'],
  [2560, 1080, '19 : 8'],
  [6000, 4000, '3 : 2'],
])('%i by %i is %s', (widthPx, heightPx, words) => {
  expect(ratioWords({ widthPx, heightPx })).toBe(words);
});

describe('days', () => {
  const SUNDAY = new Date(2026, 10, 29, 22, 30);

  test.each([
    ['2027-03-04', '2027-03-04'],
    ['11 Dec', '2026-12-11'],
    ['11 December 2027', '2027-12-11'],
    ['Fri 11 Dec 2026', '2026-12-11'],
    ['3 Nov', '2027-11-03'],
    ['29 nov.', '2026-11-29'],
    ['today', '2026-11-29'],
    ['tomorrow', '2026-11-30'],
    ['in 10 days', '2026-12-09'],
    ['in 1 week', '2026-12-06'],
    ['Friday', '2026-12-04'],
    ['sun', '2026-12-06'],
    ['29 Feb 2028', '2028-02-29'],
  ])('“%s” is %s', (typed, day) => {
    expect(parseDay(typed, SUNDAY)).toBe(day);
  });

  test.each(['31 June', '2026-02-30', '2026-13-01', '29 Feb 2027', 'soon', '11/12', '0 Dec', 'in days', ''])(
    '“%s” is no day',
    (typed) => {
      expect(parseDay(typed, SUNDAY)).toBeNull();
    },
  );

  test('what is shown is understood when it is typed again', () => {
    for (const day of ['2026-12-11', '2027-02-28', '2028-02-29'])
      expect(parseDay(dayWords(day), SUNDAY)).toBe(day);
  });
});
