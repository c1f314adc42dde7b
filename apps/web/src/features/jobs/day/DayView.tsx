import type { Shot } from '@fendrix/contract';
import { clockMinutes, clockOf, type DayTime, type JobDay, timesOf } from '@fendrix/core';
import { durationWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import Typography from '@mui/material/Typography';
import { useParams } from 'react-router';
import { QuantityField } from '../../../shared/QuantityField';
import { changeRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { fileName, saveFile } from '../../../shared/saveFile';
import { JobDevices } from '../JobDevices';
import { minutesQuantity } from '../quantities';
import { useEditJob, useJob } from '../state/openJob';
import { BuildLists } from './BuildLists';
import { calendarOf } from './calendarOf';
import { DayTimeline } from './DayTimeline';
import { DeskDay, useDayAtHand } from './dayAtHand';
import { becauseOf, changesOf, csvOf, minutes } from './dayChanges';
import { OrderTable } from './OrderTable';
import { PackingList } from './PackingList';
import { PhonesAtTable } from './PhonesAtTable';
import { Stock } from './Stock';
import { TakenTable } from './TakenTable';
import { isToday, minutesNow, useEachMinute } from './today';
import { useBuildSteps } from './useBuildSteps';
import { useDay, useOrder } from './useDay';
import { WindowLight } from './WindowLight';

/** Of a lunch whose time is given first. */
const USUAL_LUNCH_MIN = 45;
/** Less is not late, minutes. */
const LATE_FROM_MIN = 5;

/** The day of a job: its pictures in the order in which it is over soonest, with the clock, what is done between, and why. */
export function DayView() {
  return (
    <DeskDay>
      <DayOfJob />
    </DeskDay>
  );
}

function DayOfJob() {
  const day = useDay();
  if (useDayAtHand().reading)
    return <CircularProgress aria-label="The sets of the pictures are being read" sx={{ m: 4 }} />;
  return (
    <>
      {day.shots.length === 0 ? (
        <Typography sx={{ color: 'text.secondary', maxWidth: 560 }}>
          A day is made of pictures that are set up: give each picture its lens and position, then make its
          set. The changes from one set to the next are then priced, and the order follows.
        </Typography>
      ) : (
        <Planned day={day} />
      )}
      <TakenTable />
      {day.without.length > 0 && (
        <Alert severity="info" sx={{ mt: 2, maxWidth: 640 }}>
          Not in the order, as they have no set yet: {day.without.map(({ name }) => name).join(', ')}.
        </Alert>
      )}
    </>
  );
}

function Planned({ day }: { day: JobDay }) {
  const { order, best } = useOrder(day);
  const pictures = useBuildSteps(day, order);
  const { jobId } = useParams();
  return (
    <>
      <OrderedDay day={day} order={order} best={best} />
      <BuildLists pictures={pictures} />
      <Stock order={order.map((picture) => day.shots[picture] as Shot)} />
      <WindowLight />
      <PhonesAtTable />
      <PackingList pictures={pictures} />
      {jobId !== undefined && <JobDevices job={jobId} />}
    </>
  );
}

function OrderedDay({ day, order, best }: { day: JobDay } & ReturnType<typeof useOrder>) {
  const job = useJob();
  const edit = useEditJob();
  const { on, startsAt, pause, order: kept } = job.day;
  const found = best === null || best === 'none' ? null : best;
  const isOwn = kept.length > 0;
  const times = timesOf(day.plan, order);
  const ends = times.at(-1)?.endsAt ?? 0;
  const bestEnds = found?.endsAt ?? null;
  const start = clockMinutes(startsAt);
  useEachMinute();
  const late = minutesNow() - (start + (times[0]?.endsAt ?? 0));
  const setDay = (changes: Partial<typeof job.day>) =>
    edit((now) => ({ ...now, day: { ...now.day, ...changes } }));
  const takeOrder = (next: readonly number[]) =>
    setDay({ order: next.map((picture) => day.shots[picture]?.id ?? '') });
  const move = (at: number, by: 1 | -1) => {
    const next = [...order];
    const [own] = next.splice(at, 1);
    next.splice(at + by, 0, own as number);
    takeOrder(next);
  };
  const lock = (picture: number, time: DayTime | null) =>
    edit((now) => ({
      ...now,
      shots: changeRow(now.shots, day.shots[picture]?.id ?? '', {
        notBefore: time ? clockOf(start + time.startsAt) : undefined,
        endedBy: time ? clockOf(start + time.endsAt) : undefined,
      }),
    }));
  const changes = changesOf(day, order).reduce((sum, steps) => sum + minutes(steps), 0);
  return (
    <Section
      title="Order of the day"
      action={
        <Box sx={{ display: 'flex', gap: 1 }}>
          {isOwn && (
            <Button size="small" onClick={() => setDay({ order: [] })}>
              Take the best order
            </Button>
          )}
          <Button
            size="small"
            onClick={() =>
              saveFile(csvOf(day, times, start), fileName(`${job.name}, day`, 'csv'), 'text/csv')
            }
          >
            Export CSV
          </Button>
          <Button
            size="small"
            disabled={on === undefined}
            title={on === undefined ? 'Say first on which day it is' : undefined}
            onClick={() =>
              on !== undefined &&
              saveFile(
                calendarOf(day, times, changesOf(day, order), on, start),
                fileName(`${job.name}, day`, 'ics'),
                'text/calendar',
              )
            }
          >
            Export calendar
          </Button>
          <Button size="small" onClick={() => window.print()}>
            Print
          </Button>
        </Box>
      }
    >
      <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', flexWrap: 'wrap', mb: 1.5 }}>
        <label>
          On{' '}
          <input
            type="date"
            className="number"
            value={on ?? ''}
            onChange={({ target }) => setDay({ on: target.value || undefined })}
          />
        </label>
        <label>
          Begins{' '}
          <input
            type="time"
            className="number"
            value={startsAt}
            onChange={({ target }) => target.value && setDay({ startsAt: target.value })}
          />
        </label>
        {isToday(on) && (
          <Button
            size="small"
            title="What is taken is left out; the rest is put in order again"
            onClick={() => setDay({ startsAt: clockOf(minutesNow()) })}
          >
            Plan the rest from now
          </Button>
        )}
        <label>
          Lunch{' '}
          <input
            type="time"
            className="number"
            value={pause?.at ?? ''}
            onChange={({ target }) =>
              setDay({
                pause: target.value
                  ? { at: target.value, minutes: pause?.minutes ?? USUAL_LUNCH_MIN }
                  : undefined,
              })
            }
          />
        </label>
        {pause && (
          <QuantityField
            label="Minutes of lunch"
            shown={minutesQuantity.format(pause.minutes)}
            parse={minutesQuantity.parse}
            example={minutesQuantity.example}
            onCommit={(minutes) => setDay({ pause: { ...pause, minutes } })}
          />
        )}
        <span data-testid="day-sum">
          Done at <span className="number">{clockOf(start + ends)}</span>, after {durationWords(ends)}.
          Changes of set take {durationWords(changes)} of it.
        </span>
        <span role="status">
          {best === null && 'The best order is being worked out.'}
          {found &&
            !isOwn &&
            (found.bound < found.endsAt - 0.5
              ? `No order is over before ${clockOf(start + found.bound)}.`
              : 'No other order is over sooner.')}
        </span>
      </Box>
      {best === 'none' && (
        <Alert severity="warning" sx={{ mb: 1.5, maxWidth: 640 }}>
          No order keeps all times: begin sooner, give one more time, or take a picture out. Shown is the
          order as it is, with what comes too late.
        </Alert>
      )}
      {isToday(on) && late > LATE_FROM_MIN && (
        <Alert severity="warning" sx={{ mb: 1.5, maxWidth: 640 }} data-testid="day-late">
          {day.shots[times[0]?.picture ?? -1]?.name} was to be taken by{' '}
          {clockOf(start + (times[0]?.endsAt ?? 0))}: {durationWords(late)} late. Press “Plan the rest from
          now” to see what can still be done.
        </Alert>
      )}
      {isOwn && bestEnds !== null && ends > bestEnds + 0.5 && (
        <Alert severity="info" sx={{ mb: 1.5, maxWidth: 640 }} data-testid="day-costs">
          Your order costs {durationWords(ends - bestEnds)} more than the best
          {becauseOf(day, order, found?.order ?? [])}.
        </Alert>
      )}
      <DayTimeline
        day={day}
        times={times}
        start={start}
        best={isOwn && found ? found.order : null}
        onOrder={takeOrder}
        onLock={lock}
      />
      <OrderTable day={day} times={times} onMove={move} />
      <Typography sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        Minutes of each step are usual ones of somebody alone who knows the set, or your own from the foot of
        the kit tables; those of a picture stand with the pictures. What is taken is left out.
      </Typography>
    </Section>
  );
}
