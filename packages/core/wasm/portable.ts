/** The engine's numbers in WebAssembly; see portable.ts. Compiled by AssemblyScript only. */
export function mul32(a: i32, b: i32): i32 {
  return a * b;
}

export function floor32(x: f64): i32 {
  return i32(Math.floor(x));
}

export function whole32(x: f64): i32 {
  return i32(x);
}

export function divide32(a: i32, b: i32): i32 {
  return a / b;
}

export function highestBit(x: i32): i32 {
  return 31 - clz<i32>(x);
}

export function unsigned(x: i32): f64 {
  return f64(u32(x));
}

export const NO_NUMBER: f64 = NaN;

export function real(x: i32): f64 {
  return f64(x);
}
