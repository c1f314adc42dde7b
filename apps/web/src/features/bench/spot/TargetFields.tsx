import type { Spot } from '@fendrix/contract';
import { PAPER_WHITE_STOPS } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Choice } from '../../../shared/Choice';
import { WordsField } from '../../../shared/form/WordsField';
import { QuantityField } from '../../../shared/QuantityField';
import { changeSpot } from '../state/edits';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { parseTones, rangeWords } from './toneWords';

type Target = NonNullable<Spot['target']>;

/** Tones that are often wanted. */
const USUAL: readonly { words: string; target: Target }[] = [
  { words: 'label +0.3', target: { from: 0.1, to: 0.5 } },
  { words: 'white background', target: { from: PAPER_WHITE_STOPS, to: PAPER_WHITE_STOPS + 0.8 } },
  { words: 'black background', target: { from: -20, to: -5 } },
  { words: 'holds detail', target: { from: -4, to: PAPER_WHITE_STOPS } },
];

/** Name of a spot and the tone wanted there, from mid-tone or from another spot. */
export function TargetFields({ name }: { name: string }) {
  const spots = useSetPart((set) => set.spots);
  const dispatch = useBenchDispatch();
  const spot = spots.find((own) => own.name === name);
  if (!spot) return null;
  const { target } = spot;
  const put = (changed: Target | undefined) => {
    const { target: _old, ...rest } = spot;
    dispatch(
      edit((set) => ({
        ...set,
        spots: set.spots.map((own) =>
          own.name !== name ? own : changed ? { ...rest, target: changed } : rest,
        ),
      })),
    );
  };
  return (
    <Box sx={{ mt: 1, borderTop: 1, borderColor: 'divider', pt: 0.5 }}>
      <WordsField
        label="name"
        value={name}
        live={false}
        onCommit={(words) => dispatch(edit(changeSpot(name, { name: words.trim() })))}
      />
      <Box sx={{ color: 'text.secondary', mt: 0.5 }}>Tone wanted here</Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
        {USUAL.map(({ words, target: usual }) => (
          <Button key={words} size="small" variant="outlined" sx={{ py: 0 }} onClick={() => put(usual)}>
            {words}
          </Button>
        ))}
        {target && (
          <Button size="small" sx={{ py: 0 }} onClick={() => put(undefined)}>
            none
          </Button>
        )}
      </Box>
      {target && (
        <QuantityField
          label="wanted"
          shown={rangeWords(target)}
          parse={parseTones}
          example="+0.3, or +0.5 to +1.3"
          onCommit={(tones) => put({ ...target, ...tones })}
        />
      )}
      {target && (
        <Choice
          label="counted from"
          shown
          value={target.against ?? ''}
          options={[
            { value: '', words: 'mid-tone' },
            ...spots.flatMap((own) => (own.name === name ? [] : [{ value: own.name, words: own.name }])),
          ]}
          onChoose={(against) => {
            const { against: _against, ...rest } = target;
            put(against === '' ? rest : { ...rest, against });
          }}
        />
      )}
    </Box>
  );
}
