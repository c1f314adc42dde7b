import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

export type Paper = 'A4' | 'Letter';

const require = createRequire(import.meta.url);
const FONTS = {
  text: require.resolve('@fontsource/archivo/files/archivo-latin-400-normal.woff'),
  bold: require.resolve('@fontsource/archivo/files/archivo-latin-700-normal.woff'),
} as const;

export const MM = 72 / 25.4;
const SIZES_MM = { A4: [210, 297], Letter: [215.9, 279.4] } as const;
export const MARGIN_MM = 11;
export const GAP_MM = 4;
export const TEXT_PT = 7.5;
export const SMALL_PT = 6.5;
export const TITLE_PT = 15;

/** A document of a paper with its typefaces, and its bytes once it is finished. */
export function begun(title: string, paper: Paper): { pdf: Pdf; page: Page; written: Promise<Uint8Array> } {
  const [widthMm, heightMm] = SIZES_MM[paper];
  const pdf = new PDFDocument({
    size: [widthMm * MM, heightMm * MM],
    margin: MARGIN_MM * MM,
    bufferPages: true,
    info: { Title: title, Creator: 'Fendrix' },
  });
  const written = bytesOf(pdf);
  pdf.registerFont('text', FONTS.text).registerFont('bold', FONTS.bold);
  const page = {
    left: MARGIN_MM * MM,
    wide: (widthMm - 2 * MARGIN_MM) * MM,
    foot: (heightMm - MARGIN_MM) * MM,
  };
  return { pdf, page, written };
}

/** Writes the foot of each page and ends the document. */
export function finished(
  pdf: Pdf,
  page: Page,
  foot: string,
  written: Promise<Uint8Array>,
): Promise<Uint8Array> {
  const { count } = pdf.bufferedPageRange();
  for (let i = 0; i < count; i++) {
    pdf.switchToPage(i);
    // What stands in the margin begins no new page.
    pdf.page.margins.bottom = 0;
    pdf
      .font('text')
      .fontSize(SMALL_PT)
      .text(`${foot}. Page ${i + 1} of ${count}.`, page.left, page.foot + 2 * MM, {
        lineBreak: false,
      });
  }
  pdf.end();
  return written;
}

export type Pdf = InstanceType<typeof PDFDocument>;
export interface Page {
  left: number;
  wide: number;
  foot: number;
}

function bytesOf(pdf: Pdf): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  return new Promise((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    pdf.on('error', reject);
  });
}
