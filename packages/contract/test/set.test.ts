import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { checkDocument, documentJsonSchema, setDocument } from '../src/index.js';

/** The problems of the demo set with one field given another value, or none. */
function problemsWith(path: string, value: unknown) {
  const data = JSON.parse(JSON.stringify(demoSet('cordial')));
  const keys = path.split(/[.[\]]+/).filter((key) => key !== '');
  const last = keys.pop() ?? '';
  const owner = keys.reduce((part, key) => part[key], data);
  if (value === undefined) delete owner[last];
  else owner[last] = value;
  const checked = checkDocument(setDocument, data);
  return checked.ok ? [] : checked.problems;
}

describe('set document', () => {
  test('the demo sets are valid and come back as they were', () => {
    for (const name of demoNames) {
      const set = demoSet(name);
      const again = checkDocument(setDocument, JSON.parse(JSON.stringify(set)));
      expect(again).toEqual({ ok: true, value: set });
    }
  });

  test.each<[string, unknown, string]>([
    ['lights[0].output.energyJ', -1, 'at least'],
    ['lights[0].output.kind', 'magic', '"flash-energy"'],
    ['lights[0].tag', 'AB', 'capital letter'],
    ['lights[0].positionM[1]', '0', 'a number'],
    ['camera.fNumber', undefined, 'is missing'],
    ['sheets[1].tag', '1', 'taken'],
    ['sheets[0].aimM', demoSet('cordial').sheets[0]?.positionM, 'stands'],
    ['sheets[0].colour', 'white', 'not a known field'],
    ['products[0].profile[2].heightM', 0.001, 'lower'],
    ['products[0].parts[0].toM', 9, 'above'],
    ['backdrop.radiusM', 2, 'no paper'],
    ['camera.positionM', [0, -2, 0], 'outside of the room'],
    ['camera.focusM', 0.1, 'focal length'],
    ['spots[0].normal', [0, 0, 0], 'no length'],
    ['format', 'other', '"fendrix-set"'],
    ['version', 4, 'a newer Fendrix wrote it'],
  ])('%s is refused with its path and a sentence', (path, value, words) => {
    const problem = problemsWith(path, value).find((found) => found.path === path);
    expect(problem?.message).toContain(words);
    expect(problem?.message).toMatch(/\.$/);
  });

  test.each([
    ['matte', { kind: 'matte', reflectance: 1 }, false],
    ['wax', { kind: 'wax', reflectance: 0.8, meanFreePathM: 0.001 }, true],
  ])('a hollow body of %s is refused: %s', (_name, material, refused) => {
    const paths = problemsWith('products[0].material', material).map(({ path }) => path);
    expect(paths.includes('products[0].hollow')).toBe(refused);
  });

  test('a bar on a clear body needs a material of its own, and each of its points another place', () => {
    const bar = {
      name: 'handle',
      pathM: [
        [0.03, 0, 0.02],
        [0.06, 0, 0.05],
      ],
      fromDiameterM: 0.008,
      toDiameterM: 0.008,
    };
    const brass = { kind: 'metal', metal: 'brass' };
    const paths = (own: object) => problemsWith('products[0].attached', [own]).map(({ path }) => path);
    expect(paths(bar)).toContain('products[0].attached[0].material');
    expect(paths({ ...bar, material: brass })).toEqual([]);
    const stands = { ...bar, material: brass, pathM: [...bar.pathM, [0.06, 0, 0.05]] };
    expect(paths(stands)).toContain('products[0].attached[0].pathM[2]');
  });

  test.each([null, 'text', 7, [], { format: 'fendrix-set' }])('%j is not a set', (data) => {
    expect(checkDocument(setDocument, data).ok).toBe(false);
  });

  test('what is left out gets its default', () => {
    const { camera } = demoSet('cordial');
    const checked = checkDocument(setDocument, { format: 'fendrix-set', version: 2, name: 'Bare', camera });
    expect(checked.ok && checked.value.lights).toEqual([]);
    expect(checked.ok && checked.value.mark.heightAboveFloorM).toBe(0.75);
  });

  test('the JSON Schema names every part and asks for no default', () => {
    const schema = documentJsonSchema('set') as { required: string[]; properties: Record<string, unknown> };
    expect(schema.required.sort()).toEqual(['camera', 'format', 'name', 'version']);
    expect(Object.keys(schema.properties)).toContain('products');
  });
});
