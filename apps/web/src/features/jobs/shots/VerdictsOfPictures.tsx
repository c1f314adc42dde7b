import type { SetDocument, Shot } from '@fendrix/contract';
import type { VerdictCode } from '@fendrix/core';
import { settledName, verdictTitle } from '@fendrix/words';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { Link as RouterLink } from 'react-router';
import { PlainTable } from '../../../shared/PlainTable';
import { openOf, useVerdictsOf } from '../../../shared/render/useVerdictsOf';
import { Section } from '../../../shared/Section';
import { useJudgedBy } from '../../kit';
import { setsApi } from '../../sets';

/** What is still wrong with each picture that is set up, and what is left for retouching, with its minutes. */
export function VerdictsOfPictures({ shots }: { shots: readonly Shot[] }) {
  const staged = shots.filter(({ setId }) => setId !== undefined);
  if (staged.length === 0) return null;
  return (
    <Section title="Verdicts and retouching">
      <PlainTable name="picture-verdicts">
        <thead>
          <tr>
            <th scope="col">Picture</th>
            <th scope="col">Open verdicts</th>
            <th scope="col">Left for retouching</th>
            <th scope="col">Minutes</th>
          </tr>
        </thead>
        <tbody>
          {staged.map((shot) => (
            <PictureRow key={shot.id} shot={shot} />
          ))}
          <RetouchingSum setIds={[...new Set(staged.map(({ setId }) => setId as string))]} />
        </tbody>
      </PlainTable>
    </Section>
  );
}

const retouchingOf = (set: SetDocument | undefined) =>
  set?.settled.filter(({ as }) => as === 'retouching') ?? [];
const minutesOf = (set: SetDocument | undefined): number =>
  retouchingOf(set).reduce((sum, { minutes }) => sum + (minutes ?? 0), 0);

function PictureRow({ shot }: { shot: Shot }) {
  const { data, error } = setsApi.useReadSetQuery(shot.setId as string);
  const set = data?.document;
  const bare = useMemo(() => (set ? { ...set, takes: [] } : null), [set]);
  const verdicts = useVerdictsOf(bare, useJudgedBy());
  const open = verdicts && verdicts !== 'failed' ? openOf(verdicts) : null;
  const left = retouchingOf(set);
  return (
    <tr>
      <th scope="row" style={{ fontWeight: 400 }}>
        <Link component={RouterLink} to={`/sets/${shot.setId}`} color="inherit">
          {shot.name}
        </Link>
      </th>
      <td>
        {error ? (
          'Its set is not there any more.'
        ) : verdicts === 'failed' ? (
          'It cannot be judged: open its set to see why.'
        ) : open === null ? (
          <span role="status">being judged</span>
        ) : open.length === 0 ? (
          'none'
        ) : (
          <>
            {open.length}: {open.slice(0, 3).map(verdictTitle).join('; ')}
            {open.length > 3 && ' …'}
          </>
        )}
      </td>
      <td>
        {left.length === 0
          ? 'nothing'
          : left.map(({ verdict }) => settledName(verdict.split(' | ')[0] as VerdictCode)).join(', ')}
      </td>
      <td className="number">{left.length === 0 ? '' : minutesOf(set)}</td>
    </tr>
  );
}

/** Each set once, however many pictures are taken on it. */
function RetouchingSum({ setIds }: { setIds: readonly string[] }) {
  return (
    <tr>
      <th scope="row" colSpan={3}>
        Retouching in all
      </th>
      <td className="number" data-testid="retouching-minutes">
        <SumOf setIds={setIds} sum={0} />
      </td>
    </tr>
  );
}

/** Adds up the minutes of one set after the other, as they are read. */
function SumOf({ setIds: [first, ...rest], sum }: { setIds: readonly string[]; sum: number }) {
  const { data } = setsApi.useReadSetQuery(first ?? '', { skip: first === undefined });
  if (first === undefined) return <Typography component="span">{sum}</Typography>;
  return <SumOf setIds={rest} sum={sum + minutesOf(data?.document)} />;
}
