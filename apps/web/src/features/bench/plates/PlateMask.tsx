import type { Plate } from '@fendrix/contract';
import { maskPieceWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useState } from 'react';
import { Choice } from '../../../shared/Choice';
import { Section } from '../../../shared/Section';
import { benchActions, type PlatePointing } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { addPiece, changePiece, changePlate } from '../state/plates';
import { edit } from '../state/thunks';

const POINTED: readonly { by: PlatePointing['by']; words: string; now: string }[] = [
  { by: 'part', words: 'a label, liquid, cap', now: 'now press on it in the picture' },
  { by: 'thing', words: 'a whole thing', now: 'now press on it in the picture' },
  { by: 'gradient', words: 'a gradient', now: 'press where nothing of it is, then where all is' },
  { by: 'brush', words: 'paint', now: 'now paint in the picture' },
];
const WHOLE: readonly { by: 'products' | 'sharpest'; words: string }[] = [
  { by: 'products', words: 'all products' },
  { by: 'sharpest', words: 'where it is the sharpest' },
];
/** Widest feather on the slider, part of the frame; and its steps. */
const WIDEST = 0.05;
const STEP = 0.001;

/** What of a plate goes into the picture: pieces one after the other, and how its edge fades. */
export function PlateMask({ plate }: { plate: Plate }) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const { pointing, maskShown } = useBench((bench) => bench.plates);
  const [leaveOut, setLeaveOut] = useState(false);
  const { id, mask, featherPart } = plate;
  const point = (by: PlatePointing['by']) => {
    const same = pointing?.by === by && pointing.leaveOut === leaveOut;
    dispatch(benchActions.platesChanged({ pointing: same ? null : { by, leaveOut } }));
  };
  return (
    <Section
      title="What of it goes into the picture"
      action={
        <Button
          size="small"
          aria-pressed={maskShown}
          onClick={() => dispatch(benchActions.platesChanged({ maskShown: !maskShown }))}
        >
          {maskShown ? 'Hide the mask' : 'Show the mask'}
        </Button>
      }
    >
      {mask.length === 0 ? (
        <Box sx={{ fontSize: '0.8125rem' }}>The whole frame, as nothing is said yet.</Box>
      ) : (
        <Box component="ol" sx={{ m: 0, p: 0, listStyle: 'none', fontSize: '0.8125rem' }}>
          {mask.map((piece, index) => {
            const words = maskPieceWords(set, piece);
            return (
              // Pieces have no name of their own: their place is what they are.
              <Box
                component="li"
                key={`${index} ${piece.area.by}`}
                sx={{ display: 'flex', alignItems: 'center' }}
              >
                <Box sx={{ flex: 1 }}>
                  {piece.leaveOut ? 'without ' : index > 0 ? 'and ' : ''}
                  {words}
                </Box>
                <Button
                  size="small"
                  color="inherit"
                  aria-label={piece.leaveOut ? `Take ${words} in` : `Leave ${words} out`}
                  onClick={() =>
                    dispatch(edit(changePiece(id, index, (own) => ({ ...own, leaveOut: !own.leaveOut }))))
                  }
                >
                  {piece.leaveOut ? 'take in' : 'leave out'}
                </Button>
                <Button
                  size="small"
                  color="inherit"
                  aria-label={`Remove ${words}`}
                  onClick={() => dispatch(edit(changePiece(id, index, () => null)))}
                >
                  remove
                </Button>
              </Box>
            );
          })}
        </Box>
      )}
      <Box
        role="group"
        aria-label="Add to the mask"
        sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, my: 1 }}
      >
        <Choice
          label="Add or leave out"
          value={leaveOut ? 'out' : 'in'}
          options={[
            { value: 'in', words: 'take' },
            { value: 'out', words: 'leave out' },
          ]}
          onChoose={(value) => {
            setLeaveOut(value === 'out');
            if (pointing) dispatch(benchActions.platesChanged({ pointing: null }));
          }}
        />
        {POINTED.map(({ by, words, now }) => {
          const pressed = pointing?.by === by;
          return (
            <Button key={by} size="small" variant="outlined" aria-pressed={pressed} onClick={() => point(by)}>
              {pressed ? now : words}
            </Button>
          );
        })}
        {WHOLE.map(({ by, words }) => (
          <Button
            key={by}
            size="small"
            variant="outlined"
            onClick={() => dispatch(edit(addPiece(id, { by }, leaveOut)))}
          >
            {words}
          </Button>
        ))}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, fontSize: '0.8125rem' }}>
        <span id="feather">its edge fades over</span>
        <Slider
          size="small"
          aria-labelledby="feather"
          min={0}
          max={WIDEST}
          step={STEP}
          value={featherPart}
          getAriaValueText={percentOfWidth}
          onChange={(_, value) =>
            dispatch(
              edit(
                changePlate(id, () => ({ featherPart: value as number })),
                'feather',
              ),
            )
          }
          sx={{ flex: 1 }}
        />
        <span className="number">{percentOfWidth(featherPart)}</span>
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
        To either side of the edge, part of the width of the frame.
      </Box>
    </Section>
  );
}

const percentOfWidth = (part: number): string => `${(100 * part).toFixed(1)} %`;
