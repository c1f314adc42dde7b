import { surround } from '../../../shared/theme';
import { type FrameWindow, toView } from '../picture/frameWindow';
import { useBench } from '../state/hooks';
import { useRegion } from './useRegion';

interface RegionMarksProps {
  window: FrameWindow;
  width: number;
  height: number;
}

/** The place that a card is for, dotted in the picture, and what is to be left as it is, in rings. */
export function RegionMarks(props: RegionMarksProps) {
  const region = useBench((bench) => bench.cards?.region ?? null);
  const spare = useBench((bench) => bench.cards?.spare ?? null);
  return (
    <>
      <Places {...props} places={useRegion(region)?.places ?? []} kind="region" />
      <Places {...props} places={useRegion(spare)?.places ?? []} kind="spare" />
    </>
  );
}

function Places({
  window,
  width,
  height,
  places,
  kind,
}: RegionMarksProps & { places: readonly { across: number; down: number }[]; kind: 'region' | 'spare' }) {
  const look =
    kind === 'region'
      ? { r: 1.6, fill: surround.caution, stroke: surround.ink, strokeWidth: 0.8 }
      : { r: 2, fill: 'none', stroke: surround.accent, strokeWidth: 1.2 };
  return (
    <g data-testid={`card-${kind}`} data-places={places.length}>
      {places.map(({ across, down }) => {
        const [x, y] = toView(window, across, down);
        return <circle key={`${across} ${down}`} cx={x * width} cy={y * height} {...look} />;
      })}
    </g>
  );
}
