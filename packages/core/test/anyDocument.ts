import { documentJsonSchema } from '@fendrix/contract';
import fc from 'fast-check';

type Schema = Record<string, unknown>;

/** Fields whose text has to fit other fields. */
const PICTURE_SIDE = 2;
const FIXED: Record<string, unknown> = {
  rgbBase64: btoa('\x00\x40\x80\xff'.repeat(3 * (PICTURE_SIDE ** 2 / 4))),
  greyBase64: btoa('\x00\x40\x80\xff'.repeat(PICTURE_SIDE ** 2 / 4)),
  widthPx: PICTURE_SIDE,
  heightPx: PICTURE_SIDE,
  positionsBase64: base64Of(Float32Array.of(0, 0, 0, 0.1, 0, 0, 0, 0.1, 0, 0, 0, 0.1, 0.1, 0.1, 0)),
  trianglesBase64: base64Of(Uint32Array.of(0, 1, 2, 0, 1, 3, 1, 2, 3, 0, 0, 0, 1, 4, 2)),
};

/** Schemas of one kind of thing in a list of the set document: `schemaOf('lights', 'ring')`. */
export function schemaOf(list: string, kind: string): Schema {
  const found = kindSchemas(list).find((schema) => kindOf(schema).includes(kind));
  if (!found) throw new Error(`no ${list} of kind ${kind}`);
  return found;
}

export function kindsOf(list: string): string[] {
  return kindSchemas(list).flatMap(kindOf);
}

function kindSchemas(list: string): Schema[] {
  const properties = documentJsonSchema('set').properties as Record<string, { items: { oneOf: Schema[] } }>;
  return properties[list]?.items.oneOf ?? [];
}

function kindOf(schema: Schema): string[] {
  const { kind } = schema.properties as { kind: { const?: string; enum?: string[] } };
  return kind.enum ?? [kind.const ?? ''];
}

/**
 * Any value that a JSON schema allows, its extremes often; coordinates stay near the set. What ties fields together is
 * not known to a schema: check the document afterwards.
 */
export function anyOf(schema: Schema, field = ''): fc.Arbitrary<unknown> {
  if (field in FIXED) return fc.constant(FIXED[field]);
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...(schema.enum as unknown[]));
  const choices = (schema.oneOf ?? schema.anyOf) as Schema[] | undefined;
  if (choices) return fc.oneof(...choices.map((choice) => anyOf(choice, field)));
  switch (schema.type) {
    case 'object':
      return anyObject(schema);
    case 'array':
      return anyArray(schema, field);
    case 'number':
      return anyNumber(schema, field);
    case 'integer':
      return fc.integer({
        min: schema.minimum as number,
        max: Math.min((schema.minimum as number) + 12, schema.maximum as number),
      });
    case 'boolean':
      return fc.boolean();
    default:
      if (field === 'id') return fc.constant('thing');
      return fc.constant(field === 'tag' && /\[A-Z\]/.test(String(schema.pattern)) ? 'A' : '1');
  }
}

function anyObject(schema: Schema): fc.Arbitrary<unknown> {
  const required = (schema.required ?? []) as string[];
  const model = Object.fromEntries(
    Object.entries(schema.properties as Record<string, Schema>).map(([key, inner]) => [
      key,
      anyOf(inner, key),
    ]),
  );
  return fc.record(model, { requiredKeys: required }).map((made) => ({ ...made }));
}

function anyArray(schema: Schema, field: string): fc.Arbitrary<unknown> {
  const places = schema.prefixItems as Schema[] | undefined;
  if (places) return fc.tuple(...places.map((place) => anyOf(place, field)));
  const least = (schema.minItems as number | undefined) ?? 0;
  return fc.array(anyOf((schema.items ?? {}) as Schema, field), { minLength: least, maxLength: least + 3 });
}

function anyNumber(schema: Schema, field: string): fc.Arbitrary<number> {
  const whole = schema.maximum === 100 && schema.minimum === -100;
  const min = whole ? -1 : (schema.minimum as number);
  const max = whole ? 1 : (schema.maximum as number);
  const even = fc.double({ min, max, noNaN: true });
  if (min <= 0)
    return fc.oneof({ weight: 1, arbitrary: fc.constantFrom(min, max, 0) }, { weight: 3, arbitrary: even });
  // Sizes and powers by their order: half of them as on a set, the rest anything.
  const low = Math.log(min);
  const high = Math.log(field.endsWith('M') ? Math.min(max, 2) : max);
  const byOrder = fc
    .double({ min: low, max: Math.max(low, high), noNaN: true })
    .map((x) => clamp(Math.exp(x), min, max));
  return fc.oneof({ weight: 1, arbitrary: fc.constantFrom(min, max) }, { weight: 6, arbitrary: byOrder });
}

const clamp = (value: number, min: number, max: number) => Math.min(max, Math.max(min, value));

function base64Of(numbers: Float32Array | Uint32Array): string {
  return btoa(String.fromCharCode(...new Uint8Array(numbers.buffer)));
}
