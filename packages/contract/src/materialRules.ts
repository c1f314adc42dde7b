import { bytesIn } from './base64.js';
import type { Report } from './report.js';

const MOST_WAX = 0.98;

/** Rules of materials and prints, wherever in a document they are. */
export function checkMaterials(value: unknown, path: PropertyKey[], report: Report): void {
  if (typeof value !== 'object' || value === null) return;
  const fields = value as Record<string, unknown>;
  if (fields.kind === 'translucent') checkTranslucent(fields, path, report);
  else if (fields.kind === 'wax') checkWax(fields, path, report);
  else if (fields.kind === 'picture') checkPicture(fields, path, report);
  for (const [key, inner] of Object.entries(fields)) {
    if (typeof inner === 'object')
      checkMaterials(inner, [...path, Array.isArray(value) ? Number(key) : key], report);
  }
}

function checkTranslucent(fields: Record<string, unknown>, path: PropertyKey[], report: Report): void {
  const back = tripleOf(fields.reflectance);
  const through = tripleOf(fields.transmittance);
  if (back.some((value, c) => value + (through[c] as number) > 1 + 1e-9)) {
    report(
      [...path, 'transmittance'],
      'and reflectance are more than 1 together: no sheet gives more light than falls on it. Lower one of them.',
    );
  }
}

function checkWax(fields: Record<string, unknown>, path: PropertyKey[], report: Report): void {
  if (tripleOf(fields.reflectance).every((value) => value <= MOST_WAX)) return;
  report(
    [...path, 'reflectance'],
    `is above ${MOST_WAX}: nothing scatters light inside without loss. Lower it.`,
  );
}

function tripleOf(value: unknown): readonly number[] {
  return Array.isArray(value) ? value : [value, value, value].map(Number);
}

function checkPicture(fields: Record<string, unknown>, path: PropertyKey[], report: Report): void {
  const pixels = Number(fields.widthPx) * Number(fields.heightPx);
  const check = (field: string, bytesAPixel: number) => {
    const text = fields[field];
    if (typeof text !== 'string') return;
    const wanted = pixels * bytesAPixel;
    const bytes = bytesIn(text);
    if (bytes !== wanted) {
      report([...path, field], `holds ${bytes} bytes; its width and height ask for ${wanted}.`);
    }
  };
  check('rgbBase64', 3);
  check('greyBase64', 1);
}
