/**
 * What the engine needs of a number that JavaScript and WebAssembly do differently. The files of this folder are
 * compiled twice, by TypeScript and, translated, by AssemblyScript, with `wasm/portable.ts` in this file's place.
 * Within the folder: no closures, unions, destructuring or spread (the build refuses them); whole numbers are `i32`,
 * others `number`; a `let` of a whole number is an i32 unless it says `number`; a division of two i32 is whole.
 */
export type i32 = number;

/** Product of two whole numbers, lowest 32 bits. */
export function mul32(a: i32, b: i32): i32 {
  return Math.imul(a, b);
}

/** Greatest whole number not above x. */
export function floor32(x: number): i32 {
  return Math.floor(x) | 0;
}

/** x without what follows the point. */
export function whole32(x: number): i32 {
  return x | 0;
}

/** Whole part of a quotient of whole numbers not below 0. */
export function divide32(a: i32, b: i32): i32 {
  return (a / b) | 0;
}

/** Place of the highest bit set, -1 for 0. */
export function highestBit(x: i32): i32 {
  return 31 - Math.clz32(x);
}

/** A whole number read as one without a sign. */
export function unsigned(x: i32): number {
  return x >>> 0;
}

export const NO_NUMBER = Number.NaN;

/** A whole number as one that may be divided: dividing it then is not whole. */
export function real(x: i32): number {
  return x;
}
