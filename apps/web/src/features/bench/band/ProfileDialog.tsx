import { formatStops, type ProfileFigures } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useMemo } from 'react';
import { Chart, type ChartOption } from '../../../shared/Chart';

interface ProfileDialogProps {
  name: string;
  part: Float64Array;
  stops: readonly number[];
  figures: ProfileFigures;
  onClose(): void;
}

const FLOOR = -8;

/** Luminance across the product as a curve, with what it says of symmetry and smoothness. */
export default function ProfileDialog({ name, part, stops, figures, onClose }: ProfileDialogProps) {
  const option = useMemo(
    (): ChartOption => ({
      grid: { left: 44, right: 16, top: 16, bottom: 40 },
      xAxis: { type: 'value', min: 0, max: 100, name: '% of the width', nameLocation: 'middle', nameGap: 26 },
      yAxis: { type: 'value', name: 'stops', min: FLOOR },
      tooltip: { trigger: 'axis', valueFormatter: (value) => formatStops(Number(value)) },
      series: [
        {
          type: 'line',
          showSymbol: false,
          data: stops.map((value, i) => [100 * (part[i] as number), Math.max(FLOOR, value)]),
        },
      ],
    }),
    [part, stops],
  );
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="profile-title">
      <DialogTitle id="profile-title">Luminance across {name}</DialogTitle>
      <DialogContent>
        <Chart
          label={`Luminance across ${name}, stops from mid-tone`}
          option={option}
          height={300}
          table={{
            heads: ['% of the width', 'stops from mid-tone'],
            rows: stops.map((value, i) => [
              (100 * (part[i] as number)).toFixed(1),
              formatStops(Math.max(FLOOR, value)),
            ]),
          }}
        />
        <Box
          component="dl"
          sx={{
            display: 'grid',
            gridTemplateColumns: 'auto 1fr',
            columnGap: 2,
            rowGap: 0.5,
            fontSize: '0.875rem',
            '& dd': { m: 0 },
          }}
        >
          <dt>Even left to right</dt>
          <dd>
            {Math.round(100 * figures.symmetry)} %: one less the difference of each pair of columns over their
            sum. 100 % mirrors itself.
          </dd>
          <dt>Steepest edge</dt>
          <dd>
            {figures.steepest.toFixed(2)} stops in one percent of the width. Below about 0.3 it reads as a
            soft roll, above 1 as a hard edge.
          </dd>
          <dt>Bright part</dt>
          <dd>
            {Math.round(100 * figures.brightPart)} % of the width lies within one stop of the brightest
            column, which is at {formatStops(figures.mostStops)}; the darkest is at{' '}
            {formatStops(Math.max(FLOOR, figures.leastStops))}.
          </dd>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
