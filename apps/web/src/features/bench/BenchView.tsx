import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';
import { useTheme } from '@mui/material/styles';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useEffect } from 'react';
import { useSelector } from 'react-redux';
import { useParams } from 'react-router';
import { DropFiles } from '../../shared/DropFiles';
import { UnreadableNote } from '../../shared/document/UnreadableNote';
import { useOpening } from '../../shared/document/useOpening';
import { Page } from '../../shared/Page';
import { surround } from '../../shared/theme';
import { DROP_WORDS, setsApi, useReadSets } from '../sets';
import { MirrorBandView } from './band/MirrorBandView';
import { CardsPanel } from './cards/CardsPanel';
import { DeskColumn } from './desk/DeskColumn';
import { FiguresContext } from './figures/figureStore';
import { FilterDial } from './lens/FilterDial';
import { LensTools, WholePathsTool, ZoomTools } from './lens/LensTools';
import { LensView } from './lens/LensView';
import { SessionContext, useOwnSession } from './picture/useSession';
import { PickSources } from './spot/PickSources';
import { SpotPanel } from './spot/SpotPanel';
import { benchSet, type WithBench } from './state/benchSlice';
import { useBench, useBenchDispatch } from './state/hooks';
import { AtOnce, Paced } from './state/Paced';
import { openSet } from './state/thunks';
import { useBenchKeys } from './state/useBenchKeys';
import { TakeStrip } from './takes/TakeStrip';
import { VerdictPanel } from './verdicts/VerdictPanel';
import { VerdictsProvider } from './verdicts/verdictsContext';
import { Area, Heading } from './views/Area';
import { BenchCautions } from './views/BenchCautions';
import { BenchHeader } from './views/BenchHeader';
import { ExposureControls, ExposureNotes } from './views/ExposureControls';
import { LightPowers } from './views/LightPowers';
import { OverlapNotes } from './views/OverlapNotes';
import { Palette } from './views/Palette';
import { StopRuler } from './views/StopRuler';
import { ThingPanel } from './views/thing/ThingPanel';

/** The bench of one stored set, begun anew for each. */
export function BenchView() {
  const { id = '' } = useParams();
  return <BenchOf key={id} id={id} />;
}

function BenchOf({ id }: { id: string }) {
  // The workers of the picture start while the set is on its way, and trace it while the page is drawn.
  const own = useOwnSession();
  const { data, error, isFetching, refetch } = setsApi.useReadSetQuery(id, {
    refetchOnMountOrArgChange: true,
  });
  const dispatch = useBenchDispatch();
  const openId = useSelector((state: WithBench) => state.benchSet.file.stored?.id);

  useOpening(benchSet, data && data.id === id && !isFetching ? data : undefined, openSet);
  useEffect(() => () => void dispatch(benchSet.closed()), [dispatch]);

  if (error) {
    return (
      <Page title="This set cannot be opened">
        <UnreadableNote
          error={error}
          address={`/api/sets/${id}`}
          list="/sets"
          onTryAgain={() => void refetch()}
        />
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
  return <OpenBench {...own} />;
}

/** On a phone what is wrong stands under the picture, before the plans. */
function VerdictsUnderPicture() {
  return (
    <Box sx={{ bgcolor: 'background.paper', color: 'text.primary', p: 1.75, display: 'grid', gap: 2 }}>
      <CardsPanel />
      <VerdictPanel />
    </Box>
  );
}

function OpenBench({ session, figures }: ReturnType<typeof useOwnSession>) {
  const name = useSelector((state: WithBench) => benchSet.documentOf(state)?.name);
  const readSets = useReadSets();
  useBenchKeys();
  const theme = useTheme();
  const narrow = useMediaQuery(theme.breakpoints.down('md'));
  useEffect(() => {
    document.title = `${name} · Fendrix`;
  }, [name]);
  return (
    <FiguresContext.Provider value={figures}>
      <SessionContext.Provider value={session}>
        <Paced>
          <VerdictsProvider>
            <Palette />
            <DropFiles words={DROP_WORDS} onFiles={readSets} />
            <Box
              component="main"
              sx={{
                display: 'grid',
                minHeight: '100vh',
                bgcolor: surround.page,
                color: surround.text,
                gridTemplateColumns: {
                  xs: 'minmax(0, 1fr)',
                  md: 'minmax(420px, 652fr) minmax(300px, 388fr) 240px',
                },
                gridTemplateRows: { md: '44px minmax(0, 1fr) minmax(96px, auto) auto' },
                height: { md: '100vh' },
                fontSize: '0.8125rem',
              }}
            >
              <Box sx={{ gridColumn: '1 / -1' }}>
                <BenchHeader />
              </Box>
              <Area
                label="Lens view"
                sx={{ px: 2, pt: 0.5, pb: 0.5, overflow: 'auto', display: 'flex', flexDirection: 'column' }}
              >
                <Box
                  sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', minHeight: 32, gap: 1.5 }}
                >
                  <Heading>Lens view</Heading>
                  <ExposureControls />
                  <Box sx={{ flex: 1 }} />
                  <WholePathsTool />
                  <AtOnce>
                    <PictureStatusLine />
                  </AtOnce>
                  <ZoomTools />
                </Box>
                <ExposureNotes />
                <AtOnce>
                  <LensView />
                </AtOnce>
                <Box sx={{ py: 0.75 }}>
                  <LensTools />
                  <FilterDial />
                </Box>
                <AtOnce>
                  <MirrorBandView />
                </AtOnce>
              </Area>
              {narrow && <VerdictsUnderPicture />}
              <AtOnce>
                <DeskColumn />
              </AtOnce>
              <Area
                label="Numbers"
                sx={{
                  gridColumn: { md: 3 },
                  bgcolor: 'background.paper',
                  color: 'text.primary',
                  p: 1.75,
                  overflow: 'auto',
                  display: 'grid',
                  gridTemplateColumns: 'minmax(0, 1fr)',
                  gap: 2,
                  alignContent: 'start',
                }}
              >
                <PickSources />
                {!narrow && <CardsPanel />}
                {!narrow && <VerdictPanel />}
                <Box>
                  <ThingPanel />
                </Box>
                <SpotPanel />
                <OverlapNotes />
                <BenchCautions />
              </Area>
              <Box
                sx={{
                  gridColumn: '1 / -1',
                  bgcolor: surround.deep,
                  display: 'flex',
                  flexWrap: { xs: 'wrap', md: 'nowrap' },
                  gap: 2,
                  px: 2,
                  py: 0.5,
                  alignItems: 'center',
                }}
              >
                <Heading>Stop ruler</Heading>
                <StopRuler />
                <Box sx={{ width: { xs: '100%', md: 344 }, maxHeight: 240, overflow: 'auto' }}>
                  <LightPowers />
                </Box>
              </Box>
              <Box
                sx={{
                  gridColumn: '1 / -1',
                  bgcolor: surround.seam,
                  px: 2,
                  py: 0.5,
                  minWidth: 0,
                  display: 'grid',
                }}
              >
                <TakeStrip />
              </Box>
            </Box>
          </VerdictsProvider>
        </Paced>
      </SessionContext.Provider>
    </FiguresContext.Provider>
  );
}

function PictureStatusLine() {
  const { phase, samples, progress, rays, shown, traced } = useBench((bench) => bench.picture);
  const words = {
    waiting: 'preparing',
    following: 'following',
    refining: `${Math.round(100 * progress)} %`,
    done: 'done',
  }[phase];
  return (
    <Box
      role="status"
      data-testid="picture-status"
      title={`The picture: ${samples} samples of every pixel so far`}
      data-phase={phase}
      data-rays={rays}
      data-samples={samples}
      data-shown={shown}
      data-traced={traced}
      // As wide whatever it says: a row that wraps would make the picture smaller, and that would begin it anew.
      sx={{
        width: '3.75rem',
        flexShrink: 0,
        textAlign: 'right',
        color: surround.quiet,
        whiteSpace: 'nowrap',
        fontSize: '0.75rem',
      }}
    >
      {words}
    </Box>
  );
}
