import type { Flat, PlanDrawing } from '@fendrix/core';
import { commonScale, PEN, type PlanOnPaper, pathOf, planOnPaper, TAG_MM } from './planScale.js';

/** A drawing as an SVG file to scale, for a field of the paper, mm. */
export function planSvg(
  drawing: PlanDrawing,
  title: string,
  mostWideMm = 277,
  mostHighMm = 180,
): { svg: string; scale: number } {
  const paper = planOnPaper(drawing, commonScale([drawing], mostWideMm, mostHighMm));
  const noteMm = 6;
  const height = paper.heightMm + noteMm;
  const note = `${title}. Scale 1:${paper.scale}: ${round(1000 / paper.scale)} mm are 1 m.`;
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${round(paper.widthMm)}mm" height="${round(height)}mm" viewBox="0 0 ${round(paper.widthMm)} ${round(height)}" font-family="sans-serif">`,
    `<title>${escaped(note)}</title>`,
    ...drawing.outlines.map((outline) => outlineSvg(outline, paper)),
    ...drawing.tags.map((tag) => tagSvg(tag, paper)),
    `<text x="1" y="${round(height - 1.5)}" font-size="3">${escaped(note)}</text>`,
    '</svg>',
  ].join('\n');
  return { svg, scale: paper.scale };
}

function outlineSvg(outline: PlanDrawing['outlines'][number], paper: PlanOnPaper): string {
  const { of, closed } = outline;
  const pen = PEN[of];
  const fill = pen.fill === null || !closed ? 'none' : grey(pen.fill);
  const dash = pen.dashMm ? ` stroke-dasharray="${pen.dashMm}"` : '';
  return `<path d="${pathOf(outline, paper)}" fill="${fill}" stroke="${grey(0)}" stroke-width="${pen.lineMm}"${dash}/>`;
}

function tagSvg({ text, of, at }: PlanDrawing['tags'][number], paper: PlanOnPaper): string {
  const [x, y] = paper.at(at) as Flat;
  const half = TAG_MM / 2;
  const shape =
    of === 'light'
      ? `<circle cx="${round(x)}" cy="${round(y)}" r="${half}"`
      : `<rect x="${round(x - half)}" y="${round(y - half)}" width="${TAG_MM}" height="${TAG_MM}"`;
  return `${shape} fill="${grey(1)}" stroke="${grey(0)}" stroke-width="0.2"/><text x="${round(x)}" y="${round(y + 0.9)}" font-size="2.6" text-anchor="middle">${escaped(text)}</text>`;
}

const grey = (tone: number): string =>
  `rgb(${Array(3)
    .fill(Math.round(255 * tone))
    .join(' ')})`;
const round = (value: number): number => Number(value.toFixed(2));
const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
