import type { SetDocument } from '@fendrix/contract';
import type { Verdict } from '@fendrix/core';
import { figureWords, verdictTitle } from '@fendrix/words';
import Box from '@mui/material/Box';
import { openOf, useVerdictsOf } from '../../../shared/render/useVerdictsOf';
import { surround } from '../../../shared/theme';
import { useJudgedBy } from '../../kit';

interface ComparedVerdictsProps {
  before: SetDocument;
  after: SetDocument;
  name: string;
  other: string;
}

/** What is wrong with either of two sets, side by side: what went, what came, what got better or worse. */
export function ComparedVerdicts({ before, after, name, other }: ComparedVerdictsProps) {
  const by = useJudgedBy();
  const [was, is] = [useVerdictsOf(before, by, 'now'), useVerdictsOf(after, by, 'now')];
  const failed = was === 'failed' || is === 'failed';
  const rows = was && is && !failed ? rowsOf(openOf(was), openOf(is)) : null;
  return (
    <Box
      data-testid="compared-verdicts"
      tabIndex={0}
      role="region"
      aria-label="Verdicts compared"
      sx={{ position: 'absolute', inset: '0 0 34px', overflow: 'auto', p: 1.5, color: surround.text }}
    >
      {failed && <Box role="alert">One of the two cannot be judged: go back to it to see why.</Box>}
      {!failed && !rows && <Box role="status">Both are being judged</Box>}
      {rows?.length === 0 && <Box role="status">Nothing is wrong with either.</Box>}
      {rows && rows.length > 0 && (
        <Box
          component="table"
          sx={{ width: '100%', borderCollapse: 'collapse', '& th, & td': { textAlign: 'left', p: 0.5 } }}
        >
          <thead>
            <tr>
              <th scope="col">Verdict</th>
              <th scope="col">{name}</th>
              <th scope="col">{other}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ id, title, was, is }) => (
              <tr key={id}>
                <th scope="row" style={{ fontWeight: 400 }}>
                  {title}
                </th>
                <td className="number">{was ?? 'well'}</td>
                <Box
                  component="td"
                  className="number"
                  sx={{ color: is === null ? surround.accent : was === null ? surround.caution : undefined }}
                >
                  {is ?? 'well'}
                </Box>
              </tr>
            ))}
          </tbody>
        </Box>
      )}
    </Box>
  );
}

function rowsOf(before: readonly Verdict[], after: readonly Verdict[]) {
  const ids = [...new Set([...before, ...after].map(({ id }) => id))];
  return ids.flatMap((id) => {
    const [was, is] = [before, after].map((list) => list.find((verdict) => verdict.id === id));
    const verdict = is ?? was;
    if (!verdict) return [];
    const words = (own: Verdict | undefined) => (own ? figureWords(own.figure) : null);
    return [{ id, title: verdictTitle(verdict), was: words(was), is: words(is) }];
  });
}
