import type { Calibration, Kit } from '@fendrix/contract';
import {
  calibrateKit,
  LIGHT_FIGURES,
  type LightFigure,
  resetCalibration,
  type TakenOver,
} from '@fendrix/core';
import { lightFigureName, lightFigureWords, recorderWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import LinearProgress from '@mui/material/LinearProgress';
import { useMemo, useState } from 'react';
import { failureMessage } from '../../shared/api';
import { Chart, type ChartOption } from '../../shared/Chart';
import { PlainTable } from '../../shared/PlainTable';
import { Section } from '../../shared/Section';
import { fileName, saveFile } from '../../shared/saveFile';
import { calibrationApi } from './calibrationApi';
import { readingsCsv } from './readingsCsv';
import type { useHour } from './useHour';

type Hour = ReturnType<typeof useHour>;
type Found = NonNullable<Hour['found']>;

/** What the readings say, what of it is taken over, and how far off each reading is before and after. */
export function HourFindings({ kit, hour, lights, change }: Found & Pick<Hour, 'change'>) {
  // What was worked out for other readings is never shown beside these.
  const {
    currentData: found,
    error,
    isFetching,
  } = calibrationApi.useFitHourQuery(hour, {
    skip: hour.readings.length === 0,
  });
  const nameOf = (entry: string) => lights.find((one) => one.entry === entry)?.name ?? entry;
  const isCalibrated = kit.entries.some((entry) => 'calibrated' in entry && entry.calibrated);
  return (
    <Section
      title="What it says"
      action={
        <>
          {hour.readings.length > 0 && (
            <Button
              size="small"
              color="inherit"
              onClick={() =>
                saveFile(
                  readingsCsv(hour, found, nameOf),
                  fileName('calibration readings', 'csv'),
                  'text/csv',
                )
              }
            >
              Export CSV
            </Button>
          )}
          {isCalibrated && (
            <Button
              size="small"
              color="inherit"
              onClick={() => void change('The figures from before are back.', resetCalibration)}
            >
              Figures from before
            </Button>
          )}
        </>
      }
    >
      {hour.readings.length === 0 && (
        <Box sx={{ color: 'text.secondary' }}>
          Nothing is read yet. After the first readings it stands here, with how sure it is.
        </Box>
      )}
      {isFetching && <LinearProgress aria-label="It is being worked out" />}
      {error && <Alert severity="error">{failureMessage(error)}</Alert>}
      {found && <Findings key={JSON.stringify(hour)} found={found} nameOf={nameOf} change={change} />}
    </Section>
  );
}

function Findings({
  found,
  nameOf,
  change,
}: { found: Calibration; nameOf(entry: string): string } & Pick<Hour, 'change'>) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const figuresOf = (one: Calibration['lights'][number]) => LIGHT_FIGURES.filter((figure) => one[figure]);
  const tick = (key: string, label: string) => (
    <Checkbox
      size="small"
      sx={{ p: 0.25 }}
      checked={!left.has(key)}
      slotProps={{ input: { 'aria-label': label } }}
      onChange={(_, on) => setLeft(new Set(on ? [...left].filter((own) => own !== key) : [...left, key]))}
    />
  );
  const keyOf = (entry: string, figure: LightFigure) => `${entry} ${figure}`;
  const taken: TakenOver = {
    lights: Object.fromEntries(
      found.lights.map((one) => [
        one.entry,
        figuresOf(one).filter((figure) => !left.has(keyOf(one.entry, figure))),
      ]),
    ),
    body: !left.has('body'),
    lens: !left.has('lens'),
  };
  const takeOver = (kit: Kit) => calibrateKit(kit, found, taken, new Date().toISOString().slice(0, 10));
  const rows = recorderWords(found);
  return (
    <>
      <PlainTable name="what the readings say">
        <thead>
          <tr>
            <th scope="col">Of</th>
            <th scope="col">Figure</th>
            <th scope="col">Found</th>
            <th scope="col">Take over</th>
          </tr>
        </thead>
        <tbody>
          {found.lights.flatMap((one) =>
            figuresOf(one).map((figure) => (
              <tr key={keyOf(one.entry, figure)}>
                <th scope="row">{nameOf(one.entry)}</th>
                <td>{lightFigureName(figure)}</td>
                <td className="number">
                  {lightFigureWords(figure, one[figure] as NonNullable<typeof one.hotCentre>)}
                </td>
                <td>
                  {tick(
                    keyOf(one.entry, figure),
                    `take over: ${nameOf(one.entry)}, ${lightFigureName(figure)}`,
                  )}
                </td>
              </tr>
            )),
          )}
          {rows.map(({ of, name, words }, index) => (
            <tr key={name}>
              <th scope="row">{of === 'body' ? 'Camera' : of === 'lens' ? 'Lens' : 'Meter'}</th>
              <td>{name}</td>
              <td className="number">{words ?? 'the readings do not tell'}</td>
              <td>
                {of !== 'meter' &&
                  rows.some((row) => row.of === of && row.words) &&
                  rows.findIndex((row) => row.of === of) === index &&
                  tick(of, `take over: ${of === 'body' ? 'camera' : 'lens'}`)}
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Box sx={{ my: 1.5 }}>
        <Button
          variant="contained"
          onClick={() => void change('The kit counts with what was found.', takeOver)}
        >
          Take over what is ticked
        </Button>
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', mt: 0.5, maxWidth: 560 }}>
          New lights of the kit then have these figures; sets that stand keep theirs. Without a reading of the
          meter, lights are told against this camera: take over lights and camera together.
        </Box>
      </Box>
      <Residuals found={found} />
    </>
  );
}

/** Read over expected, of each reading, by the figures before and by those found. */
function Residuals({ found: { readings } }: { found: Calibration }) {
  const option = useMemo((): ChartOption => {
    const dots = (name: string, of: 'beforeStops' | 'afterStops', symbol: string) => ({
      type: 'line' as const,
      name,
      symbol,
      symbolSize: 8,
      showSymbol: true,
      lineStyle: { width: 0 },
      data: readings.map((one) => Number(one[of].toFixed(3))),
    });
    return {
      legend: { top: 0, right: 0 },
      grid: { left: 48, right: 12, bottom: 24, top: 32 },
      xAxis: { type: 'category', data: readings.map((_, i) => String(i + 1)), name: 'reading' },
      yAxis: { type: 'value', name: 'stops' },
      tooltip: { trigger: 'axis' },
      series: [dots('before', 'beforeStops', 'emptyCircle'), dots('found', 'afterStops', 'circle')],
    };
  }, [readings]);
  const rms = (of: 'beforeStops' | 'afterStops') =>
    Math.sqrt(readings.reduce((sum, one) => sum + one[of] ** 2, 0) / readings.length).toFixed(2);
  return (
    <>
      <Box sx={{ fontSize: '0.8125rem' }}>
        Read against expected: off by <span className="number">{rms('beforeStops')}</span> stops by the
        figures before, by <span className="number">{rms('afterStops')}</span> by those found (root mean
        square).
      </Box>
      <Chart
        label="How far each reading is from what was expected of it, before and with what was found"
        option={option}
        table={{
          heads: ['reading', 'before', 'found', 'sure to'],
          rows: readings.map(({ beforeStops, afterStops, sureStops }, i) => [
            String(i + 1),
            beforeStops.toFixed(2),
            afterStops.toFixed(2),
            sureStops.toFixed(2),
          ]),
        }}
      />
    </>
  );
}
