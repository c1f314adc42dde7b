import { enqueueSnackbar } from 'notistack';
import { FileButton } from '../FileButton';
import { Row } from '../Row';
import { setMarks } from '../theme';

/** Longest side a picture on a surface is kept at, px. */
const LONGEST_PX = 512;

/** A picture from a file, made small enough for a set document: of colours, or grey for a gobo. */
export function PictureField({
  colour,
  value,
  onChange,
}: {
  colour: boolean;
  value: Record<string, unknown>;
  onChange(value: Record<string, unknown>): void;
}) {
  async function take(file: File | undefined) {
    if (!file) return;
    try {
      const { width, height, pixels } = await readPicture(file);
      const base64 = base64OfPixels(pixels, colour);
      onChange({
        kind: 'picture',
        widthPx: width,
        heightPx: height,
        [colour ? 'rgbBase64' : 'greyBase64']: base64,
      });
    } catch {
      enqueueSnackbar(`“${file.name}” is no picture that this browser can read. Try a PNG or JPEG.`, {
        variant: 'warning',
      });
    }
  }

  return (
    <Row label={`picture, ${String(value.widthPx)} × ${String(value.heightPx)} px`}>
      <FileButton
        size="small"
        words="Choose"
        label="Picture file"
        accept="image/*"
        onFiles={([chosen]) => void take(chosen)}
      />
    </Row>
  );
}

async function readPicture(
  file: File,
): Promise<{ width: number; height: number; pixels: Uint8ClampedArray }> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_PX / Math.max(bitmap.width, bitmap.height));
  const width = Math.max(1, Math.round(bitmap.width * scale));
  const height = Math.max(1, Math.round(bitmap.height * scale));
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('no canvas');
  // What is see-through in the file is paper.
  context.fillStyle = setMarks.light;
  context.fillRect(0, 0, width, height);
  context.drawImage(bitmap, 0, 0, width, height);
  return { width, height, pixels: context.getImageData(0, 0, width, height).data };
}

function base64OfPixels(pixels: Uint8ClampedArray, colour: boolean): string {
  let text = '';
  for (let i = 0; i < pixels.length; i += 4) {
    const [r, g, b] = [pixels[i] as number, pixels[i + 1] as number, pixels[i + 2] as number];
    text += colour
      ? String.fromCharCode(r, g, b)
      : String.fromCharCode(Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b));
  }
  return btoa(text);
}
