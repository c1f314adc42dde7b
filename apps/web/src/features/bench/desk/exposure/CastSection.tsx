import type { Light } from '@fendrix/contract';
import {
  castDeltaE,
  formatStops,
  lightCasts,
  lightColourRgb,
  nearestGels,
  temperatureOf,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Explained } from '../../../../shared/Explained';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { Tag } from '../../../../shared/Tag';
import { changeCamera, changeLight } from '../../state/edits';
import { useBenchDispatch, useReadings, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';

/** Casts below this are not noticed. */
const SEEN_DELTA_E = 2;

/** White balance, the cast of each light against it, and the gel or switch that takes it away. */
export function CastSection() {
  const set = useSet();
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  const casts = lightCasts(set);
  const balance = set.camera.whiteBalanceK;
  return (
    <Section title="White balance and mixed light">
      <QuantityField
        label="recorded as neutral"
        shown={`${Math.round(balance)} K`}
        parse={(text) => {
          const value = Number(text.replace(/k$/i, '').trim());
          return value >= 1000 && value <= 25000 ? value : null;
        }}
        example="5500 K"
        onCommit={(whiteBalanceK) => dispatch(edit(changeCamera({ whiteBalanceK })))}
      />
      {casts.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          No light has a colour temperature: all are neutral to the camera. Give one under All figures of a
          light.
        </Box>
      )}
      {casts.map(({ tag, temperatureK, deltaE, gelMired }) => {
        const gels = nearestGels(gelMired);
        const light = set.lights.find((own) => own.tag === tag);
        return (
          <Explained
            key={tag}
            label={
              <>
                <Tag>{tag}</Tag> {Math.round(temperatureK)} K
              </>
            }
            value={
              deltaE < SEEN_DELTA_E ? 'neutral' : `ΔE ${deltaE.toFixed(0)} ${gelMired < 0 ? 'warm' : 'cold'}`
            }
          >
            CIEDE2000 of a mid grey under this light alone against the balanced one; 2 is just seen. It is{' '}
            {Math.abs(gelMired).toFixed(0)} mired {gelMired < 0 ? 'warmer' : 'colder'} than the balance.
            <Box sx={{ display: 'grid', justifyItems: 'start', mt: 0.5 }}>
              <Button
                size="small"
                onClick={() => dispatch(edit(changeCamera({ whiteBalanceK: Math.round(temperatureK) })))}
              >
                Balance to {tag}
              </Button>
              {gels.length > 0 && (
                <Button
                  size="small"
                  onClick={() =>
                    dispatch(
                      edit(
                        changeLight(tag, (old) => ({
                          ...old,
                          colour: old.colour && {
                            ...old.colour,
                            gels: [...old.colour.gels, ...gels.map((gel) => ({ ...gel }))],
                          },
                        })),
                      ),
                    )
                  }
                >
                  Gel it: {gels.map(({ name }) => name.toLowerCase()).join(' and ')} (
                  {formatStops(-gels.reduce((sum, { lossStops }) => sum + lossStops, 0))})
                </Button>
              )}
              {light?.on && (
                <Button
                  size="small"
                  onClick={() => dispatch(edit(changeLight(tag, (old) => ({ ...old, on: false }))))}
                >
                  Switch {tag} off
                </Button>
              )}
            </Box>
          </Explained>
        );
      })}
      {casts.length > 1 &&
        readings.map(({ name, lights }) => {
          const rgb = mixAt(set.lights, lights, balance);
          if (!rgb) return null;
          const main = [...lights]
            .filter(({ on }) => on)
            .sort((a, b) => (b.stopsFromMidTone ?? -99) - (a.stopsFromMidTone ?? -99))[0];
          const deltaE = castDeltaE(rgb);
          return (
            <Explained
              key={name}
              label={`cast at ${name}`}
              value={deltaE < SEEN_DELTA_E ? 'neutral' : `ΔE ${deltaE.toFixed(0)}`}
            >
              The lights there together, each as much as it is recorded with; {main?.tag} gives most. Cure the
              light whose cast is largest, or balance to the one that matters.
            </Explained>
          );
        })}
    </Section>
  );
}

/** Red, green and blue of the lights at a spot, each by what it is recorded as. */
function mixAt(
  lights: readonly Light[],
  readings: readonly { tag: string; on: boolean; stopsFromMidTone: number | null }[],
  balanceK: number,
): [number, number, number] | null {
  const sum: [number, number, number] = [0, 0, 0];
  for (const { tag, on, stopsFromMidTone } of readings) {
    const light = lights.find((own) => own.tag === tag);
    if (!on || stopsFromMidTone === null || !light) continue;
    const temperature = temperatureOf(light);
    const rgb = temperature === null ? [1, 1, 1] : lightColourRgb(temperature, balanceK);
    for (let c = 0; c < 3; c++) sum[c] = (sum[c] as number) + (rgb[c] as number) * 2 ** stopsFromMidTone;
  }
  return sum[1] > 0 ? sum : null;
}
