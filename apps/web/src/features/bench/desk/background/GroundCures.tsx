import type { Light, SetDocument } from '@fendrix/contract';
import {
  evenedGround,
  type FieldTrace,
  frameLevels,
  type GroundChange,
  goodsFollowGround,
  groundLight,
  groundLights,
  type Overlap,
  poweredForGround,
  powersForGround,
  traceKey,
  vector,
  veiledDarkest,
} from '@fendrix/core';
import { groundChangeWords, powersWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { useMemo, useState } from 'react';
import { useStore } from 'react-redux';
import { useEquipment } from '../../../kit';
import { useSession } from '../../picture/useSession';
import { benchSet, type WithBench } from '../../state/benchSlice';
import { freeTag } from '../../state/edits';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { tellFailure } from '../../state/tellFailure';
import { edit } from '../../state/thunks';
import { readFrame } from './readFrame';

interface GroundCuresProps {
  field: FieldTrace;
  level: number;
  /** The tone at which it is white against the products, stops from mid-tone. */
  wanted: number;
  /** Part of the mean of the frame that the lens spreads over all of it. */
  veil: number;
}

/** What lights the ground, and buttons that make it white or even with the least change, with what each does to the products. */
export function GroundCures({ field, level, wanted, veil }: GroundCuresProps) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const rows = useMemo(() => groundLights(set, field), [set, field]);
  const toWhite = useMemo(() => powersForGround(set, field, wanted), [set, field, wanted]);
  const evened = useMemo(() => evenedGround(set, field), [set, field]);
  const take = (change: GroundChange) => dispatch(edit((old) => withPowers(old, change)));
  const wordsFor = (change: GroundChange) => wordsOf(set, field, change, veil);
  return (
    <Box sx={{ fontSize: '0.8125rem', mb: 1 }} data-testid="ground-lights">
      {rows.map(({ tag, ofGround, ofProducts }) => (
        <div key={tag}>
          {tag} gives {Math.round(100 * ofGround)} % of the background and {Math.round(100 * ofProducts)} % of
          the products.
        </div>
      ))}
      {evened && (
        <Cure
          said={`${evened.stronger} gives the background ${evened.byStops.toFixed(1)} stops more than ${evened.weaker}: one side is brighter.`}
          press={`Even them: ${powersWords(evened.change.powers)}`}
          words={wordsFor(evened.change)}
          onTake={() => take(evened.change)}
        />
      )}
      {toWhite && Math.abs(wanted - level) > 0.05 && toWhite.powers.length > 0 && (
        <Cure
          said={toWhite.limited ? 'A light runs out on the way: this is as near as it comes.' : ''}
          press={`Make it white: ${powersWords(toWhite.powers)}`}
          words={wordsFor(toWhite)}
          onTake={() => take(toWhite)}
        />
      )}
      {goodsFollowGround(rows) ? (
        <div>
          Products and background take their light from the same lights, as clear products do that show the
          background: they cannot stay as they are while it becomes white.
        </div>
      ) : (
        rows.every(({ own }) => !own) && set.backdrop && <OwnLights wanted={wanted} />
      )}
    </Box>
  );
}

function Cure({
  said,
  press,
  words,
  onTake,
}: {
  said: string;
  press: string;
  words: string;
  onTake(): void;
}) {
  return (
    <Box sx={{ mt: 0.5 }}>
      {said && <div>{said}</div>}
      <Button size="small" variant="outlined" onClick={onTake}>
        {press}
      </Button>
      <Box sx={{ color: 'text.secondary' }}>{words}</Box>
    </Box>
  );
}

/** What a change does to the ground, to the products and to the darkest part of them, with the veil of the lens. */
function wordsOf(set: SetDocument, field: FieldTrace, change: GroundChange, veil: number): string {
  const darkest = (of: SetDocument) => veiledDarkest(frameLevels(of, field), veil);
  return groundChangeWords(change, { before: darkest(set), after: darkest(withPowers(set, change)) });
}

function withPowers(set: SetDocument, { powers }: GroundChange): SetDocument {
  const lights = set.lights.map((light) => {
    const own = powers.find(({ tag }) => tag === light.tag);
    return own ? { ...light, powerStops: own.powerStops } : light;
  });
  return { ...set, lights };
}

/** Lights of its own for a ground that has none, at the power that makes it white. */
function OwnLights({ wanted }: { wanted: number }) {
  const set = useSet();
  const session = useSession();
  const dispatch = useBenchDispatch();
  const store = useStore<WithBench>();
  const { enqueueSnackbar } = useSnackbar();
  const [busy, setBusy] = useState(false);
  const kitLights = useEquipment()?.lights ?? [];

  /** At either side of the backdrop, where the room has place for it. */
  async function add() {
    const added: Light[] = [];
    for (const side of [-1, 1] as const) {
      const tag = freeTag({ ...set, lights: [...set.lights, ...added] }, 'light');
      const light = tag && groundLight(set, tag, side, kitLights);
      if (light) added.push(light);
    }
    if (added.length === 0 || !session) {
      enqueueSnackbar('There is no place for a light before the background.', { variant: 'warning' });
      return;
    }
    setBusy(true);
    const bare = { ...set, takes: [] };
    let clear: Light[];
    let read: FieldTrace | null;
    try {
      const overlaps = await session.ask(
        { kind: 'overlaps' },
        { ...bare, lights: [...set.lights, ...added] },
      );
      clear = added.map((light) => movedOut(light, overlaps ?? []));
      read = await readFrame(session, { ...bare, lights: [...set.lights, ...clear] });
    } catch (error) {
      tellFailure('The light of the background', error);
      return;
    } finally {
      setBusy(false);
    }
    const present = benchSet.documentOf(store.getState());
    if (!read || !present) return;
    if (traceKey(present) !== traceKey(set)) {
      enqueueSnackbar('The set has moved meanwhile: ask for the lights again.', { variant: 'warning' });
      return;
    }
    // With the powers and settings of now: they may have been changed while it was traced.
    const lights = poweredForGround(present, clear, read, wanted);
    if (!lights) return;
    dispatch(edit((old) => ({ ...old, lights: [...old.lights, ...lights] })));
  }

  return (
    <Button size="small" variant="outlined" disabled={busy} onClick={() => void add()}>
      {busy ? 'Being traced' : 'Give the background lights of its own'}
    </Button>
  );
}

/** A light out of what it would go through, where there is a way. */
function movedOut<L extends Light>(light: L, overlaps: readonly Overlap[]): L {
  const move = overlaps.find(({ kind, key }) => kind === 'light' && key === light.tag)?.wayOutM;
  return move && 'positionM' in light ? { ...light, positionM: vector.add(light.positionM, move) } : light;
}
