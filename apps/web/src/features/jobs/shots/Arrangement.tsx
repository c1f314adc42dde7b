import type { SetDocument, Shot } from '@fendrix/contract';
import {
  type CompositionFinding,
  type Format,
  fieldStops,
  fitFormat,
  isCaution,
  judgeComposition,
  lensFigures,
  type StagedShot,
  type Thing,
  traceKey,
} from '@fendrix/core';
import { compositionWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import { smallPool } from '../../../shared/render/smallRender';
import { Section } from '../../../shared/Section';
import { useAttempt } from '../../../shared/useAttempt';
import { setsApi } from '../../sets';

/** Outlines are looked at so many pixels across, tones so many places, each by so many paths. */
const WIDTH = 360;
const PLACES = 60;
const SAMPLES = 16;
const WHOLE = { left: 0, top: 0, right: 1, bottom: 1 };

interface Judged {
  findings: CompositionFinding[];
  things: Thing[];
}

interface ArrangementProps {
  shot: Shot;
  staged: StagedShot;
  formats: readonly Format[];
}

/** Judges how the picture is arranged, on its own set where it has one. */
export function Arrangement({ shot, staged, formats }: ArrangementProps) {
  const attempt = useAttempt();
  const [readSet] = setsApi.useLazyReadSetQuery();
  const [judged, setJudged] = useState<Judged | null>(null);
  const [busy, setBusy] = useState(false);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);

  const judge = () =>
    attempt(async () => {
      running.current?.abort();
      const abort = new AbortController();
      running.current = abort;
      setBusy(true);
      try {
        const set = shot.setId ? (await readSet(shot.setId).unwrap()).document : staged.set;
        setJudged(await judgedSet(set, shot, staged, formats, abort.signal));
      } finally {
        setBusy(false);
      }
    });

  const nameOf = (thing: number) => judged?.things[thing]?.name ?? 'something';
  return (
    <Section
      title="Arrangement"
      action={
        <Button size="small" disabled={busy} onClick={judge}>
          {judged ? 'Check again' : 'Check the picture'}
        </Button>
      }
    >
      {busy && <LinearProgress aria-label="The picture is being looked at" />}
      {!judged && !busy && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Looks at a rendered picture {shot.setId ? 'of its set' : 'of this first staging'} for outlines that
          just touch, rows, the tone against the background, a line through the product, symmetry, and room
          for words.
        </Box>
      )}
      {judged && (
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, fontSize: '0.8125rem' }}>
          {judged.findings.map((finding) => {
            const caution = isCaution(finding);
            return (
              <Box
                component="li"
                key={JSON.stringify(finding)}
                sx={{
                  py: 0.5,
                  borderBottom: 1,
                  borderColor: 'divider',
                  color: caution ? 'warning.main' : 'text.primary',
                }}
              >
                {caution ? '! ' : '✓ '}
                {compositionWords(finding, nameOf)}
              </Box>
            );
          })}
          {judged.findings.length === 0 && <li>Nothing of the product is seen in the picture.</li>}
        </Box>
      )}
    </Section>
  );
}

async function judgedSet(
  set: SetDocument,
  shot: Shot,
  staged: StagedShot,
  formats: readonly Format[],
  signal: AbortSignal,
): Promise<Judged> {
  const { body } = set.camera;
  const across = (width: number) => ({
    width,
    height: Math.round((width * body.sensorHeightM) / body.sensorWidthM),
  });
  const size = across(WIDTH);
  const places = across(PLACES);
  const keyed = { key: traceKey(set), set };
  const [{ map, things }, field] = await Promise.all([
    smallPool().run(keyed, { kind: 'mirror', ...size, tile: { x: 0, y: 0, ...size } }, { signal }),
    smallPool().run(
      keyed,
      { kind: 'field', rect: WHOLE, across: places.width, down: places.height, samples: SAMPLES },
      { signal },
    ),
  ]);
  const luminance = fieldStops(set, field).map((stops) => 2 ** stops);
  const indexes = (wanted: (thing: Thing) => boolean) =>
    things.flatMap((thing, index) => (wanted(thing) ? [index] : []));
  const heroId =
    shot.products.find((id) => set.products.some((product) => product.id === id)) ?? set.products[0]?.id;
  const [hero = -1] = indexes(({ kind, key }) => kind === 'product' && key === heroId);
  const wordy = formats.find(({ copySide }) => copySide !== 'none');
  const pixelM = body.sensorWidthM / (lensFigures(set.camera).magnification * WIDTH);
  const findings = judgeComposition(
    { ...size, thing: map.thing, pixelM, tones: { ...places, thing: field.thing, luminance } },
    {
      hero,
      things: indexes(({ kind }) => kind === 'product' || kind === 'sheet'),
      ground: indexes(({ kind }) => kind === 'bench' || kind === 'backdrop'),
      scattered: set.products.length > 3,
      copy: wordy ? fitFormat(staged.placed.outline, wordy, body).copy : null,
    },
  );
  return { findings, things };
}
