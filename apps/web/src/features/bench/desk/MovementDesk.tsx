import type { Light } from '@fendrix/contract';
import {
  chanceOfMoment,
  fallSpeedMS,
  flashDurationS,
  formatLength,
  formatPower,
  formatStops,
  freezingTimeS,
  lookOfBlur,
  motionBlur,
  parseLengthM,
  projectPoint,
  triesFor,
  vector,
  viewOf,
} from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Choice } from '../../../shared/Choice';
import { Explained } from '../../../shared/Explained';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { Tag } from '../../../shared/Tag';
import { changeCamera, changeLight } from '../state/edits';
import { useBenchDispatch, useReadings, useSet } from '../state/hooks';
import { edit } from '../state/thunks';
import { countQuantity, timeQuantity } from './stopsQuantity';

type Movement = 'pour' | 'drizzle' | 'sprinkle' | 'splash' | 'hand';

interface Kind {
  words: string;
  /** Whether its speed follows from a fall, and how far it usually falls, m; otherwise a usual speed, m/s. */
  fallM?: number;
  speedMS?: number;
  lastsS: number;
  windowS: number;
  hint: string;
}

/** Usual figures to start from; all can be changed. */
const KINDS: Record<Movement, Kind> = {
  pour: {
    words: 'pour',
    fallM: 0.1,
    lastsS: 3,
    windowS: 1,
    hint: 'A smooth stream looks still at times that smear its drops: judge the edge of the stream and the drops apart. A narrow spout and a thicker liquid keep it smooth.',
  },
  drizzle: {
    words: 'drizzle of syrup or sauce',
    fallM: 0.15,
    lastsS: 6,
    windowS: 2,
    hint: 'A thread of syrup falls slower than this at first and coils where it lands: the figure is the upper end.',
  },
  sprinkle: {
    words: 'sprinkle of sugar or flour',
    fallM: 0.25,
    lastsS: 1.5,
    windowS: 0.3,
    hint: 'Grains are single: there is no smooth part to save the picture. Flour is slowed by the air, coarse sugar hardly.',
  },
  splash: {
    words: 'splash',
    fallM: 0.4,
    lastsS: 0.25,
    windowS: 0.02,
    hint: 'Drops leave about as fast as what fell in. The wanted crown lasts hundredths of a second: many tries, or a trigger.',
  },
  hand: {
    words: 'hand',
    speedMS: 0.3,
    lastsS: 2,
    windowS: 0.7,
    hint: 'Held still it drifts by a few millimetres a second; reaching it moves by some tens of centimetres.',
  },
};

/** Freeze or blur: speed, blur for the shutter and for each flash, what freezes it, tries and spares, tone and focus. */
export default function MovementDesk() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const readings = useReadings();
  const [movement, setMovement] = useState<Movement>('pour');
  const kind = KINDS[movement];
  const [figures, setFigures] = useState<
    Partial<Record<Movement, Partial<Kind & { frames: number; confidence: number; sharpPx: number }>>>
  >({});
  const own = { ...kind, frames: 5, confidence: 0.9, sharpPx: 2, ...figures[movement] };
  const put = (changes: Partial<typeof own>) =>
    setFigures({ ...figures, [movement]: { ...figures[movement], ...changes } });
  const speed = own.fallM === undefined ? (own.speedMS ?? 0) : fallSpeedMS(own.fallM);
  const { camera } = set;
  const freezeS = freezingTimeS(camera, speed, own.sharpPx);
  const flashes = set.lights.filter((light) => light.on && isFlash(light));
  const ambientStops = Math.max(
    Number.NEGATIVE_INFINITY,
    ...readings.map(({ ambient }) => ambient.stops).filter((stops) => !Number.isNaN(stops)),
  );
  const chance = chanceOfMoment(own.lastsS, own.windowS, Math.max(1, Math.round(own.frames)));
  const tries = triesFor(Math.min(1, Math.max(1e-4, chance)), own.confidence);

  return (
    <Box>
      <Section title="Movement">
        <Choice
          label="what moves"
          shown
          value={movement}
          options={(Object.keys(KINDS) as Movement[]).map((value) => ({ value, words: KINDS[value].words }))}
          onChoose={setMovement}
        />
        {own.fallM === undefined ? (
          <QuantityField
            label="speed, m/s"
            shown={countQuantity.format(own.speedMS ?? 0)}
            parse={countQuantity.parse}
            example="0.3"
            onCommit={(speedMS) => put({ speedMS })}
          />
        ) : (
          <QuantityField
            label="falls, from spout to where it is seen"
            shown={formatLength(own.fallM)}
            parse={positiveLength}
            example="10 cm"
            onCommit={(fallM) => put({ fallM })}
          />
        )}
        <Explained label="speed there" value={`${speed.toFixed(2)} m/s`}>
          √(2 g h) with h = {own.fallM === undefined ? 'none' : formatLength(own.fallM)} and g = 9.81 m/s²;
          the air is left out. Half the height is 0.7 of the speed.
        </Explained>
        <QuantityField
          label="sharp is up to, pixels of the sensor"
          shown={countQuantity.format(own.sharpPx)}
          parse={countQuantity.parse}
          example="2"
          onCommit={(sharpPx) => put({ sharpPx })}
        />
        <Explained label="frozen from" value={timeQuantity.format(freezeS)}>
          {own.sharpPx} pixels of the sensor over the speed, at the magnification of this focus.
        </Explained>
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', mt: 0.5 }}>{own.hint}</Box>
      </Section>

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

      <Section title="Tries and spares">
        <QuantityField
          label="the movement lasts"
          shown={timeQuantity.format(own.lastsS)}
          parse={timeQuantity.parse}
          example="3 s"
          onCommit={(lastsS) => put({ lastsS })}
        />
        <QuantityField
          label="of it is wanted"
          shown={timeQuantity.format(own.windowS)}
          parse={timeQuantity.parse}
          example="0.3 s"
          onCommit={(windowS) => put({ windowS })}
        />
        <QuantityField
          label="frames in one try"
          shown={countQuantity.format(own.frames)}
          parse={countQuantity.parse}
          example="5"
          onCommit={(frames) => put({ frames })}
        />
        <QuantityField
          label="sure to, %"
          shown={String(Math.round(100 * own.confidence))}
          parse={(text) => {
            const value = Number(text.replace('%', '').trim());
            return value > 0 && value < 100 ? value / 100 : null;
          }}
          example="90"
          onCommit={(confidence) => put({ confidence })}
        />
        <Explained label="chance of a try" value={`${(100 * chance).toFixed(0)} %`}>
          1 − (1 − w/T)ⁿ: {own.windowS} s wanted of {own.lastsS} s, {Math.round(own.frames)} frames at times
          nobody controls. A flash that recycles in time, or a trigger, raises it.
        </Explained>
        <Explained label="tries, so portions to have ready" value={String(tries)}>
          ln(1 − c) / ln(1 − p), rounded up. One portion each, and one spare to set the focus on.
        </Explained>
      </Section>

      <ToneAndFocus />

      <Alert severity="warning">
        Liquid near lights and packs: residual-current device, drip loops, nothing on the floor with a joint,
        heads above and away, hands dry. Cover the camera. What was styled with glue or left warm is not
        eaten.
      </Alert>
    </Box>
  );
}

const positiveLength = (text: string) => {
  const value = parseLengthM(text);
  return value !== null && value > 0 ? value : null;
};

const isFlash = ({ output }: Light) =>
  output.kind === 'flash-energy' || output.kind === 'guide-number' || output.kind === 'flash-exposure';

function BlurRow({
  label,
  timeS,
  speedMS,
  children,
}: {
  label: React.ReactNode;
  timeS: number;
  speedMS: number;
  children?: React.ReactNode;
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
      Give t0.1 from its data sheet under All figures. Turned down, some heads get shorter and some longer: it
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

/** Below this the stream is lost against the ground, stops. */
const APART_STOPS = 1;

/** Tone of what moves against the ground, and its place against the plane of focus. */
function ToneAndFocus() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const readings = useReadings();
  const seen = readings.filter(({ stopsFromMidTone }) => stopsFromMidTone !== null).map(({ name }) => name);
  const [stream, setStream] = useState('');
  const [ground, setGround] = useState('');
  const one = readings.find(({ name }) => name === (seen.includes(stream) ? stream : seen[0]));
  const other = readings.find(({ name }) => name === (seen.includes(ground) ? ground : seen[1]));
  if (!one || !other || seen.length < 2) {
    return (
      <Section title="Tone and focus">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Pin one spot where the stream will be (hold a spoon or the glass there) and one on the ground behind
          it.
        </Box>
      </Section>
    );
  }
  const apart = (one.stopsFromMidTone ?? 0) - (other.stopsFromMidTone ?? 0);
  const view = viewOf(set.camera);
  const depth = vector.dot(vector.subtract(one.pointM, view.origin), view.forward);
  const off = depth - set.camera.focusM;
  return (
    <Section title="Tone and focus">
      <Choice label="the stream runs at" shown value={one.name} options={seen} onChoose={setStream} />
      <Choice
        label="before the ground at"
        shown
        value={other.name}
        options={seen.filter((name) => name !== one.name)}
        onChoose={setGround}
      />
      <Explained
        label="apart"
        value={`${formatStops(apart)}${Math.abs(apart) < APART_STOPS ? ', lost' : ', reads'}`}
      >
        A stream reads from about {APART_STOPS} stop of difference on. Light from behind lifts clear and thin
        liquids, a darker or brighter ground does the rest.
      </Explained>
      <Explained
        label="from the plane of focus"
        value={`${formatLength(Math.abs(off))} ${off < 0 ? 'before' : 'behind'}`}
      >
        Focus on a spoon held where it will fall, then lock. It lies{' '}
        {projectPoint(view, one.pointM) ? 'in the frame' : 'outside of the frame'}.
        <Button size="small" onClick={() => dispatch(edit(changeCamera({ focusM: depth })))}>
          Focus there
        </Button>
      </Explained>
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        Who pours stands where no mirror shows them: put a person on the set (A, A person) and press M.
      </Box>
    </Section>
  );
}
