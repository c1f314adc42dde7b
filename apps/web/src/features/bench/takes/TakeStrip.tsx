import type { SetDocument, Take } from '@fendrix/contract';
import { setOfTake, standingOf } from '@fendrix/core';
import { changeWords } from '@fendrix/words';
import PushPinIcon from '@mui/icons-material/PushPin';
import PushPinOutlinedIcon from '@mui/icons-material/PushPinOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import Popover from '@mui/material/Popover';
import { memo, useMemo, useState } from 'react';
import { WordsField } from '../../../shared/form/WordsField';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { openOf, useVerdictsOf } from '../../../shared/render/useVerdictsOf';
import { surround } from '../../../shared/theme';
import { useJudgedBy } from '../../kit';
import { benchActions } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSet, useSetPart } from '../state/hooks';
import { changeTake, freeTake, keepTake, removeTake, restoreTake } from '../state/takes';
import { edit, editAsKept } from '../state/thunks';

const THUMB = 84;

/** The takes as a filmstrip, pinned ones first, each with what changed; pressing one opens what can be done with it. */
export const TakeStrip = memo(function TakeStrip() {
  const takes = useSetPart((set) => set.takes);
  const takeId = useSetPart((set) => set.takeId);
  const dispatch = useBenchDispatch();
  const [open, setOpen] = useState<{ anchor: HTMLElement; id: string } | null>(null);
  const shown = [...takes.filter(({ pinned }) => pinned), ...takes.filter(({ pinned }) => !pinned)];
  return (
    <Box
      component="section"
      aria-label="Takes"
      sx={{ display: 'flex', alignItems: 'stretch', gap: 1, minWidth: 0, overflow: 'hidden' }}
    >
      <Button
        size="small"
        onClick={() => dispatch(edit(keepTake(freeTake(takes))))}
        sx={{
          color: surround.text,
          bgcolor: surround.raised,
          flex: 'none',
          py: 0.5,
          '&:hover': { bgcolor: surround.raisedOver },
          lineHeight: 1.3,
        }}
      >
        Keep a take
        <Box component="span" className="number" sx={{ ml: 0.75, color: surround.accent }}>
          K
        </Box>
      </Button>
      {takes.length === 0 && (
        <Box sx={{ color: surround.quiet, alignSelf: 'center', fontSize: '0.8125rem' }}>
          A take keeps all that stands here and every setting. Keep one before each change: then compare, go
          back or branch.
        </Box>
      )}
      <Box
        component="ol"
        sx={{
          display: 'flex',
          gap: 1,
          m: 0,
          p: 0,
          listStyle: 'none',
          overflowX: 'auto',
          overflowY: 'hidden',
          minWidth: 0,
        }}
      >
        {shown.map((take) => (
          <TakeItem
            key={take.id}
            take={take}
            words={wordsOf(take, takes)}
            current={take.id === takeId}
            onOpen={(anchor) => setOpen({ anchor, id: take.id })}
          />
        ))}
      </Box>
      <Popover
        open={open !== null}
        anchorEl={open?.anchor ?? null}
        onClose={() => setOpen(null)}
        anchorOrigin={{ vertical: 'top', horizontal: 'left' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        {open && <TakeCard id={open.id} onClose={() => setOpen(null)} />}
      </Popover>
    </Box>
  );
});

/** What changed since the take it was made from, or since the one before. */
function wordsOf(take: Take, takes: readonly Take[]): string {
  const from = takes.find(({ id }) => id === take.from);
  return from ? changeWords(from.set, take.set, 3) : 'the first';
}

function TakeItem({
  take,
  words,
  current,
  onOpen,
}: {
  take: Take;
  words: string;
  current: boolean;
  onOpen(anchor: HTMLElement): void;
}) {
  const set = useMemo(() => setOfTake(take), [take]);
  return (
    <Box component="li" sx={{ flex: 'none', width: 208, height: 58 }}>
      <ButtonBase
        aria-haspopup="dialog"
        title={take.note}
        aria-label={`Take ${take.name}: ${words}${current ? '. The set was made from it' : ''}`}
        onClick={(event) => onOpen(event.currentTarget)}
        sx={{
          display: 'flex',
          gap: 0.75,
          width: '100%',
          height: '100%',
          textAlign: 'left',
          font: 'inherit',
          justifyContent: 'flex-start',
          alignItems: 'flex-start',
          color: surround.text,
          bgcolor: surround.sunken,
          borderBottom: `2px solid ${current ? surround.accent : 'transparent'}`,
        }}
      >
        <Box sx={{ width: THUMB, flex: 'none' }}>
          <SmallPicture set={set} label="" width={THUMB} samples={20} levelled={false} kept />
        </Box>
        <Box sx={{ minWidth: 0, py: 0.25, fontSize: '0.75rem', lineHeight: 1.25 }}>
          <Box
            sx={{
              fontWeight: 650,
              fontSize: '0.75rem',
              whiteSpace: 'nowrap',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
            }}
          >
            {take.pinned && <PushPinIcon sx={{ fontSize: 12, mr: 0.25, verticalAlign: '-2px' }} />}
            {take.name}
          </Box>
          <TakeVerdicts set={set} />
          <Box
            sx={{
              color: surround.quiet,
              display: '-webkit-box',
              WebkitLineClamp: 2,
              WebkitBoxOrient: 'vertical',
              overflow: 'hidden',
            }}
          >
            {words}
          </Box>
        </Box>
      </ButtonBase>
    </Box>
  );
}

/** How many verdicts a take calls for; nothing until it is judged, and of one that cannot be. */
const TakeVerdicts = memo(function TakeVerdicts({ set }: { set: SetDocument }) {
  const verdicts = useVerdictsOf(set, useJudgedBy());
  if (!verdicts || verdicts === 'failed') return null;
  const count = openOf(verdicts).length;
  return (
    <Box data-testid="take-verdicts" sx={{ color: count === 0 ? surround.quiet : surround.caution }}>
      {count === 0 ? 'nothing wrong' : `${count} ${count === 1 ? 'verdict' : 'verdicts'}`}
    </Box>
  );
});

function TakeCard({ id, onClose }: { id: string; onClose(): void }) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const compare = useBench((bench) => bench.compare);
  const take = set.takes.find((other) => other.id === id);
  const since = useMemo(() => (take ? changeWords(take.set, standingOf(set), 6) : ''), [take, set]);
  if (!take) return null;
  const from = set.takes.find((other) => other.id === take.from);
  const act = (work: () => void) => () => {
    work();
    onClose();
  };
  return (
    <Box
      sx={{ p: 1.5, width: 340, display: 'grid', gap: 1, fontSize: '0.8125rem' }}
      role="dialog"
      aria-label={`Take ${take.name}`}
    >
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Box sx={{ flex: 1 }}>
          <WordsField
            label="Name of the take"
            value={take.name}
            onCommit={(name, gesture) => dispatch(edit(changeTake(id, { name }), gesture))}
          />
        </Box>
        <IconButton
          size="small"
          aria-label={take.pinned ? 'Unpin' : 'Pin'}
          aria-pressed={take.pinned}
          onClick={() => dispatch(edit(changeTake(id, { pinned: !take.pinned })))}
        >
          {take.pinned ? <PushPinIcon fontSize="small" /> : <PushPinOutlinedIcon fontSize="small" />}
        </IconButton>
      </Box>
      <WordsField
        label="What to look for"
        value={take.note}
        multiline
        onCommit={(note, gesture) => dispatch(edit(changeTake(id, { note }), gesture))}
      />
      <div>
        {from ? `From ${from.name}: ${changeWords(from.set, take.set, 8)}.` : 'The first of its line.'}
      </div>
      <div>From it to now: {since}.</div>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button
          variant="outlined"
          size="small"
          onClick={act(() =>
            dispatch(benchActions.compared({ against: { kind: 'take', id }, mode: compare?.mode ?? 'wipe' })),
          )}
        >
          Compare with now
        </Button>
        <Button variant="outlined" size="small" onClick={act(() => dispatch(editAsKept(restoreTake(id))))}>
          Go back to it
        </Button>
        <Button size="small" color="inherit" onClick={act(() => dispatch(edit(removeTake(id))))}>
          Remove
        </Button>
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
        Going back changes the set and can be undone; what you keep from there branches off.
      </Box>
    </Box>
  );
}
