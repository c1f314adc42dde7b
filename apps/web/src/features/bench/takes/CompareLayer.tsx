import type { SetDocument } from '@fendrix/contract';
import { applyChange, differenceStops, setOfTake } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { BLINK_MS, differenceWords, paintDifference } from '../../../shared/render/difference';
import { renderSmall } from '../../../shared/render/smallRender';
import { surround } from '../../../shared/theme';
import { type BenchState, benchActions, type Compared, type CompareMode } from '../state/benchSlice';
import { useBenchDispatch, useSet } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';
import { ComparedVerdicts } from './ComparedVerdicts';

interface CompareLayerProps {
  compare: NonNullable<BenchState['compare']>;
  width: number;
  height: number;
}

interface Drawn {
  picture: ImageData;
  linear: Float32Array;
  /** What it is a picture of. */
  of: SetDocument;
}

const MODES: Record<CompareMode, string> = {
  side: 'side by side',
  wipe: 'wipe',
  blink: 'blink',
  difference: 'difference in stops',
  verdicts: 'verdicts',
};
const WIDEST = 560;
const SAMPLES = 48;
/** The first picture is a quick one and so much smaller, so that it is there at once; the next as small, by the whole light. */
const FIRST_PART = 3;
const FIRST_SAMPLES = 4;

interface Side {
  set: SetDocument;
  words: string;
}

/** What is held against what, the earlier first; null where one of them is gone. */
function pairOf(set: SetDocument, against: Compared): { before: Side; after: Side } | null {
  const now = { set: { ...set, takes: [] }, words: 'now' };
  if (against.kind === 'take') {
    const take = set.takes.find(({ id }) => id === against.id);
    return take ? { before: { set: setOfTake(take), words: take.name }, after: now } : null;
  }
  const changed = applyChange(now.set, against.change);
  return changed && { before: now, after: { set: changed, words: against.words } };
}

/** A take, or what a change would make, held against the set as it is now: beside it, wiped over it, in turn with it, or as their difference. */
export function CompareLayer({ compare, width, height }: CompareLayerProps) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const pair = useMemo(() => pairOf(set, compare.against), [set, compare.against]);
  const size = useMemo(() => {
    const wide = Math.min(WIDEST, width);
    return { width: wide, height: Math.round((wide * height) / width) };
  }, [width, height]);
  const before = useDrawn(pair?.before.set ?? null, size);
  const after = useDrawn(pair?.after.set ?? null, size);
  const [wipe, setWipe] = useState(50);
  const [second, setSecond] = useState(false);
  const { mode } = compare;

  useEffect(() => {
    if (mode !== 'blink') return;
    const timer = setInterval(() => setSecond((value) => !value), BLINK_MS);
    return () => clearInterval(timer);
  }, [mode]);

  if (!pair) return null;
  const [name, other] = [pair.before.words, pair.after.words];
  return (
    <Box
      role="group"
      aria-label={`Compared: ${name} and ${other}`}
      data-testid="compare"
      data-ready={before && after ? 'yes' : 'no'}
      sx={{ position: 'absolute', inset: 0, bgcolor: surround.sunken, cursor: 'default' }}
      onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
    >
      {mode === 'side' && (
        <Box sx={{ display: 'flex', height: '100%', alignItems: 'center', gap: '2px' }}>
          <Shot drawn={before} words={name} />
          <Shot drawn={after} words={other} />
        </Box>
      )}
      {mode === 'wipe' && (
        <>
          <Shot drawn={after} words={other} whole />
          <Box sx={{ position: 'absolute', inset: 0, clipPath: `inset(0 ${100 - wipe}% 0 0)` }}>
            <Shot drawn={before} words={name} whole left />
          </Box>
          <Box
            sx={{
              position: 'absolute',
              top: 0,
              bottom: 0,
              left: `${wipe}%`,
              width: '2px',
              bgcolor: surround.accent,
            }}
          />
          <Slider
            aria-label="How far one is wiped over the other"
            value={wipe}
            onChange={(_, value) => setWipe(value as number)}
            sx={{
              position: 'absolute',
              left: 12,
              right: 12,
              bottom: 34,
              width: 'auto',
              color: surround.accent,
            }}
          />
        </>
      )}
      {mode === 'blink' && <Shot drawn={second ? after : before} words={second ? other : name} whole left />}
      {mode === 'verdicts' && (
        <ComparedVerdicts before={pair.before.set} after={pair.after.set} name={name} other={other} />
      )}
      {mode === 'difference' && <Difference before={before} after={after} name={name} other={other} />}
      <Box
        sx={{
          position: 'absolute',
          left: 0,
          right: 0,
          bottom: 0,
          display: 'flex',
          gap: 0.5,
          p: 0.5,
          bgcolor: surround.over,
        }}
      >
        {(Object.keys(MODES) as CompareMode[]).map((own) => (
          <Button
            key={own}
            size="small"
            aria-pressed={own === mode}
            onClick={() => dispatch(benchActions.compared({ ...compare, mode: own }))}
            sx={{
              color: own === mode ? surround.ink : surround.text,
              bgcolor: own === mode ? surround.paper : surround.raised,
              py: 0,
              '&:hover': { bgcolor: own === mode ? surround.paperOver : surround.raisedOver },
            }}
          >
            {MODES[own]}
          </Button>
        ))}
        <Button
          size="small"
          sx={{ color: surround.text, ml: 'auto', py: 0 }}
          onClick={() => dispatch(benchActions.compared(null))}
        >
          Close
        </Button>
      </Box>
    </Box>
  );
}

/** A picture of a set as it grows better; the last one stays until the next is there. */
function useDrawn(
  set: Parameters<typeof renderSmall>[0] | null,
  size: { width: number; height: number },
): Drawn | null {
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  useEffect(() => {
    if (!set) return;
    const abort = new AbortController();
    const { signal } = abort;
    const onPicture = (picture: ImageData, linear: Float32Array) => {
      if (!signal.aborted) setDrawn({ picture, linear, of: set });
    };
    const options = { signal, levelled: false, onPicture };
    const first = {
      width: Math.max(2, Math.round(size.width / FIRST_PART)),
      height: Math.max(2, Math.round(size.height / FIRST_PART)),
    };
    renderSmall(set, { ...options, ...first, samples: FIRST_SAMPLES, quick: true })
      .then(() => renderSmall(set, { ...options, ...first, samples: FIRST_SAMPLES }))
      .then(() => renderSmall(set, { ...options, ...size, samples: SAMPLES }))
      .catch((error: unknown) => {
        if (!signal.aborted) tellFailure('The picture of this take', error);
      });
    return () => abort.abort();
  }, [set, size]);
  return drawn?.of === set ? drawn : null;
}

function Shot({
  drawn,
  words,
  whole = false,
  left = false,
}: {
  drawn: Drawn | null;
  words: string;
  whole?: boolean;
  left?: boolean;
}) {
  return (
    <Box sx={whole ? { position: 'absolute', inset: 0 } : { flex: 1, position: 'relative', minWidth: 0 }}>
      <Painted image={drawn?.picture ?? null} label={`Picture: ${words}`} />
      <Caption left={left || !whole}>{drawn ? words : `${words}, on its way`}</Caption>
    </Box>
  );
}

function Caption({ children, left = false }: { children: ReactNode; left?: boolean }) {
  return (
    <Box
      sx={{
        position: 'absolute',
        top: 6,
        ...(left ? { left: 8 } : { right: 8 }),
        maxWidth: '46%',
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

function Painted({ image, label }: { image: ImageData | null; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (image) canvas.current?.getContext('2d')?.putImageData(image, 0, 0);
  }, [image]);
  return (
    <canvas
      ref={canvas}
      width={image?.width ?? 3}
      height={image?.height ?? 2}
      role="img"
      aria-label={label}
      style={{ width: '100%', display: 'block' }}
    />
  );
}

function Difference({
  before,
  after,
  name,
  other,
}: {
  before: Drawn | null;
  after: Drawn | null;
  name: string;
  other: string;
}) {
  const found = useMemo(() => {
    // The first pictures are small ones.
    if (!before || !after || before.picture.width !== after.picture.width) return null;
    const { width, height } = after.picture;
    const stops = new Float32Array(width * height);
    differenceStops(stops, before.linear, after.linear);
    return { image: paintDifference(stops, width, height), words: differenceWords(stops) };
  }, [before, after]);
  return (
    <Box sx={{ position: 'absolute', inset: 0 }}>
      <Painted image={found?.image ?? null} label={`Difference of ${other} from ${name}, in stops`} />
      <Caption left>
        {found ? (
          <span data-testid="difference">
            from {name} to {other}: {found.words}
          </span>
        ) : (
          'Difference on its way'
        )}
      </Caption>
    </Box>
  );
}
