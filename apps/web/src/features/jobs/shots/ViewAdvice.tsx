import type { Framing, Job, Shot } from '@fendrix/contract';
import { adviseView, checkPlace, productBounds, VIEW_TILT_DEG, type ViewName } from '@fendrix/core';
import { viewReasonWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { Section } from '../../../shared/Section';
import { useEquipment } from '../../kit';
import { stage, useFraming } from './useStaged';

export const VIEW_WORDS: Record<ViewName, string> = {
  'eye-level': 'Level',
  between: 'A little from above',
  'three-quarter': 'About 45 degrees',
  'straight-down': 'Straight down',
};

interface ViewAdviceProps {
  job: Job;
  shot: Shot;
  onChoose(view: ViewName): void;
}

/** The views that suit a picture, best first, each as a small true picture with why. */
export function ViewAdvice({ job, shot, onChoose }: ViewAdviceProps) {
  const framing = useFraming(job, shot);
  const studio = useEquipment()?.studio;
  const advice = useMemo(
    () => (framing ? advised(job, shot, framing, studio) : []),
    [job, shot, framing, studio],
  );
  return (
    <Section title="Camera angle">
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: 'repeat(3, minmax(0, 1fr))' }, gap: 2 }}>
        {advice.slice(0, 3).map(({ view, score, reasons, set }, index) => (
          <Box key={view}>
            {set && <SmallPicture set={set} width={240} label={`${VIEW_WORDS[view]}, a small picture`} />}
            <Box sx={{ display: 'flex', alignItems: 'center', mt: 0.5 }}>
              <Box sx={{ fontWeight: 650, flex: 1, fontSize: '0.8125rem' }}>
                {VIEW_WORDS[view]}
                {index === 0 && (
                  <Box component="span" sx={{ color: 'primary.main' }}>
                    , suits best
                  </Box>
                )}
              </Box>
              <Box
                className="number"
                aria-label={`${score} points`}
                title="Points of practice, see the reasons"
              >
                {score > 0 ? `+${score}` : score}
              </Box>
            </Box>
            <Box component="ul" sx={{ m: 0, pl: 2, fontSize: '0.75rem', color: 'text.secondary' }}>
              {reasons.map((reason) => (
                <li key={reason.code}>
                  {viewReasonWords(reason)} ({reason.points > 0 ? '+' : ''}
                  {reason.points})
                </li>
              ))}
            </Box>
            <Button
              size="small"
              disabled={shot.view === view}
              onClick={() => onChoose(view)}
              aria-label={`Use this angle: ${VIEW_WORDS[view]}`}
            >
              {shot.view === view ? 'Taken' : 'Use this angle'}
            </Button>
          </Box>
        ))}
      </Box>
    </Section>
  );
}

function advised(job: Job, shot: Shot, framing: Framing, studio: Parameters<typeof stage>[3]) {
  const products = job.products.filter(({ id }) => shot.products.includes(id));
  const [hero] = products;
  if (!hero) return [];
  const { low, high } = productBounds(hero.body);
  const views = Object.keys(VIEW_TILT_DEG) as ViewName[];
  const staged = new Map(
    views.map(
      (view) => [view, stage(job, { ...shot, tiltDeg: VIEW_TILT_DEG[view] }, framing, studio)] as const,
    ),
  );
  const backdropFills: Partial<Record<ViewName, boolean>> = {};
  for (const [view, result] of staged) {
    if (!result.ok) continue;
    const { set, placed } = result.staged;
    const checks = checkPlace(placed, {
      benchHeightM: set.mark.heightAboveFloorM,
      bench: set.bench,
      backdrop: set.backdrop,
      personM: framing.personM,
      mostNearFarRatio: framing.mostNearFarRatio,
    });
    backdropFills[view] = checks
      .filter(({ what }) => what === 'backdrop' || what === 'ground')
      .every(({ met }) => met);
  }
  return adviseView({
    detail: hero.detail,
    shine: hero.shine,
    heightM: high[2] - low[2],
    widthM: Math.max(high[0] - low[0], high[1] - low[1]),
    blurGround: shot.blurGround,
    others: job.shots.filter(({ id }) => id !== shot.id).map(({ view }) => view),
    backdropFills,
  }).map((advice) => {
    const result = staged.get(advice.view);
    return { ...advice, set: result?.ok ? result.staged.set : null };
  });
}
