import type { Shot } from '@fendrix/contract';
import { clockMinutes, clockOf, type DayTime, type JobDay } from '@fendrix/core';
import { durationWords, stepWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import { Choice } from '../../../shared/Choice';
import { PlainTable } from '../../../shared/PlainTable';
import { changeRow } from '../../../shared/rows';
import { useEditJob, useJob } from '../state/openJob';
import { changesOf, minutes } from './dayChanges';

/** The pictures of a day in an order, with their clock, what is done before each, and the times that each has to keep. */
export function OrderTable({
  day,
  times,
  onMove,
}: {
  day: JobDay;
  times: readonly DayTime[];
  onMove(at: number, by: 1 | -1): void;
}) {
  const { startsAt } = useJob().day;
  const edit = useEditJob();
  const start = clockMinutes(startsAt);
  const { plan } = day;
  const changes = changesOf(
    day,
    times.map(({ picture }) => picture),
  );
  return (
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
          const steps = changes[at] ?? [];
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
                {plan.pause && time.changeFrom < plan.pause.from + 0.5 && time.startsAt > plan.pause.from && (
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
                  onClick={() => onMove(at, -1)}
                >
                  ↑
                </Button>
                <Button
                  size="small"
                  color="inherit"
                  sx={{ minWidth: 0 }}
                  disabled={at === times.length - 1}
                  aria-label={`${shot.name}: later`}
                  onClick={() => onMove(at, 1)}
                >
                  ↓
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </PlainTable>
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
