import type { Studio } from '@fendrix/contract';
import {
  clockMinutes,
  clockOf,
  followDaylight,
  formatStops,
  parseStops,
  placeOf,
  type Sky,
  stretches,
  type WindowDay,
  windowDay,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { Chart } from '../../../shared/Chart';
import { Choice } from '../../../shared/Choice';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { useEditJob, useJob } from '../state/openJob';
import { useDayAtHand } from './dayAtHand';
import { minutesNow } from './today';

/** Darker than this under its brightest a window is as good as dark, stops. */
const DARK_STOPS = -6;
/** Sky that is brighter than a stop under its best asks for no other exposure. */
const STEADY_STOPS = -1;

/** What the windows of the studio give over the day: when sun comes in, and how the exposure follows. */
export function WindowLight() {
  const { job, kit } = useDayAtHand();
  const [sky, setSky] = useState<Sky>('overcast');
  const studio = kit?.studio;
  if (!studio || studio.windows.length === 0) return null;
  const place = placeOf(studio);
  return (
    <Section title="Window light">
      {place ? (
        <>
          <Choice<Sky>
            shown
            label="Sky"
            value={sky}
            options={[
              { value: 'overcast', words: 'overcast' },
              { value: 'clear', words: 'clear' },
            ]}
            onChoose={setSky}
          />
          <OverDay studio={studio} place={place} on={job.day.on} sky={sky} />
        </>
      ) : (
        <Typography sx={{ color: 'text.secondary' }}>
          Say in the{' '}
          <Link to="/room" style={{ color: 'inherit' }}>
            room
          </Link>{' '}
          where it is (latitude and longitude): then the day shows when sun comes in by your windows, and how
          their light rises and falls.
        </Typography>
      )}
    </Section>
  );
}

function OverDay({
  studio,
  place,
  on,
  sky,
}: {
  studio: Studio;
  place: NonNullable<ReturnType<typeof placeOf>>;
  /** YYYY-MM-DD; today if it is not said. */
  on: string | undefined;
  sky: Sky;
}) {
  const days = useMemo(() => {
    const midnight = on === undefined ? new Date() : new Date(`${on}T00:00`);
    midnight.setHours(0, 0, 0, 0);
    return studio.windows.map(({ name, facesDeg }) => ({
      name,
      day: windowDay(facesDeg, midnight.getTime(), place, sky),
    }));
  }, [studio, place.latitudeDeg, place.longitudeDeg, on, sky]);
  const best = Math.max(...days.flatMap(({ day }) => day.skyCdM2));
  if (!(best > 0)) return <Typography>The sun does not rise on that day.</Typography>;
  const { minutes } = (days[0] as (typeof days)[number]).day;
  const stops = ({ skyCdM2 }: WindowDay) =>
    skyCdM2.map((value) => (value > 0 ? Math.log2(value / best) : -99));
  const first = minutes.findIndex((_, i) => days.some(({ day }) => (stops(day)[i] as number) > DARK_STOPS));
  const last = minutes.findLastIndex((_, i) =>
    days.some(({ day }) => (stops(day)[i] as number) > DARK_STOPS),
  );
  const shown = minutes.slice(first, last + 1);
  const of = (day: WindowDay) => stops(day).slice(first, last + 1);
  const hourly = shown.flatMap((minute, i) => (minute % 60 === 0 ? [i] : []));
  return (
    <>
      <Chart
        label="Light of the sky in each window over the day, stops under its best"
        option={{
          xAxis: { type: 'category', data: shown.map(clockOf), name: 'clock' },
          yAxis: { type: 'value', min: DARK_STOPS, max: 0, name: 'stops' },
          legend: { show: days.length > 1 },
          series: days.map(({ name, day }) => ({
            type: 'line',
            name,
            showSymbol: false,
            data: of(day).map((value) => Number(value.toFixed(2))),
          })),
        }}
        table={{
          heads: ['clock', ...days.map(({ name }) => name)],
          rows: hourly.map((i) => [
            clockOf(shown[i] as number),
            ...days.map(({ day }) => formatStops(of(day)[i] as number)),
          ]),
        }}
      />
      <Box component="ul" sx={{ m: 0, pl: 2.5, maxWidth: 640 }}>
        {days.map(({ name, day }) => (
          <li key={name}>
            {name}: {sunWords(day)} {steadyWords(day)}
          </li>
        ))}
      </Box>
      <Typography sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        By the standard sky of that hour; clouds change it by a factor of two within a minute, houses opposite
        are not known. Meter it, and look again when it has changed by a third of a stop.
      </Typography>
      <Metered days={days} />
    </>
  );
}

/** A meter reading, and how the exposure has to follow from it. */
function Metered({ days }: { days: readonly { name: string; day: WindowDay }[] }) {
  const { metered } = useJob().day;
  const edit = useEditJob();
  const [chosen, setChosen] = useState('');
  const own = days.find(({ name }) => name === (metered?.window ?? chosen)) ?? days[0];
  if (!own) return null;
  const set = (next: NonNullable<typeof metered> | undefined) =>
    edit((now) => {
      const { metered: _before, ...day } = now.day;
      return { ...now, day: next ? { ...day, metered: next } : day };
    });
  const reading = metered && { minute: clockMinutes(metered.at), stops: metered.stops };
  const follows = reading && followDaylight(own.day, reading);
  const later = follows
    ? own.day.minutes.flatMap((minute, i) => {
        const stops = follows[i];
        const isShown = minute % 60 === 0 && minute > (reading?.minute ?? 0);
        return isShown && stops != null && stops > DARK_STOPS ? [{ minute, stops }] : [];
      })
    : [];
  return (
    <Box sx={{ mt: 1.5, maxWidth: 480 }}>
      {days.length > 1 && (
        <Choice
          shown
          label="Metered at the window"
          value={own.name}
          options={days.map(({ name }) => name)}
          onChoose={(name) => (metered ? set({ ...metered, window: name }) : setChosen(name))}
        />
      )}
      <QuantityField
        label="the settings are off now by"
        hint="What a meter says against the settings of the set: above 0 it is too bright"
        shown={metered ? formatStops(metered.stops) : ''}
        none="not metered yet"
        parse={parseStops}
        example="+0.3"
        onCommit={(stops) =>
          set({ at: clockOf(minutesNow()), window: own.name, stops: Math.max(-12, Math.min(12, stops)) })
        }
        onClear={() => set(undefined)}
      />
      {metered && (
        <Box role="status" sx={{ fontSize: '0.8125rem' }}>
          Metered at {metered.at}.{' '}
          {follows === null || later.length === 0
            ? 'The standard sky gives nothing after it.'
            : `With the same settings it is then ${later
                .map(({ minute, stops }) => `${formatStops(stops)} at ${clockOf(minute)}`)
                .join(', ')}. Open or close by that, and meter again when a cloud comes.`}
        </Box>
      )}
    </Box>
  );
}

const spans = (found: readonly [number, number][]): string =>
  found.map(([from, to]) => `${clockOf(from)} to ${clockOf(to)}`).join(' and ');

function sunWords({ minutes, hasSun }: WindowDay): string {
  const sun = stretches(minutes, hasSun);
  return sun.length === 0
    ? 'no sun comes in, its light is soft all day.'
    : `sun comes in ${spans(sun)}: hang a diffuser then, or take that for hard light.`;
}

/** When the exposure may stay as it is, within a stop. */
function steadyWords({ minutes, skyCdM2 }: WindowDay): string {
  const best = Math.max(...skyCdM2);
  const steady = stretches(
    minutes,
    skyCdM2.map((value) => value > 0 && Math.log2(value / best) >= STEADY_STOPS),
  );
  return `Its sky stays within a stop ${spans(steady)}.`;
}
