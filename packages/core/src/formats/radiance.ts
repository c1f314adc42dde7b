/**
 * Linear red, green, blue (3 a pixel) as a Radiance picture (RGBE, run-length coded), top row first.
 * Values keep about 1 % and a range of 2^-127 to 2^127; negative ones become 0.
 * Source: Ward 1991, Real Pixels, Graphics Gems II; Radiance file formats.
 */
export function encodeRadiance(width: number, height: number, linear: Float32Array): Uint8Array {
  const head = `#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`;
  const bytes: number[] = [...head].map((letter) => letter.charCodeAt(0));
  const row = new Uint8Array(width * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = 3 * (y * width + x);
      sharedExponent(row, x, width, linear[at] as number, linear[at + 1] as number, linear[at + 2] as number);
    }
    if (width < 8 || width > 32767) {
      for (let x = 0; x < width; x++) for (let c = 0; c < 4; c++) bytes.push(row[c * width + x] as number);
      continue;
    }
    bytes.push(2, 2, width >> 8, width & 255);
    for (let c = 0; c < 4; c++) pushRuns(bytes, row.subarray(c * width, (c + 1) * width));
  }
  return Uint8Array.from(bytes);
}

/** Writes a pixel in planes: all reds, greens, blues, exponents of the row. */
function sharedExponent(row: Uint8Array, x: number, width: number, r: number, g: number, b: number): void {
  const most = Math.max(r, g, b);
  if (!(most > 1e-32)) {
    for (let c = 0; c < 4; c++) row[c * width + x] = 0;
    return;
  }
  let exponent = Math.ceil(Math.log2(most));
  if (most / 2 ** exponent >= 1) exponent++;
  const scale = 256 / 2 ** exponent;
  row[x] = Math.max(0, Math.floor(r * scale));
  row[width + x] = Math.max(0, Math.floor(g * scale));
  row[2 * width + x] = Math.max(0, Math.floor(b * scale));
  row[3 * width + x] = exponent + 128;
}

/** Runs of 4 or more equal bytes as 128 + length and the byte; others as length and the bytes. */
function pushRuns(bytes: number[], plane: Uint8Array): void {
  let at = 0;
  while (at < plane.length) {
    let start = at;
    let run = 0;
    while (start < plane.length) {
      run = 1;
      while (run < 127 && start + run < plane.length && plane[start + run] === plane[start]) run++;
      if (run >= 4) break;
      start += run;
      run = 0;
    }
    while (at < start) {
      const count = Math.min(128, start - at);
      bytes.push(count);
      for (let i = 0; i < count; i++) bytes.push(plane[at + i] as number);
      at += count;
    }
    if (run >= 4) {
      bytes.push(128 + run, plane[at] as number);
      at += run;
    }
  }
}
