import type { SettledVerdict } from '@fendrix/contract';
import { applyChange, overlapName, type TriedCure, type Verdict } from '@fendrix/core';
import {
  changeWords,
  clashWords,
  figureWords,
  harmWords,
  sideEffectWords,
  verdictReason,
  workingWords,
} from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { Tag } from '../../../shared/Tag';
import { benchActions } from '../state/benchSlice';
import { useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';
import { type Answer, takeChange } from '../state/useAnswer';
import { ShowChange } from './ShowChange';
import { useCures } from './useCures';
import { useJudged } from './verdictsContext';

/** Of cures that are still being tried so many are shown. */
const MOST_AT_FIRST = 4;

/** Why, what would mend it, each tried out, and what else can be said of it. */
export function VerdictDetail({ verdict }: { verdict: Verdict }) {
  const dispatch = useBenchDispatch();
  const { answer, soFar, busy, done, drop } = useCures(verdict);
  const set = useSet();
  const { id, causes, minutes, code, figure } = verdict;
  const limits = useJudged()?.evidence.limits;
  const uncertain = figureWords({ ...figure, value: figure.error }).replace(/^\+/, '');
  const settle = (as: SettledVerdict['as']) =>
    dispatch(
      edit((set) => ({
        ...set,
        settled: [
          ...set.settled.filter((own) => own.verdict !== id),
          { verdict: id, as, note: '', ...(as === 'retouching' ? { minutes: minutes.retouching ?? 0 } : {}) },
        ],
      })),
    );
  return (
    <Box sx={{ pb: 1, fontSize: '0.75rem' }}>
      {verdict.danger && (
        <Alert role="note" severity="warning" sx={{ py: 0, px: 1, mb: 0.5, fontSize: '0.75rem' }}>
          {verdictReason(code)} Local codes and qualified people come first.
        </Alert>
      )}
      {causes.length > 0 && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}>
          Because of
          {causes.slice(0, 4).map(({ thing, part }) => (
            <Box component="span" key={`${thing.kind} ${thing.key}`} sx={{ whiteSpace: 'nowrap' }}>
              {thing.kind === 'light' || thing.kind === 'sheet' ? <Tag>{thing.key}</Tag> : thing.name}
              {part !== null && ` ${Math.round(100 * part)} %`}
            </Box>
          ))}
        </Box>
      )}
      <Box sx={{ color: 'text.secondary', my: 0.5 }}>
        {!verdict.danger && verdictReason(code)}
        {/[1-9]/.test(uncertain) && ` Uncertain by ${uncertain}.`}
        <Box>{workingWords(verdict)}</Box>
        {limits && <Box>{harmWords(verdict, limits[code])}</Box>}
      </Box>
      {busy && (
        <Box role="status">
          Cures are being tried
          <LinearProgress
            variant="determinate"
            value={100 * done}
            aria-label="Cures being tried"
            sx={{ my: 0.5 }}
          />
          <Button size="small" onClick={drop}>
            Stop
          </Button>
        </Box>
      )}
      {busy && soFar.length > 0 && (
        <Cures answer={{ found: soFar.slice(0, MOST_AT_FIRST), old: false, set }} />
      )}
      {answer && <Cures answer={answer} />}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.5 }}>
        <Button size="small" color="inherit" onClick={() => settle('wanted')}>
          I want this
        </Button>
        {minutes.retouching !== null && (
          <Button size="small" color="inherit" onClick={() => settle('retouching')}>
            Leave for retouching, {minutes.retouching} min
          </Button>
        )}
      </Box>
    </Box>
  );
}

function Cures({ answer: { found, old, set } }: { answer: Answer<readonly TriedCure[]> }) {
  const now = useSet();
  const dispatch = useBenchDispatch();
  if (old) return <Box role="status">The set has moved: its cures are tried again once it rests.</Box>;
  if (!found || found.length === 0)
    return (
      <Box role="status">None of the usual cures takes it away here by itself. Try several together.</Box>
    );
  return (
    <Box component="ul" data-testid="cures" sx={{ m: 0, p: 0, listStyle: 'none' }}>
      {found.map((cure) => {
        const after = applyChange(now, cure.change) ?? applyChange(set, cure.change);
        const words = after ? changeWords(now, after) : 'Change it';
        return (
          <Box component="li" key={JSON.stringify(cure.change)} sx={{ mb: 0.75 }}>
            <Button
              size="small"
              variant="outlined"
              sx={{ textAlign: 'left' }}
              onClick={() => {
                dispatch(benchActions.compared(null));
                dispatch(takeChange(cure.change));
              }}
            >
              {words}
            </Button>
            <ShowChange change={cure.change} words={words} />
            <Box sx={{ color: 'text.secondary' }}>
              {cure.left === null ? 'Takes it away.' : `Leaves ${figureWords(cure.left)} of it.`}
              {cure.onBalance > 0 && (
                <Box sx={{ color: 'warning.main' }}>It does more harm elsewhere than good here.</Box>
              )}
              {cure.clashes.map((clash) => (
                <Box key={overlapName(clash)} sx={{ color: 'warning.main' }}>
                  {clashWords(clash)}
                </Box>
              ))}
              {cure.sideEffects.map((effect) => (
                <Box
                  key={effect.verdict.id}
                  sx={{ color: effect.harm > 0 ? 'warning.main' : 'text.secondary' }}
                >
                  {sideEffectWords(effect)}
                </Box>
              ))}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
