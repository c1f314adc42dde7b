/** Start of a JPEG and of its first segment. */
const START = Buffer.from([0xff, 0xd8, 0xff]);
/** Frames that browsers and sharp decode: baseline, extended, progressive. The lossless ones of raw data are not among them. */
const DECODED = new Set([0xc0, 0xc1, 0xc2]);
const isFrameHeader = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;

/** Size of the JPEG that begins at a place; null where none does, or one that is not decoded. */
function sizeAt(data: Buffer, at: number): { widthPx: number; heightPx: number } | null {
  for (let place = at + 2; place + 9 < data.length && data[place] === 0xff; ) {
    const marker = data[place + 1] as number;
    // Fill bytes before a marker.
    if (marker === 0xff) {
      place++;
      continue;
    }
    if (isFrameHeader(marker)) {
      if (!DECODED.has(marker)) return null;
      return { heightPx: data.readUInt16BE(place + 5), widthPx: data.readUInt16BE(place + 7) };
    }
    // The picture itself begins, and no header came before it.
    if (marker === 0xda || marker === 0xd9) return null;
    const length = data.readUInt16BE(place + 2);
    if (length < 2) return null;
    place += 2 + length;
  }
  return null;
}

/**
 * The largest JPEG that a raw file carries for looking at; null where it carries none. Found by its own markers, whatever
 * the raw format: what follows its end is left to the decoder, which stops there.
 */
export function embeddedJpeg(data: Buffer): Buffer | null {
  let best: { at: number; pixels: number } | null = null;
  for (let at = data.indexOf(START); at >= 0; at = data.indexOf(START, at + 1)) {
    const size = sizeAt(data, at);
    const pixels = size ? size.widthPx * size.heightPx : 0;
    if (pixels > (best?.pixels ?? 0)) best = { at, pixels };
  }
  return best ? data.subarray(best.at) : null;
}
