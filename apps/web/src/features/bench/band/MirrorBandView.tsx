import type { Highlight, SetDocument } from '@fendrix/contract';
import {
  type BandLength,
  type BandProfile,
  bandHeightM,
  formatLength,
  type MirrorBand,
  parseLengthM,
  productHeightM,
  profileFigures,
  profileStops,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { lazy, memo, Suspense, useMemo, useState } from 'react';
import { useSelector } from 'react-redux';
import { surround } from '../../../shared/theme';
import { useTyped, within } from '../../../shared/useTyped';
import { useUnchanged } from '../../../shared/useUnchanged';
import { useFigure } from '../figures/figureStore';
import { chosenBand } from '../figures/selectShown';
import { benchActions, benchSet } from '../state/benchSlice';
import { changeProduct } from '../state/edits';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { BandDrawing } from './BandDrawing';
import { HighlightDialog } from './HighlightDialog';
import { useShortName } from './useShortName';
import { WholeSurface } from './WholeSurface';

// Brings the charts, which are large.
const ProfileDialog = lazy(() => import('./ProfileDialog'));

/** What each column of the product mirrors at the band's height; edges can be dragged, lengths made as wide as wanted. */
export const MirrorBandView = memo(function MirrorBandView() {
  const products = useSetPart((set) => set.products);
  const highlights = useSetPart((set) => set.highlights);
  const bands = useFigure('bands') ?? NO_BANDS;
  const selected = useBench((bench) => bench.selected);
  const band = chosenBand(bands, selected);
  const several = bands.length > 1;
  const profile = useFigure('profile');
  const [length, setLength] = useState<BandLength | null>(null);
  const [curves, setCurves] = useState(false);
  const [listed, setListed] = useState(false);
  const tones = useProfileStops(profile);
  const stops = profile && profile.product === band?.product ? tones : null;
  const whole = useBench((bench) => bench.wholeSurface);
  const dispatch = useBenchDispatch();
  if (!band) return <WholeSurface />;
  if (whole) return <WholeSurface onBand={() => dispatch(benchActions.wholeSurfaceToggled())} />;
  const product = products.find(({ id }) => id === band.product);
  if (!product) return null;
  const figures = stops && profile ? profileFigures(profile.part, stops) : null;
  return (
    <Box component="section" aria-label="Mirror band">
      <Box
        sx={{
          display: 'flex',
          gap: 1.5,
          alignItems: 'center',
          color: surround.text,
          fontSize: '0.8125rem',
          flexWrap: { xs: 'wrap', md: 'nowrap' },
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          height: { md: 26 },
        }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: '0.8125rem', fontWeight: 650 }}>
          Mirror band
        </Box>
        {several && (
          <Box
            title={product.name}
            sx={{
              color: surround.quiet,
              minWidth: 60,
              maxWidth: 130,
              whiteSpace: 'nowrap',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
            }}
          >
            {product.name}
          </Box>
        )}
        <HeightField product={product} />
        <Box sx={{ flex: 1 }} />
        <ButtonBase
          aria-expanded={listed}
          onClick={() => setListed(!listed)}
          sx={{ color: surround.quiet, textDecoration: 'underline dotted', font: 'inherit' }}
        >
          as a list
        </ButtonBase>
        <ButtonBase
          aria-label="whole surface"
          title="What the whole surface mirrors, not one height of it"
          onClick={() => dispatch(benchActions.wholeSurfaceToggled())}
          sx={{ color: surround.quiet, textDecoration: 'underline dotted', font: 'inherit' }}
        >
          surface
        </ButtonBase>
        {figures && (
          <ButtonBase
            onClick={() => setCurves(true)}
            aria-haspopup="dialog"
            data-testid="profile-figures"
            sx={{
              color: surround.quiet,
              textDecoration: 'underline dotted',
              textUnderlineOffset: 3,
              font: 'inherit',
            }}
          >
            {Math.round(100 * figures.symmetry)} % even · {figures.steepest.toFixed(1)} stops/% ·{' '}
            {Math.round(100 * figures.brightPart)} % bright
          </ButtonBase>
        )}
      </Box>
      <BandDrawing
        band={band}
        profile={stops && profile ? { part: profile.part, stops } : null}
        onLength={setLength}
      />
      <KeptHighlights band={band} highlights={highlights} onOpen={setLength} />
      <BandTable band={band} open={listed} onLength={setLength} />
      {length && <HighlightDialog band={band} length={length} onClose={() => setLength(null)} />}
      {curves && stops && profile && figures && (
        <Suspense fallback={null}>
          <ProfileDialog
            name={product.name}
            part={profile.part}
            stops={stops}
            figures={figures}
            onClose={() => setCurves(false)}
          />
        </Suspense>
      )}
    </Box>
  );
});

const NO_BANDS: readonly MirrorBand[] = [];

/** Tones across the product with the powers and settings of now. */
function useProfileStops(profile: BandProfile | null): number[] | null {
  const set = useSelector(benchSet.documentOf);
  return useUnchanged(useMemo(() => (set && profile ? profileStops(set, profile) : null), [set, profile]));
}

function HeightField({ product }: { product: SetDocument['products'][number] }) {
  const dispatch = useBenchDispatch();
  const height = bandHeightM(product);
  const whole = productHeightM(product);
  const put = (bandHeight: number) =>
    dispatch(
      edit(
        changeProduct(product.id, (old) => ({
          ...old,
          bandHeightM: bandHeight,
        })),
        `band height ${product.id}`,
      ),
    );
  const heightOn = within(parseLengthM, formatLength, { from: 0.001, to: whole });
  const { input, wrong } = useTyped(formatLength(height), heightOn, put, formatLength(whole / 2));
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, color: surround.quiet }}>
      at
      <Box
        component="input"
        type="range"
        aria-label="Height of the band above the foot"
        min={0.5}
        max={99.5}
        step={0.5}
        value={(100 * height) / whole}
        onChange={(event) => put((Number(event.currentTarget.value) / 100) * whole)}
        sx={{ width: 50, accentColor: surround.accent }}
      />
      <Box
        component="input"
        aria-label="Height of the band, typed"
        aria-describedby={wrong ? 'band-height-wrong' : undefined}
        className="number"
        {...input}
        sx={{
          width: 62,
          bgcolor: surround.sunken,
          color: surround.text,
          border: `1px solid ${wrong ? surround.caution : surround.line}`,
          px: 0.5,
        }}
      />
      {wrong && (
        <Box id="band-height-wrong" role="alert" sx={{ color: surround.caution, ml: 0.5 }}>
          {wrong}
        </Box>
      )}
    </Box>
  );
}

/** Highlights that are to stay, and how far they have moved. */
function KeptHighlights({
  band,
  highlights,
  onOpen,
}: {
  band: MirrorBand;
  highlights: readonly Highlight[];
  onOpen(length: BandLength): void;
}) {
  const own = highlights.filter(({ product }) => product === band.product);
  if (own.length === 0) return null;
  return (
    <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', fontSize: '0.75rem', color: surround.quiet }}>
      {own.map((kept) => {
        const now = lengthNear(band, kept);
        const drift = now ? Math.max(Math.abs(now.from - kept.from), Math.abs(now.to - kept.to)) : 1;
        const held = drift < 0.01;
        return (
          <Box
            key={`${kept.kind} ${kept.key} ${kept.heightM}`}
            data-testid={`kept ${kept.key}`}
            sx={{ color: held ? surround.quiet : surround.caution }}
          >
            {kept.key} kept at {percent(kept.to - kept.from)}
            {held ? ', holds' : now ? `, is ${percent(now.to - now.from)} now` : ', is gone'}
            {!held && (
              <Button
                size="small"
                sx={{ color: surround.accent, py: 0, minWidth: 0, ml: 0.5 }}
                onClick={() =>
                  onOpen({ kind: kept.kind, what: kept.key, front: true, from: kept.from, to: kept.to })
                }
              >
                Put it back
              </Button>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

/** The length of the band that a kept highlight has become: that of its thing with the largest overlap. */
export function lengthNear(band: MirrorBand, { kind, key, from, to }: Highlight): BandLength | null {
  const overlap = (length: BandLength) => Math.min(length.to, to) - Math.max(length.from, from);
  const own = band.lengths.filter((length) => length.kind === kind && length.what === key);
  return own.sort((a, b) => overlap(b) - overlap(a))[0] ?? null;
}

const percent = (part: number) => `${(100 * part).toFixed(1)} %`;

/** The same as a list, for the keyboard and for those who hear the page; out of sight until it is wanted. */
function BandTable({
  band,
  open,
  onLength,
}: {
  band: MirrorBand;
  open: boolean;
  onLength(length: BandLength): void;
}) {
  const nameOf = useShortName();
  const hidden = {
    position: 'absolute',
    width: '1px',
    height: '1px',
    overflow: 'hidden',
    clipPath: 'inset(50%)',
  };
  return (
    <Box
      component="ol"
      data-testid="band"
      sx={{
        m: 0,
        p: 0,
        listStyle: 'none',
        fontSize: '0.75rem',
        color: surround.quiet,
        ...(open ? { display: 'flex', flexWrap: 'wrap', columnGap: 2 } : hidden),
      }}
    >
      {band.lengths.map((length) => {
        const words = `${nameOf(length.kind, length.what)} ${length.front ? '' : 'from behind '}${(100 * length.from).toFixed(1)} to ${(100 * length.to).toFixed(1)} %`;
        return (
          <li key={length.from}>
            {open && (length.kind === 'light' || length.kind === 'sheet') ? (
              <ButtonBase
                sx={{ textDecoration: 'underline dotted', color: surround.text, font: 'inherit' }}
                onClick={() => onLength(length)}
              >
                {words}
              </ButtonBase>
            ) : (
              words
            )}
          </li>
        );
      })}
    </Box>
  );
}
