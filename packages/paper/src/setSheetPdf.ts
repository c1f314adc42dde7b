import type { PlanDrawing } from '@fendrix/core';
import type { SetSheetRow, SetSheetWords } from '@fendrix/words';
import QRCode from 'qrcode';
import {
  begun,
  finished,
  GAP_MM,
  MARGIN_MM,
  MM,
  type Page,
  type Paper,
  type Pdf,
  SMALL_PT,
  TEXT_PT,
  TITLE_PT,
} from './pages.js';
import { commonScale, PEN, pathOf, planOnPaper, TAG_MM } from './planScale.js';

export interface SetSheetParts {
  words: SetSheetWords;
  above: PlanDrawing;
  side: PlanDrawing;
  /** The picture, JPEG or PNG, and its width over its height. */
  picture: { data: Uint8Array; aspect: number };
  /** Address of the set on its server, as a QR code; none without. */
  link?: string | undefined;
  /** What stands at the foot: version of the set and date. */
  foot: string;
}

/**
 * A set sheet as PDF: picture, drawings to scale, camera and tones on the first page, the table of things, what has to be held
 * closest, the order of building and cautions on the second. Text is text, its typeface comes with it, and nothing is told by colour.
 */
export async function setSheetPdf(parts: SetSheetParts, paper: Paper): Promise<Uint8Array> {
  const { words, foot } = parts;
  const { pdf, page, written } = begun(words.title, paper);
  firstPage(pdf, parts, page);
  pdf.addPage();
  secondPage(pdf, parts, page);
  return finished(pdf, page, `${words.title}. ${foot}`, written);
}

/** The plans of a set as PDF, each on a page of its own, both at the largest scale that the paper has room for. */
export async function plansPdf(
  title: string,
  plans: readonly { title: string; drawing: PlanDrawing }[],
  foot: string,
  paper: Paper,
): Promise<Uint8Array> {
  const { pdf, page, written } = begun(title, paper);
  const top = (MARGIN_MM + TITLE_PT / MM + GAP_MM) * MM;
  const high = (page.foot - top) / MM - 14;
  const scale = commonScale(
    plans.map(({ drawing }) => drawing),
    page.wide / MM,
    high,
  );
  plans.forEach((plan, index) => {
    if (index > 0) pdf.addPage();
    pdf
      .font('bold')
      .fontSize(TITLE_PT)
      .text(title, page.left, MARGIN_MM * MM, { width: page.wide, height: TITLE_PT * 1.2 });
    drawPlan(pdf, plan.drawing, plan.title, page.left, top, scale);
  });
  return finished(pdf, page, `${title}. ${foot}`, written);
}

function firstPage(pdf: Pdf, { words, above, side, picture, link }: SetSheetParts, page: Page): void {
  pdf
    .font('bold')
    .fontSize(TITLE_PT)
    .text(words.title, page.left, MARGIN_MM * MM, { width: page.wide - 26 * MM });
  if (words.note)
    pdf
      .font('text')
      .fontSize(TEXT_PT)
      .text(words.note, { width: page.wide - 26 * MM });
  const top = Math.max(pdf.y, (MARGIN_MM + (link ? 24 : 0)) * MM) + GAP_MM * MM;
  if (link) drawQr(pdf, link, page.left + page.wide - 22 * MM, MARGIN_MM * MM, 22 * MM);

  const pictureWide = 0.56 * page.wide;
  const high = Math.min(pictureWide / picture.aspect, 105 * MM);
  pdf.image(Buffer.from(picture.data), page.left, top, { fit: [pictureWide, high] });
  const column = { x: page.left + pictureWide + GAP_MM * MM, width: page.wide - pictureWide - GAP_MM * MM };
  pdf.x = column.x;
  pdf.y = top;
  heading(pdf, 'Camera', column.x);
  pairs(
    pdf,
    words.camera.map(({ label, value }) => [label, value]),
    column,
  );
  if (words.tones.length > 0) {
    pdf.y += 2 * MM;
    heading(pdf, 'Tones at the spots, stops from mid-tone', column.x);
    const tones = words.tones.map(({ spot, tone, wanted }): [string, string] => [
      spot,
      wanted ? `${tone}; wanted ${wanted}` : tone,
    ]);
    pairs(pdf, tones, column);
  }

  const below = Math.max(pdf.y, top + high) + GAP_MM * MM;
  const field = (page.foot - below) / MM - 14;
  const half = (page.wide / MM - GAP_MM) / 2;
  const scale = commonScale([above, side], half, field);
  drawPlan(pdf, above, 'From above', page.left, below, scale);
  drawPlan(pdf, side, 'From the side, camera at the left', page.left + (half + GAP_MM) * MM, below, scale);
}

function secondPage(pdf: Pdf, { words }: SetSheetParts, page: Page): void {
  pdf.y = MARGIN_MM * MM;
  heading(pdf, 'Where things stand', page.left);
  paragraph(
    pdf,
    `Distances from the centre of the set, heights over the table. Bearings from the centre: front is the side of the camera, left and right as the camera sees them; what a thing faces is told the same way. ${words.tapes ?? ''}`,
    page,
  );
  table(pdf, words, page);
  if (words.closest.length > 0) {
    pdf.y += 3 * MM;
    heading(pdf, 'To be held closest, the worst first', page.left);
    for (const [i, line] of words.closest.entries()) paragraph(pdf, `${i + 1}. ${line}`, page);
    paragraph(
      pdf,
      'Each taken alone. What is moved stays aimed at the same point; a change is taken to grow evenly.',
      page,
    );
  }
  pdf.y += 3 * MM;
  heading(pdf, 'Order of building', page.left);
  paragraph(pdf, words.order.map((line, i) => `${i + 1}. ${line}`).join('.  '), page);
  if (words.cautions.length > 0) {
    pdf.y += 3 * MM;
    heading(pdf, 'Cautions', page.left);
    for (const caution of words.cautions) paragraph(pdf, caution, page);
    paragraph(pdf, 'Local codes and qualified people come first.', page);
  }
}

function heading(pdf: Pdf, text: string, x: number): void {
  pdf
    .font('bold')
    .fontSize(TEXT_PT + 1.5)
    .text(text, x);
  pdf.y += 0.6 * MM;
}

function paragraph(pdf: Pdf, text: string, { left, wide }: Page): void {
  pdf.font('text').fontSize(TEXT_PT).text(text, left, pdf.y, { width: wide });
  pdf.y += 0.5 * MM;
}

function pairs(
  pdf: Pdf,
  rows: readonly (readonly [string, string])[],
  { x, width }: { x: number; width: number },
): void {
  const first = 0.42 * width;
  pdf.fontSize(TEXT_PT);
  for (const [label, value] of rows) {
    const top = pdf.y;
    pdf.font('text').text(label, x, top, { width: first - MM });
    const low = pdf.y;
    pdf.font('bold').text(value, x + first, top, { width: width - first });
    pdf.y = Math.max(low, pdf.y) + 0.4 * MM;
  }
}

const COLUMNS: readonly { of: keyof SetSheetRow; head: string; part: number }[] = [
  { of: 'name', head: 'Thing', part: 0.16 },
  { of: 'stands', head: 'Stands', part: 0.13 },
  { of: 'tapes', head: 'Two tapes', part: 0.13 },
  { of: 'height', head: 'Height', part: 0.08 },
  { of: 'faces', head: 'Faces', part: 0.12 },
  { of: 'set', head: 'Set to', part: 0.2 },
  { of: 'mayBeOff', head: 'May be off by', part: 0.18 },
];

function table(pdf: Pdf, { things }: SetSheetWords, page: Page): void {
  const pad = 0.8 * MM;
  const row = (cells: readonly string[], font: string, ruleWidth: number) => {
    pdf.font(font).fontSize(TEXT_PT);
    const widths = COLUMNS.map(({ part }) => part * page.wide - 2 * pad);
    const high = Math.max(
      ...cells.map((cell, i) => pdf.heightOfString(cell || ' ', { width: widths[i] as number })),
    );
    if (pdf.y + high + 2 * pad > page.foot) {
      pdf.addPage();
      pdf.y = MARGIN_MM * MM;
    }
    const top = pdf.y;
    let x = page.left;
    cells.forEach((cell, i) => {
      pdf
        .font(i === 0 ? 'bold' : font)
        .text(cell, x + (i === 0 ? 0 : pad), top + pad, { width: widths[i] as number });
      x += (COLUMNS[i] as (typeof COLUMNS)[number]).part * page.wide;
    });
    pdf.y = top + high + 2 * pad;
    pdf
      .moveTo(page.left, pdf.y)
      .lineTo(page.left + page.wide, pdf.y)
      .lineWidth(ruleWidth)
      .stroke();
  };
  row(
    COLUMNS.map(({ head }) => head),
    'bold',
    0.8,
  );
  for (const thing of things)
    row(
      COLUMNS.map(({ of }) => thing[of]),
      'text',
      0.25,
    );
}

function drawPlan(
  pdf: Pdf,
  drawing: PlanDrawing,
  title: string,
  left: number,
  top: number,
  scale: number,
): void {
  pdf.x = left;
  pdf.y = top;
  heading(pdf, title, left);
  const paper = planOnPaper(drawing, scale);
  const low = pdf.y;
  pdf.save().translate(left, low).scale(MM);
  for (const outline of drawing.outlines) {
    const { of, closed } = outline;
    const pen = PEN[of];
    pdf.path(pathOf(outline, paper));
    pdf.lineWidth(pen.lineMm);
    if (pen.dashMm) pdf.dash(pen.dashMm, { space: pen.dashMm });
    else pdf.undash();
    if (pen.fill !== null && closed) pdf.fillAndStroke(greyOf(pen.fill), greyOf(0));
    else pdf.stroke(greyOf(0));
  }
  pdf.undash().lineWidth(0.2);
  for (const { text, of, at } of drawing.tags) {
    const [x, y] = paper.at(at);
    const half = TAG_MM / 2;
    if (of === 'light') pdf.circle(x, y, half);
    else pdf.rect(x - half, y - half, TAG_MM, TAG_MM);
    pdf.fillAndStroke(greyOf(1), greyOf(0));
    pdf.font('bold').fontSize(2.6).fillColor(greyOf(0));
    pdf.text(text, x - TAG_MM, y - 1.3, { width: 2 * TAG_MM, align: 'center', lineBreak: false });
  }
  pdf.restore();
  pdf.fillColor(greyOf(0));
  pdf.font('text').fontSize(SMALL_PT);
  const note = `Scale 1:${paper.scale}: ${Number((1000 / paper.scale).toFixed(1))} mm on paper are 1 m.`;
  pdf.text(note, left, low + paper.heightMm * MM + MM, { lineBreak: false });
}

const greyOf = (tone: number): [number, number, number] => {
  const value = Math.round(255 * tone);
  return [value, value, value];
};

function drawQr(pdf: Pdf, link: string, left: number, top: number, side: number): void {
  const { modules } = QRCode.create(link, { errorCorrectionLevel: 'M' });
  const cell = side / modules.size;
  for (let y = 0; y < modules.size; y++) {
    for (let x = 0; x < modules.size; x++) {
      if (modules.get(y, x)) pdf.rect(left + x * cell, top + y * cell, cell, cell);
    }
  }
  pdf.fill(greyOf(0));
}
