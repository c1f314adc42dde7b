import type { Devices, Light, SetDocument, StandInTrigger } from '@fendrix/contract';
import { formatPower, isFlash, onDial, setOfPlate } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { failureMessage } from '../../shared/api';
import { Choice } from '../../shared/Choice';
import { Section } from '../../shared/Section';
import { Tag } from '../../shared/Tag';
import { devicesApi } from './devicesApi';
import type { WorkedFrame } from './frame';

const THIRD = 1 / 3;
const RECYCLE_S = [0.5, 1, 1.5, 3, 6];
const MISFIRES = [0, 0.05, 0.25];

/** The stand-in flash trigger: powers of the flashes read and set, how soon they are ready, and one that does not fire. */
export function TriggerDesk({
  frame,
  set,
  devices: { trigger },
}: {
  frame: WorkedFrame;
  set: SetDocument | undefined;
  devices: Devices;
}) {
  const [setTrigger, { error }] = devicesApi.useSetTriggerMutation();
  const change = (next: Partial<StandInTrigger>) => void setTrigger({ ...trigger, ...next });
  const plate = set?.plates.find(({ id }) => id === frame.plate);
  const planned = set && (plate ? setOfPlate(set, plate) : set);
  const flashes = planned?.lights.filter((light) => light.on && isFlash(light)) ?? [];
  const give = (light: Light, stops: number) =>
    change({ powers: { ...trigger.powers, [light.tag]: onDial(light, Math.max(-12, Math.min(0, stops))) } });
  const asPlanned = Object.fromEntries(flashes.map(({ tag, powerStops }) => [tag, powerStops]));
  const differs = flashes.some(({ tag, powerStops }) => (trigger.powers[tag] ?? powerStops) !== powerStops);
  return (
    <Section title="Flash trigger">
      {flashes.length === 0 && 'No flash is on in the set of this picture.'}
      {flashes.map((light) => {
        const own = trigger.powers[light.tag];
        const stops = own ?? light.powerStops;
        return (
          <Box key={light.tag} sx={{ display: 'flex', gap: 1, alignItems: 'center', minHeight: 30 }}>
            <Tag>{light.tag}</Tag>
            <Box className="number" sx={{ minWidth: 84 }}>
              {formatPower(stops)}
            </Box>
            <Button
              size="small"
              aria-label={`${light.tag} a third less`}
              onClick={() => give(light, stops - THIRD)}
            >
              −⅓
            </Button>
            <Button
              size="small"
              aria-label={`${light.tag} a third more`}
              disabled={stops >= 0}
              onClick={() => give(light, stops + THIRD)}
            >
              +⅓
            </Button>
            <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
              {own === undefined
                ? 'as on its dial'
                : own === light.powerStops
                  ? 'as planned'
                  : `planned ${formatPower(light.powerStops)}`}
            </Box>
          </Box>
        );
      })}
      <Box sx={{ my: 0.5 }}>
        <Button
          size="small"
          variant="outlined"
          disabled={flashes.length === 0 || !differs}
          onClick={() => change({ powers: { ...trigger.powers, ...asPlanned } })}
        >
          Set all as planned
        </Button>
        <Button size="small" color="inherit" onClick={() => change({ linked: !trigger.linked })}>
          {trigger.linked ? 'For practice: lose its link' : 'Link it again'}
        </Button>
      </Box>
      {!trigger.linked && (
        <Alert severity="warning" sx={{ py: 0 }}>
          The link is lost: no flash fires.
        </Alert>
      )}
      <Choice
        shown
        label="Ready again after full power"
        value={String(trigger.recycleS)}
        options={withOwn(RECYCLE_S, trigger.recycleS).map((value) => ({
          value: String(value),
          words: `${value} s`,
        }))}
        onChoose={(value) => change({ recycleS: Number(value) })}
      />
      <Choice
        shown
        label="Does not fire"
        value={String(trigger.misfirePart)}
        options={withOwn(MISFIRES, trigger.misfirePart).map((value) => ({
          value: String(value),
          words: value === 0 ? 'never' : `${Math.round(100 * value)} % of the time`,
        }))}
        onChoose={(value) => change({ misfirePart: Number(value) })}
      />
      {error && <Alert severity="warning">{failureMessage(error)}</Alert>}
    </Section>
  );
}

const withOwn = (values: readonly number[], own: number): number[] =>
  values.includes(own) ? [...values] : [...values, own].sort((a, b) => a - b);
