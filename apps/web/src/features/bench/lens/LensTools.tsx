import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Tooltip from '@mui/material/Tooltip';
import { memo } from 'react';
import { Choice } from '../../../shared/Choice';
import { surround } from '../../../shared/theme';
import { WHOLE_FRAME, zoomedAt } from '../picture/frameWindow';
import { benchActions } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { OVERLAY_KEYS, useMostZoom } from '../state/useBenchKeys';

const HINTS: Record<string, string> = {
  mirrors: 'Each spot hatched with the tag of what it mirrors',
  through: 'What glass, liquid, nets and frost show of what stands behind them',
  stops: 'Tones in labelled steps of one stop from mid-tone',
  clipping: 'Where the sensor clips, paper white is reached, or detail is lost in black',
  focus: 'Where it is sharp with this focus and f-stop',
};

/** Overlays and tools of the lens view, each with its key. */
export const LensTools = memo(function LensTools() {
  const dispatch = useBenchDispatch();
  const overlay = useBench((bench) => bench.overlay);
  const crops = useBench((bench) => bench.crops);
  const cropList = useSetPart((set) => set.camera.crops);
  const formats = cropList.map(({ name }) => name);
  const pinning = useBench((bench) => bench.pinning);
  const marking = useBench((bench) => bench.marking);
  return (
    <Box sx={{ display: 'flex', gap: 0.5, flexWrap: 'wrap', alignItems: 'center' }}>
      {OVERLAY_KEYS.map(({ key, overlay: own, word }) => (
        <ToolButton
          key={key}
          letter={key}
          hint={HINTS[own]}
          pressed={overlay === own}
          onClick={() => dispatch(benchActions.overlayToggled(own))}
        >
          {word}
        </ToolButton>
      ))}
      <ToolButton
        letter="C"
        hint="The formats cut from this frame"
        pressed={crops.shown}
        onClick={() => dispatch(benchActions.cropsToggled())}
      >
        crops
      </ToolButton>
      {crops.shown && formats.length > 0 && (
        // Narrow: the tools stay on one line.
        <Box sx={{ width: 64, display: 'flex' }}>
          <Choice
            label="Format looked at"
            onSurround
            value={crops.only ?? ''}
            options={[{ value: '', words: 'all' }, ...formats.map((name) => ({ value: name, words: name }))]}
            onChoose={(name) => dispatch(benchActions.cropChosen(name || null))}
          />
        </Box>
      )}
      <ToolButton
        letter="P"
        hint="Pin a spot: it is read in stops from then on"
        pressed={pinning}
        onClick={() => dispatch(benchActions.pinningChanged(!pinning))}
      >
        {pinning ? 'now point' : 'pin a spot'}
      </ToolButton>
      <ToolButton
        letter="E"
        hint="Drag a field over the picture: how even it is"
        pressed={marking}
        onClick={() => dispatch(benchActions.markingChanged(!marking))}
      >
        {marking ? 'now drag' : 'evenness'}
      </ToolButton>
    </Box>
  );
});

/** Traces the picture without what is kept on large sheets, to check it by. */
export const WholePathsTool = memo(function WholePathsTool() {
  const dispatch = useBenchDispatch();
  const wholePaths = useBench((bench) => bench.wholePaths);
  return (
    <ToolButton
      letter="W"
      label="Whole paths"
      hint="Whole paths: each way of light is traced to its end, without what is kept on large sheets. Slower, to check the picture by"
      pressed={wholePaths}
      onClick={() => dispatch(benchActions.wholePathsToggled())}
    />
  );
});

/** Magnifies the picture round its middle, up to one pixel of the sensor for one of the screen. */
export const ZoomTools = memo(function ZoomTools() {
  const dispatch = useBenchDispatch();
  const window = useBench((bench) => bench.window);
  const mostZoom = useMostZoom();
  const middle: [number, number] = [window.left + 0.5 / window.zoom, window.top + 0.5 / window.zoom];
  const zoom = (factor: number) =>
    dispatch(benchActions.windowChanged(zoomedAt(window, factor, middle, mostZoom)));
  return (
    <Box
      sx={{ display: 'flex', alignItems: 'center', color: surround.text }}
      role="group"
      aria-label="Magnify"
    >
      <ZoomButton label="Smaller" onClick={() => zoom(0.5)} disabled={window.zoom <= 1}>
        −
      </ZoomButton>
      <Button
        size="small"
        className="number"
        aria-label={`Magnified ${window.zoom.toFixed(1)} times. Show the whole frame`}
        onClick={() => dispatch(benchActions.windowChanged(WHOLE_FRAME))}
        sx={{ color: surround.text, minWidth: 40, p: 0 }}
      >
        {window.zoom >= mostZoom - 1e-6 ? '1:1' : `${window.zoom.toFixed(window.zoom < 10 ? 1 : 0)}×`}
      </Button>
      <ZoomButton label="Larger" onClick={() => zoom(2)} disabled={window.zoom >= mostZoom}>
        +
      </ZoomButton>
      <ZoomButton
        label="Pixels of the sensor"
        onClick={() => zoom(mostZoom / window.zoom)}
        disabled={window.zoom >= mostZoom}
      >
        1:1
      </ZoomButton>
    </Box>
  );
});

function ZoomButton({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick(): void;
  children: string;
}) {
  return (
    <Button
      size="small"
      aria-label={label}
      disabled={disabled}
      onClick={onClick}
      className="number"
      sx={{ color: surround.text, minWidth: 26, p: 0, '&.Mui-disabled': { color: surround.off } }}
    >
      {children}
    </Button>
  );
}

interface ToolButtonProps {
  letter: string;
  hint?: string | undefined;
  pressed: boolean;
  onClick(): void;
  /** The word beside its letter; where there is no room for one its name. */
  children?: string;
  label?: string;
}

function ToolButton({ letter, hint = '', pressed, onClick, children, label }: ToolButtonProps) {
  return (
    <Tooltip describeChild title={hint} placement="top">
      <Button
        size="small"
        onClick={onClick}
        aria-pressed={pressed}
        aria-label={label}
        sx={{
          color: pressed ? surround.ink : surround.text,
          bgcolor: pressed ? surround.paper : surround.raised,
          '&:hover': { bgcolor: pressed ? surround.paperOver : surround.raisedOver },
          px: 0.625,
          py: 0,
          minHeight: 24,
          minWidth: 0,
          fontSize: '0.75rem',
        }}
      >
        <Box
          component="span"
          className="number"
          sx={{ mr: children ? 0.5 : 0, color: pressed ? surround.strong : surround.accent }}
        >
          {letter}
        </Box>
        {children}
      </Button>
    </Tooltip>
  );
}
