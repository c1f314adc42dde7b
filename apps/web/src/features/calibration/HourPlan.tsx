import type { CalibrationHour } from '@fendrix/contract';
import { lightLuminance } from '@fendrix/core';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { Choice } from '../../shared/Choice';
import { Section } from '../../shared/Section';
import { equipmentOf } from '../kit';
import { CARDS } from './cards';
import type { useHour } from './useHour';

type Hour = ReturnType<typeof useHour>;

/** What is read with, and which lights. */
export function HourPlan({
  kit,
  hour,
  lights,
  changeHour,
}: NonNullable<Hour['found']> & Pick<Hour, 'changeHour'>) {
  const { bodies, lenses } = equipmentOf(kit);
  const set = (words: string, changes: Partial<CalibrationHour>) =>
    void changeHour(words, (now) => ({ ...now, ...changes }));
  const named = (things: readonly { id: string; name: string }[]) =>
    things.map(({ id, name }) => ({ value: id, words: name }));
  return (
    <Section title="What is read, and with what">
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, mb: 1, '& > *': { minWidth: 340 } }}>
        <Choice
          shown
          label="Camera"
          value={hour.body}
          options={named(bodies)}
          onChoose={(body) =>
            set('Another camera: what was read with the one before is left out.', { body, readings: [] })
          }
        />
        <Choice
          shown
          label="Lens"
          value={hour.lens}
          options={named(lenses)}
          onChoose={(lens) =>
            set('Another lens: what was read with the one before is left out.', {
              lens,
              focalLengthM: lenses.find(({ id }) => id === lens)?.longestM ?? hour.focalLengthM,
              readings: [],
            })
          }
        />
        <Choice
          shown
          label="Card"
          value={String(hour.cardReflectance)}
          options={[
            ...CARDS,
            ...(CARDS.some(({ value }) => Number(value) === hour.cardReflectance)
              ? []
              : [{ value: String(hour.cardReflectance), words: `${100 * hour.cardReflectance} %` }]),
          ]}
          onChoose={(card) => set('The card is changed.', { cardReflectance: Number(card) })}
        />
      </Box>
      <Box component="fieldset" sx={{ border: 0, p: 0, m: 0 }}>
        <Box component="legend" sx={{ fontSize: '0.8125rem', color: 'text.secondary', p: 0 }}>
          {hour.lights.length === 0
            ? 'Choose the lights to read; one takes ten minutes.'
            : 'Lights that are read'}
        </Box>
        <Box sx={{ columns: { sm: 2, lg: 3 } }}>
          {lights.map(({ entry, name, light, calibratedOn }) => (
            <FormControlLabel
              key={entry}
              sx={{ display: 'flex', breakInside: 'avoid' }}
              control={
                <Checkbox
                  size="small"
                  sx={{ py: 0.25 }}
                  checked={hour.lights.includes(entry)}
                  onChange={(_, on) =>
                    set(on ? `“${name}” is read.` : `“${name}” is left out.`, {
                      lights: on ? [...hour.lights, entry] : hour.lights.filter((id) => id !== entry),
                    })
                  }
                />
              }
              label={
                <Box component="span" sx={{ fontSize: '0.8125rem' }}>
                  {name}
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    {lightLuminance(light).time === 'continuous' && ', lasting light'}
                    {calibratedOn !== null && `, calibrated ${calibratedOn}`}
                  </Box>
                </Box>
              }
            />
          ))}
        </Box>
      </Box>
    </Section>
  );
}
