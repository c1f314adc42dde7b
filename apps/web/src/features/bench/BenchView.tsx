import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import { useEffect } from 'react';
import { useSelector } from 'react-redux';
import { useParams } from 'react-router';
import { failureMessage } from '../../shared/api';
import { readDraft } from '../../shared/document/drafts';
import { Page } from '../../shared/Page';
import { surround } from '../../shared/theme';
import { setsApi } from '../sets';
import { SessionContext, useOwnSession } from './picture/useSession';
import { PlanView } from './plan/PlanView';
import { benchSet, type WithBench } from './state/benchSlice';
import { useBench, useBenchDispatch } from './state/hooks';
import { openSet } from './state/thunks';
import { useBenchKeys } from './state/useBenchKeys';
import { BenchHeader } from './views/BenchHeader';
import { ExposureControls } from './views/ExposureControls';
import { LensTools, LensView } from './views/LensView';
import { LightPowers } from './views/LightPowers';
import { MirrorBandView } from './views/MirrorBandView';
import { Palette } from './views/Palette';
import { PickSources } from './views/PickSources';
import { SpotPanel } from './views/SpotPanel';
import { StopRuler } from './views/StopRuler';
import { ThingPanel } from './views/thing/ThingPanel';

/** The bench of one stored set. */
export function BenchView() {
  const { id = '' } = useParams();
  const { data, error, isFetching, refetch } = setsApi.useReadSetQuery(id, {
    refetchOnMountOrArgChange: true,
  });
  const dispatch = useBenchDispatch();
  const openId = useSelector((state: WithBench) => state.benchSet.file.stored?.id);

  useEffect(() => {
    if (data && data.id === id && !isFetching) dispatch(openSet(data, readDraft(data.id, data.revision)));
  }, [data, id, isFetching, dispatch]);
  useEffect(() => () => void dispatch(benchSet.closed()), [dispatch]);

  if (error) {
    return (
      <Page title="This set cannot be opened">
        <Alert severity="warning" action={<Button onClick={() => void refetch()}>Try again</Button>}>
          {failureMessage(error)}
        </Alert>
      </Page>
    );
  }
  if (openId !== id) {
    return (
      <Box sx={{ minHeight: '100vh', bgcolor: surround.page, display: 'grid', placeItems: 'center' }}>
        <CircularProgress aria-label="The set is being opened" sx={{ color: surround.accent }} />
      </Box>
    );
  }
  return <OpenBench />;
}

function OpenBench() {
  const session = useOwnSession();
  const name = useSelector((state: WithBench) => benchSet.documentOf(state)?.name);
  useBenchKeys(session.session);
  useEffect(() => {
    document.title = `${name} · Fendrix`;
  }, [name]);
  return (
    <SessionContext.Provider value={session}>
      <Box
        sx={{
          display: 'grid',
          minHeight: '100vh',
          bgcolor: surround.page,
          color: surround.text,
          gridTemplateColumns: {
            xs: 'minmax(0, 1fr)',
            md: 'minmax(420px, 652fr) minmax(300px, 388fr) 240px',
          },
          gridTemplateRows: { md: '44px minmax(0, 1.5fr) minmax(0, 1fr) 104px' },
          height: { md: '100vh' },
          fontSize: '0.8125rem',
        }}
      >
        <Box sx={{ gridColumn: '1 / -1' }}>
          <BenchHeader />
        </Box>
        <Area label="Lens view" sx={{ gridRow: { md: '2 / 4' }, px: 2.5, pt: 0.5, overflow: 'auto' }}>
          <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', minHeight: 34, gap: 2 }}>
            <Heading>Lens view</Heading>
            <ExposureControls />
          </Box>
          <LensView />
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, py: 1 }}>
            <LensTools />
            <PictureStatusLine />
          </Box>
          <MirrorBandView />
        </Area>
        <Area
          label="From above"
          sx={{ bgcolor: '#424242', position: 'relative', minHeight: 320, borderLeft: '1px solid #2c2c2c' }}
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
            <Box sx={{ color: surround.quiet, flex: 1 }}>rings in cm round the mark</Box>
            <Palette />
          </Box>
        </Area>
        <Area
          label="Numbers"
          sx={{
            gridRow: { md: '2 / 4' },
            gridColumn: { md: 3 },
            bgcolor: 'background.paper',
            color: 'text.primary',
            p: 1.75,
            overflow: 'auto',
            display: 'grid',
            gap: 2,
            alignContent: 'start',
          }}
        >
          <Box>
            <ThingPanel />
          </Box>
          <PickSources />
          <SpotPanel />
        </Area>
        <Area
          label="From the side"
          sx={{
            gridColumn: { md: 2 },
            gridRow: { md: 3 },
            bgcolor: '#424242',
            position: 'relative',
            minHeight: 200,
            borderTop: '1px solid #2c2c2c',
            borderLeft: '1px solid #2c2c2c',
          }}
        >
          <PlanView kind="side" />
          <Box sx={{ position: 'absolute', top: 6, left: 14, pointerEvents: 'none' }}>
            <Heading>From the side</Heading>
          </Box>
        </Area>
        <Box
          sx={{
            gridColumn: '1 / -1',
            bgcolor: surround.deep,
            display: 'flex',
            flexWrap: { xs: 'wrap', md: 'nowrap' },
            gap: 3,
            px: 2.5,
            py: 1,
            alignItems: 'center',
          }}
        >
          <Heading>Stop ruler</Heading>
          <StopRuler />
          <Box sx={{ width: 236, maxHeight: 80, overflow: 'auto' }}>
            <LightPowers />
          </Box>
        </Box>
      </Box>
    </SessionContext.Provider>
  );
}

function Area({ label, sx, children }: { label: string; sx: object; children: React.ReactNode }) {
  return (
    <Box component="section" aria-label={label} sx={{ minWidth: 0, minHeight: 0, ...sx }}>
      {children}
    </Box>
  );
}

function Heading({ children }: { children: string }) {
  return (
    <Box
      component="h2"
      sx={{ m: 0, fontSize: '0.8125rem', fontWeight: 650, color: surround.text, whiteSpace: 'nowrap' }}
    >
      {children}
    </Box>
  );
}

function PictureStatusLine() {
  const { phase, samples, progress, rays, shown, traced } = useBench((bench) => bench.picture);
  const words = {
    waiting: 'preparing',
    following: 'following',
    refining: `refining, ${Math.round(100 * progress)} %`,
    done: 'done',
  }[phase];
  return (
    <Box
      role="status"
      data-testid="picture-status"
      data-phase={phase}
      data-rays={rays}
      data-samples={samples}
      data-shown={shown}
      data-traced={traced}
      sx={{ color: surround.quiet, marginLeft: 'auto' }}
    >
      {words}
      <Box component="span" className="number" sx={{ ml: 1 }}>
        {samples} {samples === 1 ? 'sample' : 'samples'}
      </Box>
    </Box>
  );
}
