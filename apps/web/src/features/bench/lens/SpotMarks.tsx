import { projectPoint, type View } from '@fendrix/core';
import { setMarks, surround } from '../../../shared/theme';
import { SPOT_RADIUS_PX } from '../figures/selectShown';
import { boxInView, type FrameWindow, toView } from '../picture/frameWindow';
import { toneWords } from '../spot/toneWords';
import { useBench, useReadings, useSetPart } from '../state/hooks';
import { labelPlaces } from './labelPlaces';

interface ViewProps {
  view: View;
  window: FrameWindow;
  width: number;
  height: number;
}

function placeOf({ view, window, width, height }: ViewProps, point: [number, number, number]) {
  const at = projectPoint(view, point);
  if (!at) return null;
  const [x, y] = toView(window, at[0], at[1]);
  return x >= 0 && x <= 1 && y >= 0 && y <= 1 ? { x: x * width, y: y * height } : null;
}

/** The pinned spots with their tones. */
export function SpotMarks(props: ViewProps) {
  const spots = useSetPart((set) => set.spots);
  const readings = useReadings();
  const marks = spots.flatMap(({ name, pointM }) => {
    const at = placeOf(props, pointM);
    if (!at) return [];
    const reading = readings.find((own) => own.name === name);
    const tone = reading && toneWords(reading);
    const text = tone ? `${name} ${tone}` : name;
    return [{ ...at, name, text }];
  });
  const places = labelPlaces(marks, props.width, props.height);
  return marks.map(({ name, x, y, text }, i) => (
    <g key={name} transform={`translate(${x} ${y})`}>
      <circle r={4.5} fill="none" stroke={setMarks.light} strokeWidth={3.5} />
      <circle r={4.5} fill="none" stroke={setMarks.dark} strokeWidth={1.5} />
      <circle r={1.2} fill={setMarks.dark} />
      <text
        x={places[i]?.dx}
        y={places[i]?.dy}
        textAnchor={places[i]?.anchor}
        fontSize={11}
        fontWeight={600}
        stroke={setMarks.light}
        strokeWidth={3}
        paintOrder="stroke"
        fill={setMarks.dark}
      >
        {text}
      </text>
    </g>
  ));
}

/** The spot pointed at. */
export function PickMark(props: ViewProps) {
  const pick = useBench((bench) => bench.pick);
  const at = pick && placeOf(props, pick.pointM);
  return (
    at && (
      <circle cx={at.x} cy={at.y} r={SPOT_RADIUS_PX} fill="none" stroke={surround.accent} strokeWidth={2} />
    )
  );
}

/** The field whose evenness is read. */
export function FieldMark({ window, width, height }: Omit<ViewProps, 'view'>) {
  const field = useBench((bench) => bench.field);
  if (!field) return null;
  const box = boxInView(window, field, width, height);
  return (
    <>
      <rect {...box} fill="none" stroke={surround.ink} strokeWidth={3} />
      <rect {...box} fill="none" stroke={surround.accent} strokeWidth={1.4} />
    </>
  );
}

/** The pointer of the keyboard. */
export function Crosshair({ x, y }: { x: number; y: number }) {
  const lines = `M${x - 12} ${y} h9 M${x + 3} ${y} h9 M${x} ${y - 12} v9 M${x} ${y + 3} v9`;
  return (
    <>
      <path d={lines} stroke={setMarks.light} strokeWidth={4} />
      <path d={lines} stroke={setMarks.dark} strokeWidth={1.6} />
    </>
  );
}
