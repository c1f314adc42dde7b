import type { Framing } from '@fendrix/contract';
import type { PlaceCheck } from '@fendrix/core';
import { placeCheckWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Section } from '../../../shared/Section';
import type { NamedEquipment } from '../../kit';
import { lensOf } from './useStaged';

interface PlaceChecksProps {
  checks: readonly PlaceCheck[];
  lenses: readonly NamedEquipment<'lens'>[];
  framing: Framing;
  onTakeLens(lens: Framing['lens']): void;
}

/** What the camera's place was checked for; what is not met comes first, with what would give. */
export function PlaceChecks({ checks, lenses, framing, onTakeLens }: PlaceChecksProps) {
  const sorted = [...checks].sort((a, b) => Number(a.met) - Number(b.met));
  return (
    <Section title="Position check">
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {sorted.map((check) => {
          const { title, found, cure } = placeCheckWords(check);
          const lens = check.met ? null : nearestLens(lenses, check.focalLengthM);
          const other = lens && Math.abs(lens.focalLengthM / framing.lens.focalLengthM - 1) > 0.02;
          return (
            <Box
              component="li"
              key={check.what}
              data-check={check.what}
              data-met={check.met}
              sx={{ py: 0.75, borderBottom: 1, borderColor: 'divider', fontSize: '0.8125rem' }}
            >
              <Box sx={{ fontWeight: 650, color: check.met ? 'text.primary' : 'warning.main' }}>
                {check.met ? '✓ ' : '! '}
                {title}
              </Box>
              <Box sx={{ color: 'text.secondary' }}>{found}</Box>
              {!check.met && <Box>{cure}</Box>}
              {lens && other && (
                <Button size="small" sx={{ px: 0 }} onClick={() => onTakeLens(lens)}>
                  Take {lens.name} at {Math.round(lens.focalLengthM * 1000)} mm
                </Button>
              )}
            </Box>
          );
        })}
      </Box>
    </Section>
  );
}

/** The lens of the kit that comes nearest to a focal length. */
function nearestLens(lenses: readonly NamedEquipment<'lens'>[], focalLengthM: number | undefined) {
  if (focalLengthM === undefined) return null;
  const off = (lens: Framing['lens']) => Math.abs(Math.log(lens.focalLengthM / focalLengthM));
  const [best] = lenses.map((lens) => lensOf(lens, focalLengthM)).sort((a, b) => off(a) - off(b));
  return best ?? null;
}
