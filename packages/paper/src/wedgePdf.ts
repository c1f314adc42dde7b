import { WEDGE_GREYS } from '@fendrix/core';
import {
  begun,
  finished,
  GAP_MM,
  MARGIN_MM,
  MM,
  type Page,
  type Paper,
  type Pdf,
  TEXT_PT,
  TITLE_PT,
} from './pages.js';

/** A row of patches is as wide as the paper; between the rows there is room for a card. */
const PATCH_HIGH_MM = 34;
const CARD_ROOM_MM = 58;
const RULER_MM = 150;
const NUMBER_MM = 5;

export const WEDGE_TITLE = 'Grey wedge';

const WORDS = [
  'Print at 100 percent, in colour, on the paper of your cards, with every correction of the printer off. The ruler must measure 15 cm.',
  'Lay it flat, a grey card between the two rows. Light it evenly from both sides, 45 degrees from the lens, and take one frame square on: bare paper bright, nothing burnt.',
  'In any program that shows values of 255, read the green of each patch and of the card, and type them in.',
];

/** The wedge as PDF: the same greys twice, in rows that run against each other, so that uneven light is told from ink. */
export async function wedgePdf(paper: Paper): Promise<Uint8Array> {
  const { pdf, page, written } = begun(WEDGE_TITLE, paper);
  pdf
    .font('bold')
    .fontSize(TITLE_PT)
    .text(WEDGE_TITLE, page.left, MARGIN_MM * MM);
  pdf.font('text').fontSize(TEXT_PT + 1.5);
  for (const words of WORDS) pdf.text(words, { width: page.wide, paragraphGap: 3 });
  let top = pdf.y + GAP_MM * MM;
  drawRow(pdf, page, top, WEDGE_GREYS);
  top += (PATCH_HIGH_MM + NUMBER_MM) * MM;
  pdf
    .font('text')
    .fontSize(TEXT_PT)
    .text('card here', page.left, top + (CARD_ROOM_MM / 2) * MM, { width: page.wide, align: 'center' });
  top += CARD_ROOM_MM * MM;
  drawRow(pdf, page, top, [...WEDGE_GREYS].reverse());
  drawRuler(pdf, page, top + (PATCH_HIGH_MM + NUMBER_MM + 2 * GAP_MM) * MM);
  return finished(pdf, page, WEDGE_TITLE, written);
}

/** Patches side by side, each with its number below. */
function drawRow(pdf: Pdf, page: Page, top: number, greys: readonly number[]): void {
  const wide = page.wide / greys.length;
  const high = PATCH_HIGH_MM * MM;
  greys.forEach((grey, i) => {
    const left = page.left + i * wide;
    pdf.rect(left, top, wide, high).fill([grey, grey, grey]);
    pdf
      .fillColor('black')
      .font('text')
      .fontSize(TEXT_PT)
      .text(String(grey), left, top + high + MM, { width: wide, align: 'center', lineBreak: false });
  });
  pdf.lineWidth(0.5).rect(page.left, top, page.wide, high).stroke('black');
}

/** A ruler to check the size of the print by. */
function drawRuler(pdf: Pdf, page: Page, top: number): void {
  pdf
    .lineWidth(0.5)
    .moveTo(page.left, top)
    .lineTo(page.left + RULER_MM * MM, top)
    .stroke();
  for (let mm = 0; mm <= RULER_MM; mm += 5) {
    const x = page.left + mm * MM;
    const long = mm % 10 === 0;
    pdf
      .moveTo(x, top)
      .lineTo(x, top + (long ? 3 : 1.5) * MM)
      .stroke();
    if (mm % 50 === 0)
      pdf.fontSize(TEXT_PT).text(`${mm / 10} cm`, x - 10 * MM, top + 3.5 * MM, {
        width: 20 * MM,
        align: 'center',
        lineBreak: false,
      });
  }
}
