import type { LearnedPrice, LogStatistics as Statistics } from '@fendrix/contract';
import { type ChangeStep, USUAL_PRICES, type VerdictCode } from '@fendrix/core';
import { settledName, stepName } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useMemo } from 'react';
import { failureMessage } from '../../shared/api';
import { Chart, type ChartOption } from '../../shared/Chart';
import { PlainTable } from '../../shared/PlainTable';
import { Section } from '../../shared/Section';
import { useKitChanges } from '../kit';
import { logApi } from './logApi';

/** Pictures that are drawn: the last ones. */
const MOST_BARS = 16;
const grey = { color: 'text.secondary', fontSize: '0.8125rem', maxWidth: 640 } as const;

/** Where the minutes went, which verdicts return, what steps of a set change take here. */
export function LogStatistics({ job }: { job?: string | undefined }) {
  const { data, error } = logApi.useReadStatisticsQuery(job, { refetchOnMountOrArgChange: true });
  if (error) return <Alert severity="error">{failureMessage(error)}</Alert>;
  if (!data) return <Skeleton variant="rectangular" height={200} />;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: '3fr 2fr' }, gap: 3, mb: 2 }}>
      <Minutes pictures={data.pictures} />
      <Verdicts {...data} />
      <Prices prices={data.prices} />
    </Box>
  );
}

function Minutes({ pictures }: Pick<Statistics, 'pictures'>) {
  const told = useMemo(
    () =>
      pictures
        .filter(({ building, shooting }) => building !== null && shooting !== null)
        .slice(0, MOST_BARS)
        .reverse(),
    [pictures],
  );
  const option = useMemo((): ChartOption => {
    const bar = (name: string, of: (one: (typeof told)[number]) => number) => ({
      type: 'bar' as const,
      barMaxWidth: 56,
      name,
      stack: 'took',
      data: told.map((one) => Math.round(of(one))),
    });
    return {
      legend: { top: 0, right: 0 },
      grid: { left: 44, right: 12, bottom: 24, top: 32 },
      xAxis: {
        type: 'category',
        data: told.map(({ name }) => name),
        axisLabel: { width: 70, overflow: 'truncate' },
      },
      yAxis: { type: 'value', name: 'minutes' },
      tooltip: { trigger: 'axis' },
      series: [
        bar('building', ({ building }) => building ?? 0),
        bar('shooting', ({ shooting }) => shooting ?? 0),
        bar('retouching', ({ retouching }) => retouching ?? 0),
        { type: 'line', name: 'planned', data: told.map(({ planned }) => planned), lineStyle: { width: 0 } },
      ],
    };
  }, [told]);
  return (
    <Section title="Where the minutes went">
      {told.length === 0 ? (
        <Box sx={grey}>
          No picture was timed yet. It is where its set was built step by step (Day, Set side) and a frame of
          it came to the job.
        </Box>
      ) : (
        <Chart
          label="Minutes of the last pictures: building, shooting, retouching, and what was planned"
          option={option}
          table={{
            heads: ['picture', 'planned', 'building', 'shooting', 'retouching'],
            rows: told.map(({ name, planned, building, shooting, retouching }) => [
              name,
              String(planned),
              String(Math.round(building ?? 0)),
              String(Math.round(shooting ?? 0)),
              retouching === null ? 'not told' : String(Math.round(retouching)),
            ]),
          }}
        />
      )}
    </Section>
  );
}

function Verdicts({ verdicts, judged, pictures }: Pick<Statistics, 'verdicts' | 'judged' | 'pictures'>) {
  return (
    <Section title="Verdicts that return">
      {verdicts.length === 0 ? (
        <Box sx={grey}>
          {judged === 0
            ? 'Not worked out yet.'
            : `None was open. Judged so far: ${judged} of ${pictures.length}.`}
        </Box>
      ) : (
        <PlainTable name="verdicts that return">
          <thead>
            <tr>
              <th scope="col">Verdict</th>
              <th scope="col">Pictures</th>
            </tr>
          </thead>
          <tbody>
            {verdicts.map(({ kind, pictures }) => (
              <tr key={kind}>
                <th scope="row">{settledName(kind as VerdictCode)}</th>
                <td className="number">{pictures}</td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
      )}
    </Section>
  );
}

/** To half a minute: finer than anybody builds. */
const rounded = (minutes: number): number => Math.max(0.5, Math.round(2 * minutes) / 2);

function Prices({ prices }: { prices: readonly LearnedPrice[] }) {
  const { change } = useKitChanges();
  const use = () =>
    change('The day is now worked out by your own minutes.', (kit) => ({
      ...kit,
      changeMinutes: {
        ...kit.changeMinutes,
        ...Object.fromEntries(
          prices.flatMap(({ step, learned }) =>
            Object.hasOwn(USUAL_PRICES, step) ? [[step, rounded(learned)]] : [],
          ),
        ),
      },
    }));
  return (
    <Section
      title="What a step takes you"
      action={
        prices.length > 0 && (
          <Button size="small" onClick={use}>
            Use these for the day
          </Button>
        )
      }
    >
      {prices.length === 0 ? (
        <Box sx={grey}>
          Learned from sets that were built step by step: the usual minutes are held to until yours say
          otherwise.
        </Box>
      ) : (
        <>
          <PlainTable name="learned minutes">
            <thead>
              <tr>
                {['Step', 'Done', 'Usual', 'Yours, minutes'].map((head) => (
                  <th key={head} scope="col">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {prices.map(({ step, times, usual, learned, error }) => (
                <tr key={step}>
                  <th scope="row">{stepName(step as ChangeStep)}</th>
                  <td className="number">{times}</td>
                  <td className="number">{usual}</td>
                  <td className="number">
                    {learned.toFixed(1)} ± {error.toFixed(1)}
                  </td>
                </tr>
              ))}
            </tbody>
          </PlainTable>
          <Box sx={grey}>
            From the minutes between the first step and the first frame of each set, held to the usual minutes
            as far as those say nothing else. Steps that always come together are not told apart.
          </Box>
        </>
      )}
    </Section>
  );
}
