/** Little-endian 32-bit numbers in base64. */
export function base64Of(numbers: Float32Array | Uint32Array): string {
  const view = new DataView(new ArrayBuffer(numbers.length * 4));
  numbers.forEach((value, i) => {
    if (numbers instanceof Float32Array) view.setFloat32(4 * i, value, true);
    else view.setUint32(4 * i, value, true);
  });
  const bytes = new Uint8Array(view.buffer);
  let text = '';
  const STRETCH = 0x8000;
  for (let i = 0; i < bytes.length; i += STRETCH)
    text += String.fromCharCode(...bytes.subarray(i, i + STRETCH));
  return btoa(text);
}

/** Bytes of a text in base64 that has been checked. */
export function bytesOf(text: string): Uint8Array<ArrayBuffer> {
  const signs = atob(text);
  const bytes = new Uint8Array(signs.length);
  for (let i = 0; i < signs.length; i++) bytes[i] = signs.charCodeAt(i);
  return bytes;
}
