import type { CardReading } from '@fendrix/contract';
import { formatPower, type HourStep, incidentExposureLxS, lightLuminance } from '@fendrix/core';
import { hourStepName, hourStepWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { failureMessage } from '../../shared/api';
import { timeQuantity } from '../../shared/form/words';
import { PlainTable } from '../../shared/PlainTable';
import { QuantityField } from '../../shared/QuantityField';
import { Section } from '../../shared/Section';
import { calibrationApi } from './calibrationApi';
import type { useHour } from './useHour';

type Hour = ReturnType<typeof useHour>;

/** The hour step by step: the one at hand with where its reading comes from, and all of them. */
export function HourSteps({
  hour,
  lights,
  steps,
  saving,
  keep,
  takeOut,
}: NonNullable<Hour['found']> & Pick<Hour, 'saving' | 'keep' | 'takeOut'>) {
  const [chosen, setChosen] = useState<string | null>(null);
  const readOf = (id: string) => hour.readings.find((one) => one.id === id);
  const step = steps.find(({ id }) => id === chosen) ?? steps.find(({ id }) => !readOf(id)) ?? null;
  const nameOf = (entry: string) => lights.find((one) => one.entry === entry)?.name ?? entry;
  const done = steps.filter(({ id }) => readOf(id)).length;
  return (
    <Section title={`The hour: ${done} of ${steps.length} read`}>
      {step ? (
        <StepAtHand
          key={step.id}
          step={step}
          hour={hour}
          name={nameOf(step.light)}
          isFlash={lights.some(
            (one) => one.entry === step.light && lightLuminance(one.light).time === 'flash',
          )}
          saving={saving}
          onRead={async (read) => {
            if (await keep(step, read)) setChosen(null);
          }}
        />
      ) : (
        <Box role="status" sx={{ mb: 1 }}>
          All is read. What it says stands beside.
        </Box>
      )}
      <PlainTable name="steps of the hour">
        <thead>
          <tr>
            <th scope="col">Light</th>
            <th scope="col">Reads</th>
            <th scope="col">At</th>
            <th scope="col">Read</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((own) => {
            const read = readOf(own.id);
            const words = hourStepWords(own, nameOf(own.light));
            return (
              <tr key={own.id} aria-current={own.id === step?.id ? 'step' : undefined}>
                <th scope="row">{nameOf(own.light)}</th>
                <td>{hourStepName(own)}</td>
                <td className="number">
                  {own.distanceM.toFixed(2)} m, {formatPower(own.powerStops)}, {words.settings}
                </td>
                <td>
                  {read ? (
                    <Button size="small" color="inherit" onClick={() => takeOut(own.id)}>
                      {readWords(read)}: take out
                    </Button>
                  ) : own.id === step?.id ? (
                    <strong>now</strong>
                  ) : (
                    <Button size="small" color="inherit" onClick={() => setChosen(own.id)}>
                      read this
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </PlainTable>
    </Section>
  );
}

const readWords = ({ rgb, luxSeconds }: CardReading) =>
  luxSeconds === undefined
    ? `file ${Math.round(255 * (rgb?.[1] ?? 0))}`
    : `${Number(luxSeconds.toPrecision(3))} lx s`;

function StepAtHand({
  step,
  hour: { readings: _, ...hour },
  name,
  isFlash,
  saving,
  onRead,
}: {
  step: HourStep;
  hour: NonNullable<Hour['found']>['hour'];
  name: string;
  isFlash: boolean;
  saving: boolean;
  onRead(read: Pick<CardReading, 'rgb' | 'luxSeconds' | 'frame'> & Partial<CardReading>): void;
}) {
  const [readNewest, newest] = calibrationApi.useReadNewestCardMutation();
  const [readStandIn, standIn] = calibrationApi.useReadStandInCardMutation();
  const byMeter = step.for === 'meter';
  const [durationS, setDurationS] = useState<number | null>(null);
  const measured = durationS === null ? {} : { durationS };
  const busy = newest.isLoading || standIn.isLoading || saving;
  const { title, how, settings } = hourStepWords(step, name);
  const { id: _id, for: _for, ...at } = step;

  async function takeNewest() {
    const read = await readNewest({ place: step.place })
      .unwrap()
      .catch(() => null);
    if (!read) return;
    const { rgb, frame, fNumber, shutterS, iso } = read;
    // The frame knows how it was taken; the step only how it was to be.
    onRead({
      rgb,
      frame,
      ...(fNumber ? { fNumber } : {}),
      ...(shutterS ? { shutterS } : {}),
      ...(iso ? { iso } : {}),
      ...measured,
    });
  }
  async function takeStandIn() {
    const read = await readStandIn({ hour, by: byMeter ? 'meter' : 'frame', ...at })
      .unwrap()
      .catch(() => null);
    if (read) onRead({ ...read, ...measured });
  }
  const failed = newest.error ?? standIn.error;
  return (
    <Box sx={{ border: 1, borderColor: 'divider', p: 2, mb: 2 }} role="group" aria-label="The step at hand">
      <Box sx={{ fontSize: '1rem', fontWeight: 650 }}>{title}</Box>
      <Box sx={{ my: 0.5 }}>{how}</Box>
      <Box className="number" sx={{ fontSize: '1.125rem', mb: 1 }}>
        {settings}
      </Box>
      {isFlash && (step.for === 'output' || step.for === 'dial') && (
        <Box sx={{ maxWidth: 420, mb: 1 }}>
          <QuantityField
            label="Flash duration t0.1, if measured"
            hint="By a meter that tells it; left empty it is not fitted"
            shown={durationS === null ? '' : timeQuantity.format(durationS)}
            none="not measured"
            parse={timeQuantity.parse}
            example="1/850"
            onCommit={setDurationS}
            onClear={() => setDurationS(null)}
          />
        </Box>
      )}
      {byMeter ? (
        <MeterField isFlash={isFlash} step={step} onRead={(luxSeconds) => onRead({ luxSeconds })} />
      ) : (
        <Button variant="contained" disabled={busy} onClick={() => void takeNewest()}>
          Read the newest frame
        </Button>
      )}
      <Box sx={{ mt: 1, fontSize: '0.8125rem', color: 'text.secondary' }}>
        To try it out without devices:{' '}
        <Button size="small" color="inherit" disabled={busy} onClick={() => void takeStandIn()}>
          {byMeter ? 'Stand-in meter' : 'Stand-in camera'}
        </Button>
      </Box>
      <Box role="status" sx={{ minHeight: 20 }}>
        {newest.isLoading && 'The newest frame is being read.'}
        {standIn.isLoading && 'The stand-in is at work.'}
      </Box>
      {failed && <Alert severity="warning">{failureMessage(failed)}</Alert>}
    </Box>
  );
}

/** A reading as meters say it: of a flash the f-stop at the ISO of the step, of lasting light its lux. */
function MeterField({
  isFlash,
  step,
  onRead,
}: {
  isFlash: boolean;
  step: HourStep;
  onRead(luxSeconds: number): void;
}) {
  const number = (text: string) => {
    const value = Number(text.trim().replace(/^f\//i, '').replace(',', '.'));
    return value > 0 && Number.isFinite(value) ? value : null;
  };
  return isFlash ? (
    <QuantityField
      label={`Meter reads f/ at ISO ${Math.round(step.iso)}`}
      hint="Flat receptor; tenths count: 8 and 3 tenths of a stop are 8.9"
      shown=""
      none="not read"
      parse={number}
      example="8 or 8.9"
      onCommit={(fNumber) => onRead(incidentExposureLxS({ fNumber, shutterS: step.shutterS, iso: step.iso }))}
    />
  ) : (
    <QuantityField
      label="Meter reads, lux"
      hint="Flat receptor"
      shown=""
      none="not read"
      parse={number}
      example="850"
      onCommit={(lux) => onRead(lux * step.shutterS)}
    />
  );
}
