import type { Shot } from '@fendrix/contract';
import { minutesTaken } from '@fendrix/core';
import { durationWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useParams } from 'react-router';
import { PlainTable } from '../../../shared/PlainTable';
import { Section } from '../../../shared/Section';
import { framesApi } from '../frames/framesApi';
import { useDayAtHand } from './dayAtHand';

/** Frames that are looked through for what is kept of each picture. */
const MOST_FRAMES = 500;

/** Pictures that are taken: how long each took against its plan, what was tried, what is kept. */
export function TakenTable() {
  const { jobId = '' } = useParams();
  const { job, act } = useDayAtHand();
  const taken = job.shots.filter(({ done }) => done);
  const { data } = framesApi.useListFramesQuery(
    { job: jobId, limit: MOST_FRAMES, offset: 0 },
    { skip: taken.length === 0 },
  );
  if (taken.length === 0) return null;
  const framesOf = ({ id }: Shot) => data?.frames.filter(({ shot }) => shot === id) ?? [];
  return (
    <Section title={`Taken (${taken.length} of ${job.shots.length})`}>
      <PlainTable name="taken">
        <thead>
          <tr>
            <th scope="col">Picture</th>
            <th scope="col">Took</th>
            <th scope="col">Planned</th>
            <th scope="col">Not kept</th>
            <th scope="col">Frames, kept</th>
            <th scope="col">
              <Box component="span" sx={{ position: 'absolute', clip: 'rect(0 0 0 0)' }}>
                Take back
              </Box>
            </th>
          </tr>
        </thead>
        <tbody>
          {taken.map((shot) => {
            const took = minutesTaken(shot);
            const frames = framesOf(shot);
            const rejected = frames.filter(({ state }) => state === 'rejected').length;
            return (
              <tr key={shot.id}>
                <th scope="row">{shot.name}</th>
                <td>{took === null ? 'not told' : durationWords(took)}</td>
                <td>{durationWords(shot.minutes)} for the picture</td>
                <td className="number">{Math.max(shot.tries, rejected)}</td>
                <td className="number">
                  {frames.length}, {frames.filter(({ state }) => state === 'kept').length}
                </td>
                <td>
                  <Button
                    size="small"
                    aria-label={`${shot.name}: not taken yet`}
                    onClick={() =>
                      act({
                        kind: 'taken',
                        shot: shot.id,
                        done: false,
                        ...(job.day.stands === undefined ? {} : { stands: job.day.stands }),
                      })
                    }
                  >
                    Not taken yet
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </PlainTable>
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        What a picture took goes from the first step of its set until it was marked as taken. Not kept:
        counted at the table, or frames that were put aside.
      </Box>
    </Section>
  );
}
