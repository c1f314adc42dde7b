import { surround } from '../../../shared/theme';

/** Scales that a ruler has. */
const SCALES = [2, 5, 10, 20, 25, 50, 100, 200];
/** Width and height of a sheet of A4 lying, less its margins, mm. */
const SHEET_MM = [277, 190] as const;
const NOTE_PX = 11;

export interface PlanFile {
  svg: string;
  /** Metres of the set to one metre of paper. */
  scale: number;
}

/**
 * A plan as it is drawn, as an SVG file to scale: the largest one at which it fits on a sheet of A4.
 * @param drawn the plan on the page, its pixels for a metre in `data-px-per-m`
 * @param ground colour that it is drawn on
 */
export function planFile(drawn: SVGSVGElement, title: string, ground: string): PlanFile {
  const [width, height] = [Number(drawn.getAttribute('width')), Number(drawn.getAttribute('height'))];
  const pxPerM = Number(drawn.dataset.pxPerM);
  const millimetres = (px: number, scale: number) => ((px / pxPerM) * 1000) / scale;
  const scale =
    SCALES.find((one) => millimetres(width, one) <= SHEET_MM[0] && millimetres(height, one) <= SHEET_MM[1]) ??
    (SCALES.at(-1) as number);
  const copy = drawn.cloneNode(true) as SVGSVGElement;
  for (const element of copy.querySelectorAll('*')) strip(element);
  strip(copy);
  copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  copy.setAttribute('width', `${millimetres(width, scale).toFixed(2)}mm`);
  copy.setAttribute('height', `${millimetres(height, scale).toFixed(2)}mm`);
  copy.setAttribute('font-family', 'sans-serif');
  const make = (name: string, attributes: Record<string, string | number>, text = '') => {
    const element = drawn.ownerDocument.createElementNS('http://www.w3.org/2000/svg', name);
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, String(value));
    element.textContent = text;
    return element;
  };
  copy.prepend(make('title', {}, title), make('rect', { width, height, fill: ground }));
  const note = (line: number, words: string) =>
    make(
      'text',
      { x: 8, y: height - 8 - 1.4 * NOTE_PX * line, 'font-size': NOTE_PX, fill: surround.text },
      words,
    );
  copy.append(note(1, title), note(0, `Scale 1:${scale}: ${1000 / scale} mm are 1 m`));
  return { svg: new XMLSerializer().serializeToString(copy), scale };
}

/** What only serves the hand on the page. */
function strip(element: Element): void {
  if (element.getAttribute('stroke') === 'transparent') {
    element.remove();
    return;
  }
  for (const { name } of [...element.attributes]) {
    if (/^(role|tabindex|class|style|data-|aria-)/.test(name)) element.removeAttribute(name);
  }
}
