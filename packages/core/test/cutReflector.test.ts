import { type SetDocument, setDocument, type Turned } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  cutReflector,
  exposureWeights,
  luminanceOf,
  MEASURED_FORMS,
  measuredProduct,
  pickSources,
  prepareTracing,
  projectPoint,
  rayThrough,
  thingsInFrame,
} from '../src/index.js';

const cordial = demoSet('cordial');
const bottle = cordial.products[0] as Turned;
const seen = (set: SetDocument) =>
  thingsInFrame(prepareTracing(set))
    .filter(({ kind }) => kind === 'sheet' || kind === 'light')
    .map(({ key }) => key);

/** The set with a product of a measured form at a place, seen from a distance and a height. */
function withForm(id: string, placeM: [number, number], lensM: [number, number, number]): SetDocument {
  const form = MEASURED_FORMS.find((own) => own.id === id);
  if (!form) throw new Error(id);
  const product = { ...measuredProduct(form, {}), positionM: [...placeM, 0] };
  return setDocument.parse({
    ...cordial,
    sheets: [],
    products: [product],
    spots: [],
    takes: [],
    highlights: [],
    room: undefined,
    camera: { ...cordial.camera, positionM: lensM, aimM: [...placeM, 0.08], crops: [] },
  });
}

describe('a reflector cut to the shape of a drink', () => {
  test.each<[string, [number, number], [number, number, number]]>([
    ['bottle', [0, 0], [0, -1, 0.12]],
    ['bottle', [0, 0], [0, -0.7, 0.3]],
    ['bottle', [0.15, 0.1], [-0.4, -0.8, 0.2]],
    ['glass', [0, 0], [0, -0.6, 0.05]],
    ['glass', [-0.1, 0.05], [0.1, -0.9, 0.4]],
    ['jar', [0, 0], [0, -0.8, 0.02]],
  ])(
    'behind a %s at %j, seen from %j: it is hidden, and clear of the product and the table',
    (id, place, lens) => {
      const set = withForm(id, place, lens);
      const reflector = cutReflector(set, set.products[0] as Turned, '7');
      if (!reflector) throw new Error('there is one');
      const whole = setDocument.parse({ ...set, sheets: [reflector] });
      // Through clear glass it is seen, which is what it is for; past the outline nothing of it is.
      expect(seen(whole)).not.toContain('7');
      expect(seen({ ...whole, products: [] })).toContain('7');
      const half = (reflector.outline.at(-1)?.heightM ?? 0) / 2;
      expect(reflector.positionM[2] - half).toBeGreaterThan(0);
      const behind = Math.hypot(reflector.positionM[0] - place[0], reflector.positionM[1] - place[1]);
      expect(behind).toBeGreaterThan(
        Math.max(...(set.products[0] as Turned).profile.map(({ radiusM }) => radiusM)) + 0.01,
      );
    },
  );

  test('it makes the liquid glow: the drink is far brighter with it, and shows it', () => {
    const set = withForm('glass', [0, 0], [0, -0.8, 0.12]);
    const dark = { ...set, backdrop: undefined } as unknown as SetDocument;
    const reflector = cutReflector(dark, dark.products[0] as Turned, '7');
    if (!reflector) throw new Error('there is one');
    const throughDrink = (of: SetDocument) => {
      const tracing = prepareTracing(of);
      const direction = new Float64Array(3);
      const [across, down] = projectPoint(tracing.view, [0, -0.03, 0.03]) ?? [0, 0];
      rayThrough(direction, tracing.view, across, down);
      const weights = exposureWeights(of);
      return pickSources(tracing, tracing.view.origin, direction, 512)
        .filter(({ how }) => how === 'through')
        .map(({ thing, channel, unit }) => ({
          key: thing?.key,
          light: luminanceOf(
            ...(unit.map((part, c) => part * (weights[3 * channel + c] ?? 0)) as [number, number, number]),
          ),
        }));
    };
    const sum = (sources: readonly { light: number }[]) => sources.reduce((all, { light }) => all + light, 0);
    const lit = throughDrink(setDocument.parse({ ...dark, sheets: [reflector] }));
    expect(sum(lit)).toBeGreaterThan(2 * sum(throughDrink(dark)));
    expect(sum(lit.filter(({ key }) => key === '7'))).toBeGreaterThan(0.5 * sum(lit));
  });

  test('of what leans, or is looked down on steeply, there is none', () => {
    expect(cutReflector(cordial, { ...bottle, lean: { deg: 20, bearingDeg: 0 } }, '1')).toBeNull();
    const above = withForm('glass', [0, 0], [0, -0.3, 0.9]);
    expect(cutReflector(above, above.products[0] as Turned, '1')).toBeNull();
    const over = withForm('glass', [0, 0], [0, 0, 0.9]);
    expect(
      cutReflector(
        { ...over, camera: { ...over.camera, positionM: [0, 0, 0.9] } },
        over.products[0] as Turned,
        '1',
      ),
    ).toBeNull();
  });

  test.each([
    [0.1, true],
    [1.2, false],
    [20, false],
  ])('behind a drink that scatters %s times a centimetre there is one: %s', (scatteringPerCm, offered) => {
    const { hollow } = bottle;
    if (!hollow?.liquid) throw new Error('the bottle is full');
    const material = { ...hollow.liquid.material, scatteringPerCm };
    const cloudy = { ...bottle, hollow: { ...hollow, liquid: { ...hollow.liquid, material } } };
    expect(cutReflector(cordial, cloudy, '1') !== null).toBe(offered);
  });

  test('it ends below the cap of a bottle without liquid, and at the level of what is in it', () => {
    const top = (product: Turned) => {
      const reflector = cutReflector(cordial, product, '1');
      return (reflector?.positionM[2] ?? 0) + (reflector?.outline.at(-1)?.heightM ?? 0) / 2;
    };
    const full = top(bottle);
    const fill = bottle.hollow?.liquid?.fillToM ?? 0;
    expect(full).toBeGreaterThan(0.9 * fill);
    expect(full).toBeLessThan(1.1 * fill);
    const empty = { ...bottle, hollow: { wallM: 0.003, baseM: 0.005 } };
    expect(top(empty)).toBeGreaterThan(full);
    const cap = bottle.parts.at(-1)?.fromM ?? 0;
    expect(top(empty)).toBeLessThan(1.05 * cap);
  });
});
