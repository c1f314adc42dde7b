import type { DepthCamera, FormatFit, StagedShot } from '@fendrix/core';
import {
  backgroundBlur,
  circleOfConfusionM,
  depthOfField,
  F_NUMBERS,
  focusBetween,
  focusStack,
  formatLength,
  handHeldShutterS,
  namedSpots,
  parseLengthM,
  pointBlur,
  printedSetting,
  SHUTTERS,
  sharpestStop,
  vector,
  viewOf,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { Chart, type ChartOption } from '../../../shared/Chart';
import { Explained } from '../../../shared/Explained';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { useEquipment } from '../../kit';
import { partQuantity } from '../quantities';

interface DepthDeskProps {
  staged: Pick<StagedShot, 'placed' | 'set'>;
  fits: readonly (FormatFit & { name: string; widthPx: number })[];
  onStop(fNumber: number): void;
}

const roundStop = (fNumber: number) => Math.round(fNumber * 100) / 100;
const px = (value: number) => `${value < 10 ? value.toFixed(1) : Math.round(value)} px`;

/** Sharpness from front to back: the f-stop that covers it best, a focus stack where none does, blur behind. */
export function DepthDesk({ staged: { placed, set }, fits, onStop }: DepthDeskProps) {
  const equipment = useEquipment();
  const [behindM, setBehind] = useState(0.5);
  const [overlap, setOverlap] = useState(0.25);
  const [seconds, setSeconds] = useState(8);
  const { camera, nearM, farM } = placed;
  const lens = equipment?.lenses.find(({ name }) => name === camera.lens.name);
  const stops = useMemo(
    () =>
      F_NUMBERS.map(({ value }) => value).filter(
        (value) =>
          value >= (lens?.widestFNumber ?? 2.8) * 0.97 && value <= (lens?.smallestFNumber ?? 32) * 1.03,
      ),
    [lens],
  );
  const { best, curve } = useMemo(
    () => sharpestStop(camera, nearM, farM, stops),
    [camera, nearM, farM, stops],
  );
  const largest = [...fits].sort((a, b) => b.widthPx - a.widthPx)[0];
  const circleM = circleOfConfusionM(
    camera.body,
    largest?.pixelsWide || camera.body.pixelsWide,
    largest?.widthPx ?? camera.body.pixelsWide,
  );
  const circlePx = (circleM * camera.body.pixelsWide) / camera.body.sensorWidthM;
  const focusM = focusBetween(nearM, farM);
  const now = useMemo(() => ({ ...camera, focusM }), [camera, focusM]);
  const ends = [pointBlur(now, nearM), pointBlur(now, farM)] as const;
  const held = depthOfField({ ...camera, focusM }, circleM);
  const stack = focusStack(now, nearM, farM, circleM, overlap, seconds);
  const body = equipment?.bodies.find(({ name }) => name === camera.body.name);
  const handS = handHeldShutterS(now, body?.handShutterS ?? 1 / 125);
  const option = useMemo(() => chartOption(curve), [curve]);
  const limits = useMemo(
    () => [
      { name: 'one output pixel', yAxis: Math.round(100 * circlePx) / 100 },
      { name: 'set', xAxis: `f/${printedSetting(F_NUMBERS, camera.fNumber)}` },
    ],
    [circlePx, camera.fNumber],
  );

  return (
    <Section title="Depth">
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 340px' }, gap: 3 }}>
        <Chart
          onPick={{ words: 'Take', take: (index) => onStop(roundStop(stops[index] as number)) }}
          label="Worst blur from front to back by f-stop"
          option={option}
          limits={limits}
          table={{
            heads: ['f-stop', 'worst blur', 'out of focus', 'diffraction'],
            rows: curve.map(({ fNumber, worst }) => [
              `f/${printedSetting(F_NUMBERS, fNumber)}`,
              px(worst.pixels),
              px((worst.defocusM / worst.totalM) * worst.pixels),
              px((worst.diffractionM / worst.totalM) * worst.pixels),
            ]),
          }}
        />
        <Box>
          <Explained
            label="sharpest stop front to back"
            value={`f/${printedSetting(F_NUMBERS, best.fNumber)}`}
          >
            At each stop the worst point from {formatLength(nearM)} to {formatLength(farM)} from the lens: out
            of focus falls with a smaller stop, diffraction grows. The least of their root sum of squares is
            at f/
            {printedSetting(F_NUMBERS, best.fNumber)}: {px(best.worst.pixels)}. A smaller product in the frame
            or less tilt needs less depth.
          </Explained>
          <Explained
            label={`at f/${printedSetting(F_NUMBERS, camera.fNumber)}, front and back`}
            value={`${px(ends[0].pixels)}, ${px(ends[1].pixels)}`}
          >
            Focused at {formatLength(focusM)}, the harmonic mean of front and back, which blurs both alike.
            Diffraction alone: {px((ends[0].diffractionM / ends[0].totalM) * ends[0].pixels)}.
          </Explained>
          <Explained
            label="out of focus by less than one output pixel"
            value={`${formatLength(held.farM - held.nearM)} deep`}
          >
            From {formatLength(held.nearM)} to {formatLength(held.farM)}. The circle of confusion is{' '}
            {(circleM * 1e6).toFixed(1)} µm: one pixel of {largest ? `“${largest.name}”` : 'the whole file'}{' '}
            as delivered, never finer than the sensor.
          </Explained>
          <Button
            size="small"
            sx={{ px: 0 }}
            disabled={Math.abs(best.fNumber / camera.fNumber - 1) < 0.02}
            onClick={() => onStop(roundStop(best.fNumber))}
          >
            Take f/{printedSetting(F_NUMBERS, best.fNumber)}
          </Button>
          <QuantityField
            label="a background behind the focus by"
            shown={formatLength(behindM)}
            parse={(text) => parseLengthM(text)}
            example="60 cm"
            onCommit={setBehind}
          />
          <Explained
            label="blurs to"
            value={`${(100 * backgroundBlur(now, behindM)).toFixed(1)} % of the width`}
          >
            Disc of one point: entrance pupil × size on the sensor × share of the way. A wider stop, a longer
            lens or more distance behind blur it more.
          </Explained>
          <Explained label="by hand down to" value={`${printedSetting(SHUTTERS, handS)} s`}>
            A rule of thumb: what your body holds with 50 mm from afar, over the focal length and 1 + size on
            the sensor. Slower wants a tripod, and a self-timer or remote so that no finger shakes it.
          </Explained>
        </Box>
      </Box>
      <BlurAlong camera={now} nearM={nearM} farM={farM} circlePx={circlePx} />
      <SpotBlur staged={{ placed, set }} focusM={focusM} />
      <Box component="h3" sx={{ fontSize: '0.875rem', mb: 0.5, mt: 2 }}>
        Focus steps
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 340px' }, gap: 3 }}>
        <Box sx={{ fontSize: '0.8125rem' }}>
          {stack?.positionsM.length === 1 && (
            <Box>
              One frame at f/{printedSetting(F_NUMBERS, camera.fNumber)} keeps front and back in focus within
              one output pixel. Diffraction comes on top and blurs all of it alike.
            </Box>
          )}
          {stack && stack.positionsM.length > 1 && (
            <>
              <Box>
                {stack.positionsM.length} frames at f/{printedSetting(F_NUMBERS, camera.fNumber)} hold{' '}
                {formatLength(farM - nearM)} from front to back, in {Math.ceil(10 * stack.minutes) / 10} min.
              </Box>
              <Box className="number" sx={{ color: 'text.secondary', mt: 0.5 }}>
                focus at{' '}
                {stack.positionsM
                  .slice(0, 24)
                  .map((position) => `${(position * 1000).toFixed(1)}`)
                  .join(', ')}
                {stack.positionsM.length > 24 ? ' …' : ''} mm from the lens
              </Box>
              <Box sx={{ color: 'text.secondary', mt: 0.5 }}>
                By rail move the camera by the same steps; by the ring turn from near to far. Nothing may move
                meanwhile.
              </Box>
            </>
          )}
          {!stack && <Box>It would take more than 500 frames: a smaller stop, or less of it sharp.</Box>}
        </Box>
        <Box>
          <QuantityField
            label="each covers again"
            shown={partQuantity.format(overlap)}
            parse={(text) => {
              const part = partQuantity.parse(text);
              return part !== null && part < 0.9 ? part : null;
            }}
            example="25 %"
            onCommit={setOverlap}
          />
          <QuantityField
            label="time a frame"
            shown={`${seconds} s`}
            parse={(text) => {
              const value = Number.parseFloat(text);
              return value > 0 && value < 3600 ? value : null;
            }}
            example="8 s"
            onCommit={setSeconds}
          />
        </Box>
      </Box>
    </Section>
  );
}

/** Blur by distance from the lens at the f-stop set, from a little before the product to a little behind it. */
function BlurAlong({
  camera,
  nearM,
  farM,
  circlePx,
}: {
  camera: DepthCamera;
  nearM: number;
  farM: number;
  circlePx: number;
}) {
  const points = useMemo(() => {
    const deep = Math.max(farM - nearM, 0.01);
    return Array.from({ length: 33 }, (_, i) => {
      const depthM = Math.max(1e-3, nearM - 0.3 * deep + (i / 32) * 1.6 * deep);
      return { depthM, pixels: pointBlur(camera, depthM).pixels };
    });
  }, [camera, nearM, farM]);
  const option = useMemo(
    (): ChartOption => ({
      grid: { left: 44, right: 12, top: 24, bottom: 26 },
      tooltip: { trigger: 'axis', valueFormatter: (value) => px(Number(value)) },
      xAxis: { type: 'value', scale: true, axisLabel: { formatter: '{value} cm' } },
      yAxis: { type: 'value', name: 'px' },
      series: [
        {
          name: 'blur',
          type: 'line',
          symbol: 'none',
          data: points.map(({ depthM, pixels }) => [100 * depthM, pixels]),
        },
      ],
    }),
    [points],
  );
  const limits = useMemo(
    () => [
      { name: 'front', xAxis: 100 * nearM },
      { name: 'back', xAxis: 100 * farM },
      { name: 'one output pixel', yAxis: circlePx },
    ],
    [nearM, farM, circlePx],
  );
  return (
    <Chart
      label="Blur from front to back by distance from the lens"
      option={option}
      limits={limits}
      height={170}
      table={{
        heads: ['from the lens', 'blur'],
        rows: points.map(({ depthM, pixels }) => [formatLength(depthM), px(pixels)]),
      }}
    />
  );
}

/** Blur at the spots that are looked at: front, back, top, labels. */
function SpotBlur({ staged: { placed, set }, focusM }: Pick<DepthDeskProps, 'staged'> & { focusM: number }) {
  const { camera } = placed;
  const { origin, forward } = viewOf(camera);
  const rows = set.products.flatMap((product) =>
    namedSpots(product).map(({ name, pointM }) => {
      const depthM = vector.dot(vector.subtract(pointM, origin), forward);
      const { pixels } = pointBlur({ ...camera, focusM }, depthM);
      return { key: `${product.id} ${name}`, name: `${product.name}, ${name}`, depthM, pixels };
    }),
  );
  return (
    <Box
      component="table"
      aria-label="Blur at spots"
      sx={{ fontSize: '0.8125rem', mt: 1, '& td, & th': { pr: 3, textAlign: 'left' } }}
    >
      <thead>
        <tr>
          <th>spot</th>
          <th>from the lens</th>
          <th>blur at f/{printedSetting(F_NUMBERS, camera.fNumber)}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, name, depthM, pixels }) => (
          <tr key={key}>
            <td>{name}</td>
            <td className="number">{formatLength(depthM)}</td>
            <td className="number">{px(pixels)}</td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}

function chartOption(
  curve: readonly {
    fNumber: number;
    worst: { pixels: number; defocusM: number; diffractionM: number; totalM: number };
  }[],
): ChartOption {
  const names = curve.map(({ fNumber }) => `f/${printedSetting(F_NUMBERS, fNumber)}`);
  const part = (pick: (worst: (typeof curve)[number]['worst']) => number) =>
    curve.map(({ worst }) => Math.round(100 * (pick(worst) / worst.totalM) * worst.pixels) / 100);
  return {
    grid: { left: 44, right: 12, top: 30, bottom: 26 },
    legend: { top: 0 },
    tooltip: { trigger: 'axis', valueFormatter: (value) => px(Number(value)) },
    xAxis: { type: 'category', data: names },
    yAxis: { type: 'value', name: 'px' },
    series: [
      {
        name: 'worst blur',
        type: 'line',
        data: part(({ totalM }) => totalM),
      },
      {
        name: 'out of focus',
        type: 'line',
        data: part(({ defocusM }) => defocusM),
        lineStyle: { type: 'dashed' },
        symbol: 'none',
      },
      {
        name: 'diffraction',
        type: 'line',
        data: part(({ diffractionM }) => diffractionM),
        lineStyle: { type: 'dotted' },
        symbol: 'none',
      },
    ],
  };
}
