import { HOUR_CAUTIONS } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Page } from '../../shared/Page';
import { HourFindings } from './HourFindings';
import { HourPlan } from './HourPlan';
import { HourSteps } from './HourSteps';
import { PrinterWedge } from './PrinterWedge';
import { useHour } from './useHour';

/** The hour in which a studio reads off a card what its own lights, camera and lens give. */
export function CalibrationView() {
  const hour = useHour();
  const { found } = hour;
  useEffect(() => {
    document.title = 'Calibration · Fendrix';
  }, []);
  return (
    <Page title="Calibration" wide>
      <Typography sx={{ color: 'text.secondary', maxWidth: 640, mb: 2 }}>
        Lamps age, cloths differ, a dial is not quite a stop to the stop. A grey card, one light at a time, a
        few distances and powers: then the plans count with what your own pieces give.
      </Typography>
      {!found && <LinearProgress aria-label="The kit is being read" />}
      {found && (
        <>
          <HourPlan {...found} changeHour={hour.changeHour} />
          {found.steps.length > 0 && (
            <>
              <Alert severity="warning" sx={{ mb: 2, maxWidth: 760 }}>
                {HOUR_CAUTIONS}
              </Alert>
              <Box
                sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) minmax(0, 1fr)' }, gap: 4 }}
              >
                <HourSteps {...found} saving={hour.saving} keep={hour.keep} takeOut={hour.takeOut} />
                <HourFindings {...found} change={hour.change} />
              </Box>
            </>
          )}
          <PrinterWedge kit={found.kit} hour={found.hour} change={hour.change} />
        </>
      )}
    </Page>
  );
}
