import { z } from 'zod';
import { soundTexts } from './soundTexts.js';

/** The one function of the platform that is needed here; browsers and Node both have it. */
declare const atob: (base64: string) => string;

const sound = soundTexts();

function isBase64(text: string): boolean {
  if (sound.has(text)) return true;
  const is = /^[A-Za-z0-9+/]*={0,2}$/.test(text);
  if (is) sound.add(text);
  return is;
}

/** A text in base64 of at most so many signs, padded. */
export const base64 = (most: number) =>
  z
    .string()
    .max(most)
    .refine(isBase64, 'is not base64')
    .refine((text) => text.length % 4 === 0, 'is cut off: base64 comes in groups of four signs');

/** Bytes that a text in base64 stands for. */
export function bytesIn(text: string): number {
  return Math.floor((text.replace(/=+$/, '').length * 3) / 4);
}

/** The bytes of a text in base64. */
export function dataOf(text: string): DataView {
  const signs = atob(text);
  const bytes = new Uint8Array(signs.length);
  for (let i = 0; i < signs.length; i++) bytes[i] = signs.charCodeAt(i);
  return new DataView(bytes.buffer);
}
