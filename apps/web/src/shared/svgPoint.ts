/** Where a pointer is in the coordinates of an SVG drawing; null before it is laid out. */
export function svgPoint(
  svg: SVGSVGElement | null,
  clientX: number,
  clientY: number,
): [number, number] | null {
  const matrix = svg?.getScreenCTM()?.inverse();
  if (!matrix) return null;
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix);
  return [x, y];
}
