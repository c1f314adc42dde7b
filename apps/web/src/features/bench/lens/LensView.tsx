import { viewOf } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useTheme } from '@mui/material/styles';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, memo, type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { surround } from '../../../shared/theme';
import { useSize } from '../../../shared/useSize';
import { RegionMarks } from '../cards/RegionMarks';
import { useFigure } from '../figures/figureStore';
import { toFrame, withinFrame, zoomedAt } from '../picture/frameWindow';
import { useSession } from '../picture/useSession';
import { MaskCanvas } from '../plates/MaskCanvas';
import { usePlatePointing } from '../plates/usePlatePointing';
import { benchActions } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { useMostZoom } from '../state/useBenchKeys';
import { CompareLayer } from '../takes/CompareLayer';
import { VerdictPlaces } from '../verdicts/VerdictPlaces';
import { CropMarks } from './CropMarks';
import { FocusLayer } from './FocusLayer';
import { MirrorOverlayCanvas } from './MirrorOverlayCanvas';
import { MirrorTags } from './MirrorTags';
import { PictureCanvas } from './PictureCanvas';
import { regionTags } from './regionTags';
import { Crosshair, FieldMark, PickMark, SpotMarks } from './SpotMarks';
import { ToneLayerView } from './ToneLayerView';
import { usePointAt } from './usePointAt';

/** Steps of the pointer by keyboard, parts of the view. */
const STEP = 0.01;
const WIDE_STEP = 0.05;
/** One notch of the wheel. */
const WHEEL_ZOOM = 1.25;
const LEAST_HEIGHT = 150;

/** What the camera would record with these settings, with spots, mirrors and tones on it; it can be magnified. */
export const LensView = memo(function LensView() {
  const camera = useSetPart((set) => set.camera);
  const dispatch = useBenchDispatch();
  const session = useSession();
  const picture = useFigure('picture');
  const mirrors = useFigure('mirrors');
  const depth = useFigure('depth');
  const overlay = useBench((bench) => bench.overlay);
  const window = useBench((bench) => bench.window);
  const crops = useBench((bench) => bench.crops);
  const marking = useBench((bench) => bench.marking);
  const pinning = useBench((bench) => bench.pinning);
  const compare = useBench((bench) => bench.compare);
  const placing = useBench((bench) => bench.cards?.pointing ?? null);
  const masking = usePlatePointing(session);
  const paintsCards = useBench((bench) => bench.cards?.by === 'brush' && bench.cards.pointing !== null);
  const brushing = paintsCards || masking?.by === 'brush';
  const [pointer, setPointer] = useState<[number, number] | null>(null);
  const mostZoom = useMostZoom();
  const { frame, width, height } = useFrameSize(camera.body.sensorWidthM / camera.body.sensorHeightM);
  const view = useMemo(() => viewOf(camera), [camera]);
  const mirrored = overlay === 'mirrors' || overlay === 'through' ? mirrors : null;
  const tags = useMemo(
    () => (mirrored ? regionTags(mirrored, overlay === 'through' ? 'through' : 'mirrors') : []),
    [mirrored, overlay],
  );
  const pointAt = usePointAt(session);
  const press = (across: number, down: number) => {
    if (masking) masking.press(across, down);
    else if (placing) dispatch(benchActions.cardsPointed({ across, down }));
    else void pointAt(across, down);
  };

  useEffect(() => {
    session?.resize(width);
    dispatch(benchActions.lensResized(width));
  }, [session, width, dispatch]);

  const surface = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = surface.current;
    if (!element) return;
    // React's own listener cannot keep the page from scrolling.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const at = toFrame(
        window,
        (event.clientX - box.left) / box.width,
        (event.clientY - box.top) / box.height,
      );
      const factor = event.deltaY < 0 ? WHEEL_ZOOM : 1 / WHEEL_ZOOM;
      dispatch(benchActions.windowChanged(zoomedAt(window, factor, at, mostZoom)));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [dispatch, window, mostZoom]);

  const start = useRef(window);
  const bind = useDrag(
    ({ first, last, tap, xy: [x, y], initial: [x0, y0], movement: [mx, my], currentTarget }) => {
      const box = (currentTarget as HTMLElement).getBoundingClientRect();
      const place = (cx: number, cy: number) =>
        toFrame(window, (cx - box.left) / box.width, (cy - box.top) / box.height);
      if (tap) {
        press(...place(x, y));
        masking?.ended();
        return;
      }
      if (first) start.current = window;
      if (brushing) {
        press(...place(x, y));
        if (last) masking?.ended();
        return;
      }
      if (masking?.by === 'gradient') {
        if (last) masking.drag(place(x0, y0), place(x, y));
        return;
      }
      if (marking) {
        const [a, b] = [place(x0, y0), place(x, y)];
        const inside = (value: number) => Math.max(0, Math.min(1, value));
        const rect = {
          left: inside(Math.min(a[0], b[0])),
          right: inside(Math.max(a[0], b[0])),
          top: inside(Math.min(a[1], b[1])),
          bottom: inside(Math.max(a[1], b[1])),
        };
        if (rect.right - rect.left < 0.02 || rect.bottom - rect.top < 0.02) return;
        dispatch(benchActions.fieldMarked(rect));
        dispatch(benchActions.markingChanged(true));
      } else if (window.zoom > 1) {
        const { zoom, left, top } = start.current;
        const moved = { zoom, left: left - mx / box.width / zoom, top: top - my / box.height / zoom };
        dispatch(benchActions.windowChanged(withinFrame(moved, mostZoom)));
      }
    },
    { filterTaps: true, pointer: { keys: false } },
  );

  function onKeyDown(event: KeyboardEvent) {
    const [x, y] = pointer ?? [0.5, 0.5];
    const step = event.shiftKey ? WIDE_STEP : STEP;
    const kept = (value: number) => Math.min(1, Math.max(0, value));
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [x - step, y],
      ArrowRight: [x + step, y],
      ArrowUp: [x, y - step],
      ArrowDown: [x, y + step],
    };
    const to = moves[event.key];
    if (to) setPointer([kept(to[0]), kept(to[1])]);
    else if (event.key === 'Enter') press(...toFrame(window, x, y));
    else return;
    event.preventDefault();
  }

  return (
    <Box
      ref={frame}
      sx={{
        width: '100%',
        flex: { md: '1 1 0' },
        minHeight: { md: LEAST_HEIGHT },
        display: 'flex',
        justifyContent: 'center',
        alignItems: 'flex-start',
      }}
    >
      <Box sx={{ position: 'relative', width, height }}>
        <Box
          ref={surface}
          data-testid="lens"
          data-zoom={window.zoom.toFixed(2)}
          role="application"
          tabIndex={0}
          aria-label="Lens view. Arrow keys move the pointer, with Shift in wide steps; Enter points at the spot; plus, minus and 0 magnify"
          {...bind()}
          onKeyDown={onKeyDown}
          onBlur={() => setPointer(null)}
          sx={{
            position: 'relative',
            width,
            height,
            bgcolor: surround.sunken,
            cursor:
              pinning || marking || placing || masking ? 'crosshair' : window.zoom > 1 ? 'grab' : 'pointer',
            overflow: 'hidden',
            touchAction: 'none',
          }}
        >
          <PictureCanvas picture={picture} window={window} />
          {picture?.mask && <MaskCanvas picture={picture} mask={picture.mask} window={window} />}
          {!picture && <Notice>First picture on its way</Notice>}
          <Box
            sx={{
              position: 'absolute',
              left: 6,
              bottom: 6,
              display: 'grid',
              gap: 0.5,
              justifyItems: 'start',
            }}
          >
            <SimplifiedNote />
            <AloneNote />
            <PlatesNote />
          </Box>
          {mirrored && (
            <MirrorOverlayCanvas
              overlay={mirrored}
              show={overlay === 'through' ? 'through' : 'mirrors'}
              window={window}
            />
          )}
          {(overlay === 'stops' || overlay === 'clipping') && picture?.tones && (
            <ToneLayerView picture={picture} tones={picture.tones} window={window} />
          )}
          {overlay === 'focus' && depth && <FocusLayer overlay={depth} window={window} camera={camera} />}
          <svg
            width={width}
            height={height}
            aria-hidden
            style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
          >
            {crops.shown && <CropMarks {...{ camera, window, width, height }} only={crops.only} />}
            <VerdictPlaces window={window} width={width} height={height} />
            <RegionMarks window={window} width={width} height={height} />
            <FieldMark window={window} width={width} height={height} />
            <SpotMarks view={view} window={window} width={width} height={height} />
            {window.zoom === 1 && <MirrorTags tags={tags} width={width} height={height} />}
            {pointer && <Crosshair x={pointer[0] * width} y={pointer[1] * height} />}
            <PickMark view={view} window={window} width={width} height={height} />
          </svg>
        </Box>
        {compare && (
          <CompareLayer
            key={JSON.stringify(compare.against)}
            compare={compare}
            width={width}
            height={height}
          />
        )}
      </Box>
    </Box>
  );
});

function SimplifiedNote() {
  const { simplified, phase } = useBench((bench) => bench.picture);
  if (!simplified) return null;
  return (
    <CornerNote>
      {phase === 'following'
        ? 'Large mesh shown simplified while things move'
        : 'Shown simplified: the whole mesh is being prepared'}
    </CornerNote>
  );
}

function AloneNote() {
  const alone = useBench((bench) => bench.alone);
  const isThere = useSetPart((set) => set.lights.some(({ tag }) => tag === alone));
  return isThere && <CornerNote>Only {alone}, as if all other light were off: O shows all</CornerNote>;
}

function PlatesNote() {
  const picture = useFigure('picture');
  const plates = picture?.plates;
  if (!plates || plates.laid + plates.onTheirWay === 0) return null;
  const { laid, onTheirWay } = plates;
  return (
    <CornerNote>
      Put together with {laid} {laid === 1 ? 'plate' : 'plates'}
      {onTheirWay > 0 && `, ${onTheirWay} on the way`}: L shows the set’s own frame
    </CornerNote>
  );
}

/** Over the picture, so that nothing moves when it comes and goes. */
function CornerNote({ children }: { children: ReactNode }) {
  return (
    <Box
      role="status"
      sx={{
        px: 0.75,
        bgcolor: surround.over,
        color: surround.text,
        fontSize: '0.75rem',
      }}
    >
      {children}
    </Box>
  );
}

function Notice({ children }: { children: ReactNode }) {
  return (
    <Box
      sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center', color: surround.quiet }}
    >
      {children}
    </Box>
  );
}

const FIRST_SIZE = { width: 560, height: 0 };

/** As large as fits its place in the shape of the frame; on a narrow page by its width alone. */
function useFrameSize(aspect: number) {
  const frame = useRef<HTMLDivElement>(null);
  const theme = useTheme();
  const beside = useMediaQuery(theme.breakpoints.up('md'));
  const room = useSize(frame, FIRST_SIZE);
  const limited = beside && room.height > LEAST_HEIGHT / 2 ? room.height * aspect : room.width;
  const width = Math.max(120, Math.round(Math.min(room.width, limited)));
  return { frame, width, height: Math.round(width / aspect) };
}
