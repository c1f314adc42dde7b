import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import { lazy, memo, Suspense } from 'react';
import { surround } from '../../../shared/theme';
import { useFigure } from '../figures/figureStore';
import { PlanView } from '../plan/PlanView';
import { benchActions, type Desk } from '../state/benchSlice';
import { useBench, useBenchDispatch } from '../state/hooks';
import { Area, Heading } from '../views/Area';
import { AddButton } from '../views/Palette';

// Charts and the third dimension are large and not wanted at once.
const ExposureDesk = lazy(() => import('./ExposureDesk'));
const MovementDesk = lazy(() => import('./MovementDesk'));
const BackgroundDesk = lazy(() => import('./BackgroundDesk'));
const PlatesDesk = lazy(() => import('../plates/PlatesDesk'));
const DevicesDesk = lazy(() => import('./DevicesDesk'));
const WalkRound = lazy(() => import('../walk/WalkRound'));

const DESKS: Record<Desk, string> = {
  plans: 'Plans',
  walk: 'Walk round',
  exposure: 'Exposure',
  movement: 'Movement',
  background: 'Background',
  plates: 'Plates',
  devices: 'Devices',
};

/** The middle of the bench: the plans, the set in three dimensions, or a desk beside the picture. */
export const DeskColumn = memo(function DeskColumn() {
  const desk = useBench((bench) => bench.desk);
  const dispatch = useBenchDispatch();
  return (
    <Box
      sx={{
        minWidth: 0,
        minHeight: { xs: 560, md: 0 },
        display: 'flex',
        flexDirection: 'column',
        borderLeft: `1px solid ${surround.seam}`,
      }}
    >
      <Tabs
        value={desk}
        onChange={(_, value: Desk) => dispatch(benchActions.deskChosen(value))}
        variant="scrollable"
        scrollButtons={false}
        aria-label="Plans and desks"
        sx={{
          minHeight: 32,
          bgcolor: surround.sunken,
          '& .MuiTab-root': {
            minHeight: 32,
            minWidth: 0,
            px: 0.25,
            py: 0,
            fontSize: '0.75rem',
            color: surround.quiet,
          },
          '& .MuiTab-root.Mui-selected': { color: surround.accent },
          '& .MuiTabs-indicator': { bgcolor: surround.accent },
        }}
      >
        {(Object.keys(DESKS) as Desk[]).map((own) => (
          <Tab key={own} value={own} label={DESKS[own]} />
        ))}
      </Tabs>
      {desk === 'plans' ? (
        <Plans />
      ) : (
        <Box
          sx={{
            flex: 1,
            minHeight: 0,
            overflow: 'auto',
            ...(desk === 'walk'
              ? { bgcolor: surround.section }
              : { bgcolor: 'background.paper', color: 'text.primary', p: 1.75 }),
          }}
        >
          <Suspense fallback={<CircularProgress aria-label="Being fetched" sx={{ m: 4 }} />}>
            {desk === 'walk' && <WalkRound />}
            {desk === 'exposure' && <ExposureDesk />}
            {desk === 'movement' && <MovementDesk />}
            {desk === 'background' && <BackgroundDesk />}
            {desk === 'plates' && <PlatesDesk />}
            {desk === 'devices' && <DevicesDesk />}
          </Suspense>
        </Box>
      )}
    </Box>
  );
});

function Plans() {
  const zones = useBench((bench) => bench.zones);
  const found = useFigure('zones');
  const dispatch = useBenchDispatch();
  return (
    <>
      <Area
        label="From above"
        sx={{
          bgcolor: surround.section,
          position: 'relative',
          flex: '1.5 1 0',
          minHeight: { xs: 320, md: 0 },
        }}
      >
        <PlanView kind="above" />
        <Box
          sx={{
            position: 'absolute',
            top: 6,
            left: 14,
            right: 8,
            display: 'flex',
            alignItems: 'center',
            gap: 1,
          }}
        >
          <Heading>From above</Heading>
          <Box sx={{ color: surround.quiet, flex: 1 }}>rings in cm</Box>
          <Button
            size="small"
            aria-pressed={zones !== 'off'}
            onClick={() => dispatch(benchActions.zonesChosen(zones === 'off' ? 'product' : 'off'))}
            sx={{
              color: zones === 'off' ? surround.text : surround.ink,
              bgcolor: zones === 'off' ? surround.raised : surround.paper,
              px: 1,
              py: 0.25,
              '&:hover': { bgcolor: zones === 'off' ? surround.raisedOver : surround.paperOver },
            }}
          >
            <Box
              component="span"
              className="number"
              sx={{ mr: 0.5, color: zones === 'off' ? surround.accent : surround.strong }}
            >
              Z
            </Box>
            zones
          </Button>
          <AddButton />
        </Box>
      </Area>
      <Area
        label="From the side"
        sx={{
          bgcolor: surround.section,
          position: 'relative',
          flex: '1 1 0',
          minHeight: { xs: 200, md: 0 },
          borderTop: `1px solid ${surround.seam}`,
        }}
      >
        <PlanView kind="side" />
        <Box sx={{ position: 'absolute', top: 6, left: 14, pointerEvents: 'none' }}>
          <Heading>From the side</Heading>
        </Box>
        {zones !== 'off' && (
          <Box
            sx={{
              position: 'absolute',
              bottom: 6,
              left: 14,
              right: 14,
              color: surround.quiet,
              fontSize: '0.75rem',
              pointerEvents: 'none',
              bgcolor: surround.over,
              px: 0.5,
            }}
          >
            {found?.rays === 0
              ? `${zones === 'spot' ? 'This spot is' : 'The products are'} matte to the lens: no light glares there from anywhere, no card is seen.`
              : `Dotted: a source there glares in ${zones === 'spot' ? 'the spot' : 'the products'}, a card is seen. Outside it is not.`}
          </Box>
        )}
      </Area>
    </>
  );
}
