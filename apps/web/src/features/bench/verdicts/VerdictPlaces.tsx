import { surround } from '../../../shared/theme';
import { boxInView, type FrameWindow } from '../picture/frameWindow';
import { useBench } from '../state/hooks';
import { useJudged } from './verdictsContext';

interface VerdictPlacesProps {
  window: FrameWindow;
  width: number;
  height: number;
}

/** Where in the picture the verdict that is looked at is seen: its places outlined as one region. */
export function VerdictPlaces({ window, width, height }: VerdictPlacesProps) {
  const judged = useJudged();
  const chosen = useBench((bench) => bench.verdict?.id ?? null);
  const verdict = judged?.verdicts.find(({ id }) => id === chosen);
  if (!judged || !verdict || verdict.places.length === 0) return null;
  const { across, down } = judged.evidence;
  const outline = outlineOf(new Set(verdict.places), across)
    .map(([x1, y1, x2, y2]) => {
      const rect = { left: x1 / across, top: y1 / down, right: x2 / across, bottom: y2 / down };
      const box = boxInView(window, rect, width, height);
      return `M${box.x} ${box.y} l${box.width} ${box.height}`;
    })
    .join(' ');
  return (
    <g data-testid="verdict-places" fill="none" strokeLinecap="square">
      <path d={outline} stroke={surround.ink} strokeWidth={4} />
      <path d={outline} stroke={surround.caution} strokeWidth={2} />
    </g>
  );
}

/** Sides between a place of the region and one outside of it: [x1, y1, x2, y2] in places. */
function outlineOf(places: ReadonlySet<number>, across: number): [number, number, number, number][] {
  const sides: [number, number, number, number][] = [];
  for (const place of places) {
    const [x, y] = [place % across, Math.floor(place / across)];
    const has = (dx: number, dy: number) =>
      x + dx >= 0 && x + dx < across && places.has((y + dy) * across + x + dx);
    if (!has(0, -1)) sides.push([x, y, x + 1, y]);
    if (!has(0, 1)) sides.push([x, y + 1, x + 1, y + 1]);
    if (!has(-1, 0)) sides.push([x, y, x, y + 1]);
    if (!has(1, 0)) sides.push([x + 1, y, x + 1, y + 1]);
  }
  return sides;
}
