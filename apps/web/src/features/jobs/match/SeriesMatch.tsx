import type { Frame, FrameFigures } from '@fendrix/contract';
import { type SeriesFigure, seriesMatch } from '@fendrix/core';
import { seriesChangeWords, seriesFigureName, seriesOffWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import Switch from '@mui/material/Switch';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { failureMessage } from '../../../shared/api';
import { Choice } from '../../../shared/Choice';
import { PlainTable } from '../../../shared/PlainTable';
import { Section } from '../../../shared/Section';
import { jobsApi } from '../api';
import { framesApi } from '../frames/framesApi';
import { useJob } from '../state/openJob';
import { RegisteredFrame } from './RegisteredFrame';

const MOST = 200;
const OWN = '';

/** Kept frames beside the one that they are to be like: what is off, and what to change where they are taken again. */
export function SeriesMatch() {
  const { jobId = '' } = useParams();
  const [otherJob, setOtherJob] = useState(OWN);
  const [chosen, setChosen] = useState('');
  const [isRegistered, setIsRegistered] = useState(false);
  const jobs = jobsApi.useListJobsQuery({ search: '', offset: 0, limit: 50, archived: 'no' });
  const own = useKept(jobId);
  const others = useKept(otherJob === OWN ? jobId : otherJob);
  const nameOf = useNames();
  const reference = others.frames.find(({ id }) => id === chosen) ?? others.frames[0];
  const there = framesApi.useReadFiguresQuery(reference?.id ?? '', { skip: !reference });
  if (own.error) return <Alert severity="error">{failureMessage(own.error)}</Alert>;
  if (!own.isRead) return <LinearProgress aria-label="The frames are being read" />;
  return (
    <>
      <Box sx={{ mb: 1, '@media print': { display: 'none' } }}>
        <Button component={Link} to={`/jobs/${jobId}/frames`} size="small" variant="outlined" color="inherit">
          Back to the frames
        </Button>
      </Box>
      {own.frames.length === 0 ? (
        <Box sx={{ color: 'text.secondary', maxWidth: 640 }}>
          No frame of this job is kept yet. Keep the good ones (K) among its frames; then it stands here how
          far they are alike, and what to change where one is taken again.
        </Box>
      ) : (
        <>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, mb: 1, '& > *': { minWidth: 320 } }}>
            <Choice
              shown
              label="To be like a frame of"
              value={otherJob}
              options={[
                { value: OWN, words: 'this job' },
                ...(jobs.data?.jobs ?? [])
                  .filter(({ id }) => id !== jobId)
                  .map(({ id, name }) => ({ value: id, words: name })),
              ]}
              onChoose={(next) => {
                setOtherJob(next);
                setChosen('');
              }}
            />
            {reference && (
              <Choice
                shown
                label="This one"
                value={reference.id}
                options={others.frames.map((frame, index) => ({
                  value: frame.id,
                  words: `${nameOf(frame)}, ${frame.name}${index === 0 ? ', the first' : ''}`,
                }))}
                onChoose={setChosen}
              />
            )}
            <FormControlLabel
              control={
                <Switch size="small" checked={isRegistered} onChange={(_, on) => setIsRegistered(on)} />
              }
              label="laid so that foot and height agree"
            />
          </Box>
          {!reference && others.isRead && <Box>That job has no kept frame.</Box>}
          {there.error && <Alert severity="error">{failureMessage(there.error)}</Alert>}
          {there.isFetching && (
            <Box role="status">
              The frame they are to be like is being measured.
              <LinearProgress aria-label="The frame to be like is being measured" />
            </Box>
          )}
          {reference && there.currentData && (
            <Frames
              frames={own.frames}
              reference={reference}
              there={there.currentData}
              isRegistered={isRegistered}
              nameOf={nameOf}
            />
          )}
        </>
      )}
    </>
  );
}

/** Kept frames of a job that are whole pictures, the oldest first. */
function useKept(job: string): { frames: Frame[]; isRead: boolean; error: unknown } {
  const { currentData, error } = framesApi.useListFramesQuery({ job, limit: MOST, offset: 0 });
  const frames = (currentData?.frames ?? [])
    .filter(({ state, plate, gone }) => state === 'kept' && plate === null && !gone)
    .reverse();
  return { frames, isRead: currentData !== undefined, error };
}

function useNames(): (frame: Frame) => string {
  const { shots } = useJob();
  return ({ shot, name }) => shots.find(({ id }) => id === shot)?.name ?? name;
}

interface Held {
  frame: Frame;
  figures: readonly SeriesFigure[];
}

function Frames({
  frames,
  reference,
  there,
  isRegistered,
  nameOf,
}: {
  frames: readonly Frame[];
  reference: Frame;
  there: FrameFigures;
  isRegistered: boolean;
  nameOf(frame: Frame): string;
}) {
  const [held, setHeld] = useState<ReadonlyMap<string, Held>>(new Map());
  const others = frames.filter(({ id }) => id !== reference.id);
  const known = others.flatMap(({ id }) => held.get(`${id} ${reference.id}`) ?? []);
  const redo = known.filter(({ figures }) => figures.some(({ isOff }) => isOff));
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(280px, 1fr))',
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box>
          <RegisteredFrame frame={reference} own={there} there={there} isRegistered={isRegistered} />
          <Box sx={{ fontWeight: 650 }}>{nameOf(reference)}</Box>
          <Box sx={{ fontSize: '0.8125rem' }}>They are to be like this one.</Box>
        </Box>
        {others.map((frame) => (
          <HeldFrame
            key={`${frame.id} ${reference.id}`}
            frame={frame}
            there={there}
            isRegistered={isRegistered}
            name={nameOf(frame)}
            onHeld={(figures) =>
              setHeld((now) => new Map(now).set(`${frame.id} ${reference.id}`, { frame, figures }))
            }
          />
        ))}
      </Box>
      <Section
        title={
          known.length < others.length
            ? `Redo these: ${known.length} of ${others.length} measured`
            : 'Redo these'
        }
      >
        {redo.length === 0 ? (
          <Box sx={{ color: 'text.secondary' }}>
            {others.length === 0
              ? 'Nothing else is kept yet.'
              : known.length < others.length
                ? 'None so far.'
                : 'None: all are alike in what was measured.'}
          </Box>
        ) : (
          <PlainTable name="redo these">
            <thead>
              <tr>
                <th scope="col">Picture</th>
                <th scope="col">What to change</th>
              </tr>
            </thead>
            <tbody>
              {redo.map(({ frame, figures }) => (
                <tr key={frame.id}>
                  <th scope="row">
                    {nameOf(frame)}, {frame.name}
                  </th>
                  <td>
                    <ul style={{ margin: 0, paddingLeft: 18 }}>
                      {[...new Set(figures.filter(({ isOff }) => isOff).map(redoWords))].map((words) => (
                        <li key={words}>{words}</li>
                      ))}
                    </ul>
                  </td>
                </tr>
              ))}
            </tbody>
          </PlainTable>
        )}
      </Section>
    </>
  );
}

/** What to do about a figure that is off. */
const redoWords = ({ code, off, change }: SeriesFigure): string =>
  change
    ? seriesChangeWords(change)
    : `${seriesFigureName(code)} ${seriesOffWords({ code, off })}: white balance or gels`;

/** One frame, measured when it is its turn, with what of it is off. */
function HeldFrame({
  frame,
  there,
  isRegistered,
  name,
  onHeld,
}: {
  frame: Frame;
  there: FrameFigures;
  isRegistered: boolean;
  name: string;
  onHeld(figures: readonly SeriesFigure[]): void;
}) {
  const { currentData: here, error } = framesApi.useReadFiguresQuery(frame.id);
  const figures = useMemo(() => (here ? seriesMatch(here, there) : null), [here, there]);
  const tell = useRef(onHeld);
  tell.current = onHeld;
  useEffect(() => {
    if (figures) tell.current(figures);
  }, [figures]);
  return (
    <Box role="group" aria-label={`${name}, ${frame.name}`}>
      <RegisteredFrame frame={frame} own={here ?? null} there={there} isRegistered={isRegistered} />
      <Box sx={{ fontWeight: 650 }}>{name}</Box>
      {error && <Alert severity="warning">{failureMessage(error)}</Alert>}
      {!figures && !error && <LinearProgress aria-label={`${frame.name} is being measured`} />}
      {figures && (
        <PlainTable name={`figures ${frame.name}`}>
          <tbody>
            {figures.map(({ code, off, isOff }) => (
              <tr key={code}>
                <th scope="row" style={{ fontWeight: isOff ? 650 : 400 }}>
                  {seriesFigureName(code)}
                </th>
                <td className="number" style={{ fontWeight: isOff ? 650 : 400 }}>
                  {seriesOffWords({ code, off }) ?? 'not told'}
                  {isOff && ' · off'}
                </td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
      )}
    </Box>
  );
}
