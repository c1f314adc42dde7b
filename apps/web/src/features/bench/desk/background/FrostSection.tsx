import {
  formatLength,
  formatStops,
  frostLampDistanceM,
  type GradientAnswer,
  type GradientWish,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Choice } from '../../../../shared/Choice';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { takeSolved } from '../../band/useBandPlacing';
import { useSession } from '../../picture/useSession';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { stopsQuantity } from '../stopsQuantity';
import { TaggedChoice } from '../TaggedChoice';

const ENDS: readonly GradientWish['bright'][] = ['bottom', 'top', 'left', 'right', 'middle'];

/** Stands a lamp behind frost for the gradient that is wanted. */
export function FrostSection() {
  const set = useSet();
  const { session } = useSession();
  const dispatch = useBenchDispatch();
  const frosts = set.sheets.filter(
    (sheet) =>
      'widthM' in sheet && 'heightM' in sheet && sheet.front.kind === 'translucent' && sheet.kind !== 'tent',
  );
  const lights = set.lights.filter(({ kind }) => kind !== 'surround' && kind !== 'window');
  const [tag, setTag] = useState('');
  const [sheetTag, setSheetTag] = useState('');
  const [bright, setBright] = useState<GradientWish['bright']>('bottom');
  const [stops, setStops] = useState(3);
  const [answer, setAnswer] = useState<GradientAnswer | null>(null);
  const [busy, setBusy] = useState(false);
  const light = lights.find((own) => own.tag === tag) ?? lights[0];
  const sheet = frosts.find((own) => own.tag === sheetTag) ?? frosts[0];
  if (!sheet || !light) {
    return (
      <Section title="Gradient by a lamp behind frost">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Put a frame of frost and a light on the set first: press A and look for gradient.
        </Box>
      </Section>
    );
  }
  const length =
    'heightM' in sheet ? (bright === 'left' || bright === 'right' ? sheet.widthM : sheet.heightM) : 1;

  async function solve(wish: GradientWish) {
    setBusy(true);
    setAnswer((await session?.ask({ kind: 'gradient', wish }).catch(() => null)) ?? null);
    setBusy(false);
  }

  return (
    <Section title="Gradient by a lamp behind frost">
      <TaggedChoice label="lamp" things={lights} value={light.tag} onChoose={setTag} />
      <TaggedChoice label="frost" things={frosts} value={sheet.tag} onChoose={setSheetTag} />
      <Choice label="bright at its" shown value={bright} options={ENDS} onChoose={setBright} />
      <QuantityField
        label="bright over dark end"
        shown={formatStops(stops)}
        parse={(text) => {
          const value = stopsQuantity.parse(text);
          return value !== null && value > 0.1 && value < 12 ? value : null;
        }}
        example="3"
        onCommit={setStops}
      />
      <Box sx={{ fontSize: '0.75rem', color: 'text.secondary', my: 0.5 }}>
        By the ideal sheet (cos⁴/d²) the lamp would stand{' '}
        {formatLength(frostLampDistanceM(bright === 'middle' ? length / 2 : length, stops))} behind its bright
        end; its beam and the haze of the frost are then traced.
      </Box>
      <Button
        size="small"
        variant="outlined"
        disabled={busy}
        onClick={() => void solve({ light: light.tag, sheet: sheet.tag, bright, differenceStops: stops })}
      >
        Find the place
      </Button>
      {answer && (
        <Box sx={{ mt: 1, fontSize: '0.8125rem' }} role="status" data-testid="gradient">
          {formatLength(answer.lampDistanceM)} behind the frost: {formatStops(answer.reachedStops)} from end
          to end, as traced.
          {answer.limited === 'nearest' &&
            ' It cannot fall off faster: the lamp stands as near as it can, or is too large or too well spread.'}
          {answer.limited === 'farthest' && ' It falls off more than that even from far: take denser frost.'}
          <Button size="small" onClick={() => dispatch(edit(takeSolved(answer.set)))}>
            Stand it there
          </Button>
        </Box>
      )}
    </Section>
  );
}
