/**
 * A colour PFM file: linear red, green, blue as 32-bit floats, little endian, bottom row first.
 * @param rgb 3 a pixel, top row first
 * Source: Debevec, Portable Float Map.
 */
export function encodePfm(width: number, height: number, rgb: Float32Array): Uint8Array {
  const head = new Uint8Array([...`PF\n${width} ${height}\n-1.0\n`].map((letter) => letter.charCodeAt(0)));
  const bytes = new Uint8Array(head.length + width * height * 12);
  bytes.set(head);
  const view = new DataView(bytes.buffer, head.length);
  for (let y = 0; y < height; y++) {
    const row = (height - 1 - y) * width * 3;
    for (let i = 0; i < width * 3; i++) {
      view.setFloat32((y * width * 3 + i) * 4, rgb[row + i] as number, true);
    }
  }
  return bytes;
}
