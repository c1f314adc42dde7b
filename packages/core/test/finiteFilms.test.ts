import { type SetDocument, setDocument } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { expect, test } from 'vitest';
import { channelsOf, displayWeights, prepareTracing, renderTile } from '../src/index.js';

const LIMITED = new Set(['reflectance', 'ink', 'from', 'to']);

/** The document with every reflectance in it at one limit. */
function atLimit(value: unknown, limit: 0 | 1): unknown {
  if (Array.isArray(value)) return value.map((item) => atLimit(item, limit));
  if (typeof value !== 'object' || value === null) return value;
  const own = value as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(own).map(([key, part]) => {
      // Frost and nets let the rest through: both together stay at most 1.
      const passes = own.kind === 'translucent' || own.kind === 'net';
      const colour = (key !== 'from' && key !== 'to') || own.kind === 'gradient';
      return LIMITED.has(key) && colour
        ? [key, passes && limit === 1 ? 0.5 : limit]
        : [key, atLimit(part, limit)];
    }),
  );
}

/** Film on every light that can have one, and the filter across it. */
function crossed(set: SetDocument): SetDocument {
  const lights = set.lights.map((light) =>
    light.kind === 'window' || light.kind === 'surround'
      ? light
      : { ...light, polarised: { axisDeg: 0, lossStops: 1.4 } },
  );
  return {
    ...set,
    lights,
    camera: { ...set.camera, polariser: { axisDeg: 90, lossStops: 1.5, extinction: 0.005 } },
  };
}

/** At 0 a film once came to no number; at 1 light stays longest. */
const ALWAYS = new Set(['pepper 0', 'bottle 0', 'cordial-frost 1']);

for (const limit of [0, 1] as const) {
  for (const name of demoNames)
    test(`${name}: every film is finite with film on all lights and reflectances of ${limit}`, {
      tags: ALWAYS.has(`${name} ${limit}`) ? [] : ['more'],
    }, () => {
      const { takes: _takes, takeId: _takeId, ...set } = demoSet(name);
      const document = setDocument.parse(atLimit(crossed({ ...set, takes: [], plates: [] }), limit));
      const tracing = prepareTracing(document);
      const sums = renderTile(tracing, {
        width: 24,
        height: 16,
        tile: { x: 0, y: 0, width: 24, height: 16 },
        firstSample: 0,
        samples: 2,
        seed: 1,
      });
      expect(sums.length).toBe(3 * channelsOf(document).length * 24 * 16);
      expect(sums.every(Number.isFinite)).toBe(true);
      expect([...displayWeights(document)].every(Number.isFinite)).toBe(true);
    });
}
