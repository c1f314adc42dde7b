import type { SetDocument, Shot } from '@fendrix/contract';
import { clockMinutes, clockOf, type DayTime, type JobDay, timesOf } from '@fendrix/core';
import { durationWords, stepWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import CircularProgress from '@mui/material/CircularProgress';
import Typography from '@mui/material/Typography';
import Papa from 'papaparse';
import { useEffect, useReducer } from 'react';
import { Choice } from '../../../shared/Choice';
import { PlainTable } from '../../../shared/PlainTable';
import { QuantityField } from '../../../shared/QuantityField';
import { changeRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { fileName, saveFile } from '../../../shared/saveFile';
import { minutesQuantity } from '../quantities';
import { useEditJob, useJob } from '../state/openJob';
import { BuildLists } from './BuildLists';
import { calendarOf } from './calendarOf';
import { PackingList } from './PackingList';
import { useBuildSteps } from './useBuildSteps';
import { useDay, useOrder } from './useDay';

/** The day of a job: its pictures in the order in which it is over soonest, with the clock, what is done between, and why. */
export function DayView() {
  const { day, sets, reading } = useDay();
  if (reading) return <CircularProgress aria-label="The sets of the pictures are being read" sx={{ m: 4 }} />;
  return (
    <>
      {day.shots.length === 0 ? (
        <Typography sx={{ color: 'text.secondary', maxWidth: 560 }}>
          A day is made of pictures that are set up: give each picture its lens and position, then make its
          set. The changes from one set to the next are then priced, and the order follows.
        </Typography>
      ) : (
        <Planned day={day} sets={sets} />
      )}
      {day.without.length > 0 && (
        <Alert severity="info" sx={{ mt: 2, maxWidth: 640 }}>
          Not in the order, as they have no set yet: {day.without.map(({ name }) => name).join(', ')}.
        </Alert>
      )}
    </>
  );
}

function Planned({ day, sets }: { day: JobDay; sets: ReadonlyMap<string, SetDocument> }) {
  const { order, best } = useOrder(day);
  const pictures = useBuildSteps(day, sets, order);
  return (
    <>
      <OrderedDay day={day} order={order} best={best} />
      <BuildLists pictures={pictures} />
      <PackingList pictures={pictures} />
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
  const { plan } = day;
  useEachMinute();
  const late = minutesNow() - (start + (times[0]?.endsAt ?? 0));
  const setDay = (changes: Partial<typeof job.day>) =>
    edit((now) => ({ ...now, day: { ...now.day, ...changes } }));
  const move = (at: number, by: 1 | -1) => {
    const ids = order.map((picture) => day.shots[picture]?.id ?? '');
    const [own] = ids.splice(at, 1);
    ids.splice(at + by, 0, own as string);
    setDay({ order: ids });
  };
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
      <PlainTable name="day">
        <thead>
          <tr>
            <th scope="col">From, to</th>
            <th scope="col">Picture</th>
            <th scope="col">Set up before it, minutes</th>
            <th scope="col">Not before</th>
            <th scope="col">Ended by</th>
            <th scope="col">After</th>
            <th scope="col" title="Spills, wets or wilts: after all that do not">
              Last
            </th>
            <th scope="col">
              <span style={{ position: 'absolute', clip: 'rect(0 0 0 0)' }}>Move</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {times.map((time, at) => {
            const shot = day.shots[time.picture];
            if (!shot) return null;
            const from = at === 0 ? day.shots.length : (order[at - 1] as number);
            const steps = day.steps[from]?.[time.picture] ?? [];
            const change = (changes: Partial<Shot>) =>
              edit((now) => ({ ...now, shots: changeRow(now.shots, shot.id, changes) }));
            return (
              <tr key={shot.id}>
                <td className="number" style={{ whiteSpace: 'nowrap' }}>
                  {clockOf(start + time.startsAt)}–{clockOf(start + time.endsAt)}
                </td>
                <th scope="row" style={{ fontWeight: 650 }}>
                  {shot.name}
                  {time.late > 0 && (
                    <Box component="div" sx={{ color: 'error.main', fontWeight: 400 }}>
                      {durationWords(time.late)} too late
                    </Box>
                  )}
                </th>
                <td>
                  {steps.length === 0
                    ? 'the same set'
                    : `${durationWords(minutes(steps))}: ${steps.map(stepWords).join(', ')}`}
                  {plan.pause &&
                    time.changeFrom < plan.pause.from + 0.5 &&
                    time.startsAt > plan.pause.from && (
                      <div>lunch until {clockOf(start + plan.pause.from + plan.pause.minutes)}</div>
                    )}
                  {time.waits > 0.5 && <div>waits {durationWords(time.waits)}</div>}
                </td>
                <td>
                  <ClockField
                    label={`${shot.name}: not before`}
                    value={shot.notBefore}
                    onChange={(notBefore) => change({ notBefore })}
                  />
                </td>
                <td>
                  <ClockField
                    label={`${shot.name}: ended by`}
                    value={shot.endedBy}
                    onChange={(endedBy) => change({ endedBy })}
                  />
                </td>
                <td>
                  <AfterPicture shot={shot} shots={day.shots} onChange={(after) => change({ after })} />
                </td>
                <td>
                  <Checkbox
                    size="small"
                    sx={{ p: 0 }}
                    checked={shot.last}
                    onChange={(_, last) => change({ last })}
                    slotProps={{ input: { 'aria-label': `${shot.name}: last, as it spills, wets or wilts` } }}
                  />
                </td>
                <td style={{ whiteSpace: 'nowrap' }}>
                  <Button
                    size="small"
                    color="inherit"
                    sx={{ minWidth: 0 }}
                    disabled={at === 0}
                    aria-label={`${shot.name}: earlier`}
                    onClick={() => move(at, -1)}
                  >
                    ↑
                  </Button>
                  <Button
                    size="small"
                    color="inherit"
                    sx={{ minWidth: 0 }}
                    disabled={at === times.length - 1}
                    aria-label={`${shot.name}: later`}
                    onClick={() => move(at, 1)}
                  >
                    ↓
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </PlainTable>
      <Typography sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        Minutes of each step are usual ones of somebody alone who knows the set, or your own from the foot of
        the kit tables; those of a picture stand with the pictures. What is taken is left out.
      </Typography>
    </Section>
  );
}

function ClockField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string | undefined;
  onChange(clock: string | undefined): void;
}) {
  return (
    <input
      type="time"
      className="number"
      aria-label={label}
      value={value ?? ''}
      onChange={({ target }) => onChange(target.value || undefined)}
    />
  );
}

/** Which picture comes before another; several are told and can be let go. */
function AfterPicture({
  shot,
  shots,
  onChange,
}: {
  shot: Shot;
  shots: readonly Shot[];
  onChange(after: string[]): void;
}) {
  const others = shots.filter(({ id }) => id !== shot.id);
  const known = shot.after.filter((id) => others.some((own) => own.id === id));
  return (
    <Choice
      label={`${shot.name}: after`}
      value={known.length > 1 ? 'several' : (known[0] ?? '')}
      options={[
        { value: '', words: 'any' },
        ...(known.length > 1 ? [{ value: 'several', words: `${known.length} others` }] : []),
        ...others.map(({ id, name }) => ({ value: id, words: name })),
      ]}
      onChoose={(id) => id !== 'several' && onChange(id ? [id] : [])}
    />
  );
}

const USUAL_LUNCH_MIN = 45;
/** Less is not late, minutes. */
const LATE_FROM_MIN = 5;

const minutesNow = (now = new Date()): number => 60 * now.getHours() + now.getMinutes();

/** Whether a day, YYYY-MM-DD, is today where the page is. */
function isToday(on: string | undefined): boolean {
  const now = new Date();
  const parts = [now.getFullYear(), now.getMonth() + 1, now.getDate()];
  return on === parts.map((part) => String(part).padStart(2, '0')).join('-');
}

/** Looks at the clock again each minute. */
function useEachMinute(): void {
  const [, look] = useReducer((times: number) => times + 1, 0);
  useEffect(() => {
    const timer = setInterval(look, 60_000);
    return () => clearInterval(timer);
  }, []);
}

type Steps = JobDay['steps'][number][number];
const minutes = (steps: Steps): number => steps.reduce((sum, step) => sum + step.minutes, 0);

/** What is done before each picture of an order. */
const changesOf = ({ steps, shots }: JobDay, order: readonly number[]): Steps[] =>
  order.map((picture, at) => steps[at === 0 ? shots.length : (order[at - 1] as number)]?.[picture] ?? []);

/** The changes of set of an own order that cost most more than in the best one. */
function becauseOf(day: JobDay, own: readonly number[], best: readonly number[]): string {
  const cost = (order: readonly number[]) =>
    new Map(changesOf(day, order).map((steps, at) => [order[at] as number, minutes(steps)]));
  const [mine, theirs] = [cost(own), cost(best)];
  const dear = [...mine]
    .map(([picture, all]) => ({ picture, more: all - (theirs.get(picture) ?? 0) }))
    .filter(({ more }) => more > 0.5)
    .sort((a, b) => b.more - a.more)
    .slice(0, 2);
  if (dear.length === 0) return ', by waiting';
  const words = dear.map(
    ({ picture, more }) => `${day.shots[picture]?.name} needs ${durationWords(more)} more to set up`,
  );
  return `: ${words.join(', ')}`;
}

function csvOf(day: JobDay, times: readonly DayTime[], start: number): string {
  const order = times.map(({ picture }) => picture);
  const changes = changesOf(day, order);
  return Papa.unparse(
    times.map(({ picture, changeFrom, startsAt, endsAt, waits, late }, at) => ({
      'set up from': clockOf(start + changeFrom),
      from: clockOf(start + startsAt),
      to: clockOf(start + endsAt),
      picture: day.shots[picture]?.name ?? '',
      before: (changes[at] ?? []).map(stepWords).join('; '),
      'change, min': minutes(changes[at] ?? []),
      'waits, min': waits,
      'too late, min': late,
    })),
    { escapeFormulae: true },
  );
}
