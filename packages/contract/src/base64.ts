import { z } from 'zod';

/** The one function of the platform that is needed here; browsers and Node both have it. */
declare const atob: (base64: string) => string;

/** A text in base64 of at most so many signs, padded. */
export const base64 = (most: number) =>
  z
    .string()
    .max(most)
    .regex(/^[A-Za-z0-9+/]*={0,2}$/, 'is not base64')
    .refine((text) => text.length % 4 === 0, 'is cut off: base64 comes in groups of four signs');

/** Bytes that a text in base64 stands for. */
export function bytesIn(text: string): number {
  return Math.floor((text.replace(/=+$/, '').length * 3) / 4);
}

export function dataOf(text: string): DataView {
  return new DataView(Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0)).buffer);
}
