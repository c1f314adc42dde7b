const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const values = new Uint8Array(128);
for (let i = 0; i < LETTERS.length; i++) values[LETTERS.charCodeAt(i)] = i;

/** Bytes of a base64 text; the core knows neither `atob` nor `Buffer`. Text is taken as checked. */
export function bytesOfBase64(text: string): Uint8Array {
  const length = text.replace(/=+$/, '').length;
  const bytes = new Uint8Array(Math.floor((length * 3) / 4));
  let bits = 0;
  let held = 0;
  let at = 0;
  for (let i = 0; i < length; i++) {
    held = (held << 6) | (values[text.charCodeAt(i)] as number);
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      bytes[at++] = (held >> bits) & 255;
    }
  }
  return bytes;
}

/** Base64 text of bytes. */
export function base64OfBytes(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 3) {
    const left = bytes.length - i;
    const word = ((bytes[i] as number) << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    const letters = [18, 12, 6, 0].map((shift) => LETTERS[(word >> shift) & 63] as string);
    parts.push(
      left === 1
        ? `${letters[0]}${letters[1]}==`
        : left === 2
          ? `${letters.slice(0, 3).join('')}=`
          : letters.join(''),
    );
  }
  return parts.join('');
}
