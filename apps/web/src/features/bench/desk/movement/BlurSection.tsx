import type { Light } from '@fendrix/contract';
import {
  flashDurationS,
  formatLength,
  formatPower,
  formatStops,
  halfDurationS,
  lookOfBlur,
  motionBlur,
} from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { Explained } from '../../../../shared/Explained';
import { timeQuantity } from '../../../../shared/form/words';
import { Section } from '../../../../shared/Section';
import { Tag } from '../../../../shared/Tag';
import { changeLight } from '../../state/edits';
import { useBenchDispatch, useReadings, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';

/** What the movement blurs for the shutter and for each flash, and what would freeze it. */
export function BlurSection({ speedMS: speed, freezeS }: { speedMS: number; freezeS: number }) {
  const set = useSet();
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  const { camera } = set;
  const flashes = set.lights.filter((light) => light.on && isFlash(light));
  const ambientStops = Math.max(
    Number.NEGATIVE_INFINITY,
    ...readings.map(({ ambient }) => ambient.stops).filter((stops) => !Number.isNaN(stops)),
  );
  return (
    <Section title="Blur">
      <BlurRow
        label={<>shutter {timeQuantity.format(camera.shutterS)}, continuous light</>}
        timeS={camera.shutterS}
        speedMS={speed}
      />
      {flashes.map((light) => {
        const t = flashDurationS(light);
        return t === null ? (
          <UnknownDuration key={light.tag} light={light} />
        ) : (
          <BlurRow
            key={light.tag}
            label={
              <>
                <Tag>{light.tag}</Tag> {formatPower(light.powerStops)}, t0.1 {timeQuantity.format(t)}
              </>
            }
            timeS={t}
            speedMS={speed}
          >
            <FreezeBy
              light={light}
              freezeS={freezeS}
              onSet={(powerStops) =>
                dispatch(edit(changeLight(light.tag, (old) => ({ ...old, powerStops }))))
              }
            />
          </BlurRow>
        );
      })}
      {flashes.length > 0 && Number.isFinite(ambientStops) && ambientStops > -5 && (
        <Alert severity="warning" sx={{ mt: 1 }}>
          Ambient is only {formatStops(ambientStops)} under the flash: the shutter draws a second, smeared
          picture. Keep it under −5 on the exposure desk.
        </Alert>
      )}
    </Section>
  );
}

const isFlash = ({ output }: Light) =>
  output.kind === 'flash-energy' || output.kind === 'guide-number' || output.kind === 'flash-exposure';

function BlurRow({
  label,
  timeS,
  speedMS,
  children,
}: {
  label: ReactNode;
  timeS: number;
  speedMS: number;
  children?: ReactNode;
}) {
  const { camera } = useSet();
  const { blurM, pixels } = motionBlur(camera, speedMS, timeS);
  return (
    <Explained
      label={label}
      value={`${formatLength(blurM)} · ${pixels < 10 ? pixels.toFixed(1) : Math.round(pixels)} px · ${lookOfBlur(pixels)}`}
    >
      Speed times time, and that times the magnification over the pixel pitch. Up to 2 pixels it is frozen, to
      8 just soft, to 60 smeared, beyond it flows. {children}
    </Explained>
  );
}

/** The power at which a flash freezes the movement, where its kind allows. */
function FreezeBy({
  light,
  freezeS,
  onSet,
}: {
  light: Light;
  freezeS: number;
  onSet(powerStops: number): void;
}) {
  const duration = 'duration' in light ? light.duration : undefined;
  if (!duration) return null;
  const { fullS, stopsPerStop } = duration;
  const least = light.dial?.leastStops ?? -8;
  const wanted = stopsPerStop === 0 ? Number.NaN : Math.log2(freezeS / fullS) / stopsPerStop;
  const kind =
    stopsPerStop > 0
      ? 'It is switched off early: shorter when turned down.'
      : stopsPerStop < 0
        ? 'It is set by its voltage: longer when turned down.'
        : 'Its duration does not change.';
  const reachable = stopsPerStop > 0 ? wanted >= least : wanted <= 0;
  if (!Number.isFinite(wanted) || !reachable) {
    return (
      <>{kind} It does not freeze this at any power: less height, a smaller picture of it, or another head.</>
    );
  }
  const power = Math.max(least, Math.min(0, wanted));
  return (
    <>
      {kind} It freezes this at {formatPower(power)} or {stopsPerStop > 0 ? 'less' : 'more'}.
      <Button
        size="small"
        onClick={() => onSet(Math.round(10 * power - (stopsPerStop > 0 ? 0.5 : -0.5)) / 10)}
      >
        Set it
      </Button>
    </>
  );
}

/** Usual figures of the two families; the head's data sheet comes first. */
const FAMILIES = [
  {
    words: 'switched off early (small flash, many newer heads)',
    duration: { fullS: 1 / 300, stopsPerStop: 0.8 },
  },
  { words: 'set by its voltage (many studio heads)', duration: { fullS: 1 / 800, stopsPerStop: -0.2 } },
];

function UnknownDuration({ light }: { light: Light }) {
  const dispatch = useBenchDispatch();
  return (
    <Explained
      label={
        <>
          <Tag>{light.tag}</Tag> {formatPower(light.powerStops)}
        </>
      }
      value="duration not known"
    >
      Give t0.1 from its data sheet under All figures; where it says t0.5, t0.1 is{' '}
      {(1 / halfDurationS(1)).toFixed(1)} times that. Turned down, some heads get shorter and some longer: it
      is never taken for granted. Usual figures to start from:
      {FAMILIES.map(({ words, duration }) => (
        <Button
          key={words}
          size="small"
          onClick={() =>
            dispatch(
              edit(changeLight(light.tag, (old) => (old.kind === 'surround' ? old : { ...old, duration }))),
            )
          }
        >
          {words}
        </Button>
      ))}
    </Explained>
  );
}
