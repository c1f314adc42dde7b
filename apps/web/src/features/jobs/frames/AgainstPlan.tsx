import type { Frame, FrameAgainstPlan, MeasuredFigure } from '@fendrix/contract';
import { formatLength, formatStops } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import { useState } from 'react';
import { failureMessage } from '../../../shared/api';
import { PlainTable } from '../../../shared/PlainTable';
import { FrameBesidePlan } from './FrameBesidePlan';
import { FrameSharpness } from './FrameSharpness';
import { FrameVerdicts } from './FrameVerdicts';
import { framesApi } from './framesApi';
import { MovedThings } from './MovedThings';
import { Note } from './Note';

/** A spot that differs by more is told first, stops. */
const APART_STOPS = 0.33;

/** A frame held against the plan of its set: which light is off by how much, tones at the spots, the two pictures wiped. */
export function AgainstPlan({ frame, of }: { frame: Frame; of: string }) {
  const [asked, setAsked] = useState(false);
  const { data, error, isFetching, refetch } = framesApi.useReadAgainstPlanQuery(
    { id: frame.id, of },
    { skip: !asked },
  );
  return (
    <Box component="section" aria-label="Against the plan" sx={{ mt: 1.5 }}>
      {!asked && (
        <Button size="small" variant="outlined" onClick={() => setAsked(true)}>
          Hold it against the plan
        </Button>
      )}
      {isFetching && (
        <Box role="status" sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
          <CircularProgress size={16} aria-hidden />
          The plan is being traced as the frame was exposed. This takes some ten seconds.
        </Box>
      )}
      {error && !isFetching && <Alert severity="warning">{failureMessage(error)}</Alert>}
      {data && !isFetching && (
        <>
          <FrameVerdicts found={data} />
          <Lights found={data} />
          <Place found={data} />
          <Products found={data} />
          <MovedThings
            key={`${frame.id} ${of}`}
            id={frame.id}
            of={of}
            setRevision={data.setRevision}
            onSetChanged={refetch}
          />
          <FrameSharpness found={data} />
          <Spots found={data} />
          <FrameBesidePlan
            key={`${frame.id} ${data.setRevision}`}
            frame={frame}
            setRevision={data.setRevision}
          />
        </>
      )}
    </Box>
  );
}

function Lights({ found: { lights, exposedAsFrame } }: { found: FrameAgainstPlan }) {
  const off = lights.filter(({ isOff }) => isOff);
  return (
    <>
      {off.length > 0 ? (
        <Alert severity="warning" sx={{ mb: 1 }}>
          {off
            .map(
              ({ tag, stops }) =>
                `Light ${tag} gives ${Math.abs(stops).toFixed(1)} stops ${stops < 0 ? 'less' : 'more'} than planned`,
            )
            .join('. ')}
          . See to its power first, then to its place and what is on it.
        </Alert>
      ) : (
        <Box sx={{ mb: 1 }}>No light is off by more than building lets it be.</Box>
      )}
      <PlainTable name="lights of the frame">
        <thead>
          <tr>
            <th scope="col">Light</th>
            <th scope="col">More than planned</th>
          </tr>
        </thead>
        <tbody>
          {lights.map(({ tag, name, stops, error }) => (
            <tr key={tag}>
              <th scope="row">
                {tag} {name}
              </th>
              <td className="number">
                {formatStops(stops)} ± {Math.max(0.01, error).toFixed(2)}
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Note>
        The frame is taken apart into what each light gives in the plan. The curve of the camera is taken to
        be sRGB unless its body was calibrated.
        {!exposedAsFrame && ' The camera wrote no settings: the plan is exposed as its set says.'}
      </Note>
    </>
  );
}

/** Less is what tape and hand let a camera be off by, m; and so many deviations have to lie between it and none. */
const MOVED_M = 0.002;
const SURE = 3;

/** Whether all of it stands elsewhere in the picture. */
function Place({ found: { shift } }: { found: FrameAgainstPlan }) {
  if (!shift) return <Box sx={{ my: 1 }}>Too few edges tell whether it stands where it was planned.</Box>;
  const { rightM, downM } = shift;
  const isMoved = ({ value, error }: { value: number; error: number }) =>
    Math.abs(value) >= MOVED_M && Math.abs(value) >= SURE * error;
  const ways = [
    isMoved(rightM) &&
      `${formatLength(Math.abs(rightM.value))} further to the ${rightM.value > 0 ? 'right' : 'left'}`,
    isMoved(downM) && `${formatLength(Math.abs(downM.value))} ${downM.value > 0 ? 'lower' : 'higher'}`,
  ].filter(Boolean);
  return ways.length === 0 ? (
    <Box sx={{ my: 1 }}>It stands in the picture where it was planned, within {formatLength(MOVED_M)}.</Box>
  ) : (
    <Alert severity="info" sx={{ my: 1 }}>
      All of it stands {ways.join(' and ')} than planned. See to the products and where the camera points.
    </Alert>
  );
}

/** Less is what a hand makes of it, degrees. */
const [LEAN_DEG, TURN_DEG] = [0.7, 2];

/** How each product stands against the plan, as far as its outline and label tell it. */
function Products({ found: { products } }: { found: FrameAgainstPlan }) {
  const told = products.filter(({ right, leanDeg, turnDeg }) => right || leanDeg || turnDeg);
  if (told.length === 0) return null;
  const isSure = (figure: MeasuredFigure | null, least: number): figure is MeasuredFigure =>
    figure !== null && Math.abs(figure.value) >= least && Math.abs(figure.value) >= SURE * figure.error;
  const side = (value: number) => (value > 0 ? 'right' : 'left');
  const off = told.flatMap(({ name, leanDeg, turnDeg, radiusM }) => [
    ...(isSure(leanDeg, LEAN_DEG)
      ? [`${name} leans ${Math.abs(leanDeg.value).toFixed(1)}° to the ${side(leanDeg.value)}`]
      : []),
    ...(isSure(turnDeg, TURN_DEG)
      ? [
          `The label of ${name} is turned ${Math.abs(turnDeg.value).toFixed(1)}° (${formatLength(Math.abs(turnDeg.value * radiusM * RADIANS))}) to the ${side(turnDeg.value)}`,
        ]
      : []),
  ]);
  const figure = (own: MeasuredFigure | null, words: (value: number) => string) =>
    own === null ? 'not told' : `${words(own.value)} ± ${words(own.error)}`;
  const degreesOf = (value: number) => `${value.toFixed(1)}°`;
  const mmOf = (value: number) => `${(1000 * value).toFixed(1)} mm`;
  return (
    <>
      {off.length > 0 && (
        <Alert severity="warning" sx={{ my: 1 }}>
          {off.join('. ')}.
        </Alert>
      )}
      <PlainTable name="products in the frame">
        <thead>
          <tr>
            <th scope="col">Product</th>
            <th scope="col">further right</th>
            <th scope="col">leans right</th>
            <th scope="col">label turned right</th>
          </tr>
        </thead>
        <tbody>
          {told.map(({ name, right, leanDeg, turnDeg }) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td className="number">{figure(right, mmOf)}</td>
              <td className="number">{figure(leanDeg, degreesOf)}</td>
              <td className="number">{figure(turnDeg, degreesOf)}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </>
  );
}

const RADIANS = Math.PI / 180;

function Spots({ found: { spots } }: { found: FrameAgainstPlan }) {
  if (spots.length === 0) return null;
  return (
    <PlainTable name="spots of the frame">
      <thead>
        <tr>
          <th scope="col">Spot</th>
          <th scope="col">Plan</th>
          <th scope="col">Frame</th>
        </tr>
      </thead>
      <tbody>
        {spots.map(({ name, plan, frame }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="number">{formatStops(plan)}</td>
            <td className="number">
              {frame === null ? (
                'clipped or black'
              ) : (
                <Box component="span" sx={{ fontWeight: Math.abs(frame - plan) > APART_STOPS ? 650 : 400 }}>
                  {formatStops(frame)}
                </Box>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </PlainTable>
  );
}
