import {
  cameraJsonSchema,
  type KitEntry,
  studioJsonSchema,
  surroundingJsonSchema,
  thingJsonSchema,
} from '@fendrix/contract';

/** The parts of JSON Schema that the contract's documents use. */
export interface Schema {
  type?: 'object' | 'array' | 'number' | 'integer' | 'boolean' | 'string';
  const?: unknown;
  enum?: readonly unknown[];
  oneOf?: readonly Schema[];
  anyOf?: readonly Schema[];
  properties?: Record<string, Schema>;
  required?: readonly string[];
  items?: Schema | false;
  prefixItems?: readonly Schema[];
  minimum?: number;
  maximum?: number;
  minItems?: number;
  maxItems?: number;
  maxLength?: number;
  default?: unknown;
  description?: string;
  /** What the numbers of a list of fixed length are, in words. */
  axes?: readonly string[];
  /** `part`: a part of a whole, shown in percent; otherwise the field's name carries its unit. */
  unit?: 'part';
}

/** Made when first needed: each takes some milliseconds. */
const made = new Map<string, Schema>();

function once(name: string, make: () => unknown): Schema {
  const schema = made.get(name) ?? (make() as Schema);
  made.set(name, schema);
  return schema;
}

/** Schema of what an entry of the kit holds: any light, sheet, product or material. */
export const thingSchema = (what: KitEntry['what']): Schema => once(what, () => thingJsonSchema(what));

/** Schema of the studio's room. */
export const studioSchema = (): Schema => once('studio', studioJsonSchema);

/** Schema of the table, the background or the room of a set. */
export const surroundingSchema = (what: 'bench' | 'backdrop' | 'room'): Schema =>
  once(`surrounding ${what}`, () => surroundingJsonSchema(what));

export const cameraSchema = (): Schema => once('camera', cameraJsonSchema);

/** The choices of a union, unions within it opened. */
export function choicesOf(schema: Schema): readonly Schema[] {
  const inner = schema.oneOf ?? schema.anyOf;
  return inner ? inner.flatMap(choicesOf) : [schema];
}

/** The names an object goes by: its kinds. */
export function kindsOf(schema: Schema): readonly string[] {
  const kind = schema.properties?.kind;
  if (kind?.const !== undefined) return [String(kind.const)];
  return (kind?.enum ?? []).map(String);
}

/** The choice of a union that an object is. */
export function choiceFor(schema: Schema, kind: unknown): Schema | undefined {
  return choicesOf(schema).find((choice) => kindsOf(choice).includes(String(kind)));
}

/** Numbers that make sense where a schema has no default of its own. */
const USUAL: Record<string, number> = {
  reflectance: 0.5,
  transmittance: 0.5,
  openness: 0.5,
  index: 1.5,
  roughness: 0.1,
  acrossRoughness: 0.3,
  meanFreePathM: 0.002,
  depthM: 0.0005,
  sizeM: 0.01,
  wallM: 0.003,
  baseM: 0.005,
  thicknessM: 0.004,
  temperatureK: 5500,
  cutoffDeg: 60,
  beamDeg: 60,
  widthDeg: 120,
  illuminanceLx: 40000,
  lumens: 1000,
  energyJ: 400,
  guideNumberM: 40,
  luxSecondsAt1M: 3000,
  luxAt1M: 1000,
  luminanceCdM2: 3000,
  leastStops: -7,
  toM: 0.05,
  fillToM: 0.05,
  centreHeightM: 0.05,
  count: 12,
};

/** Figures of a thing's own data sheet: nothing is usual enough to start from. They stay empty until they are typed. */
const FROM_DATA_SHEET = new Set(['fullS', 'stopsPerStop', 'closestFocusM']);

/** One grey pixel. */
const FIRST_PICTURE: Record<string, string> = { rgbBase64: 'gICA', greyBase64: 'gA==' };

/** A first value for a field that has none yet; undefined, also within it, where only a data sheet knows. */
export function firstValue(schema: Schema, field = ''): unknown {
  if ('default' in schema) return schema.default;
  if ('const' in schema) return schema.const;
  if (schema.enum) return schema.enum[0];
  const [choice] = choicesOf(schema);
  if (choice && choice !== schema) return firstValue(choice, field);
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {})
          .filter(([key, inner]) => schema.required?.includes(key) || 'default' in inner)
          .map(([key, inner]) => [key, firstValue(inner, key)]),
      );
    case 'array':
      return firstList(schema, field);
    case 'number':
    case 'integer':
      return firstNumber(schema, field);
    case 'boolean':
      return false;
    default:
      return field === 'name' ? 'new' : (FIRST_PICTURE[field] ?? '');
  }
}

function firstList(schema: Schema, field: string): unknown[] {
  if (schema.prefixItems) return schema.prefixItems.map((place) => firstValue(place, field));
  const item = schema.items || {};
  return Array.from({ length: schema.minItems ?? 0 }, () => firstValue(item, field));
}

/** Whether every figure in a first value is there. */
export function isWhole(value: unknown): boolean {
  if (typeof value === 'object' && value !== null) return Object.values(value).every(isWhole);
  return value !== undefined;
}

function firstNumber(schema: Schema, field: string): number | undefined {
  if (FROM_DATA_SHEET.has(field)) return undefined;
  const usual = USUAL[field] ?? (field.endsWith('M') ? 0.1 : 0);
  return Math.min(schema.maximum ?? usual, Math.max(schema.minimum ?? usual, usual));
}
