import type { Thing } from '@fendrix/core';
import Box from '@mui/material/Box';
import { IN_FRAME, useAtRest } from '../../picture/useAtRest';
import type { ThingRef } from '../../state/edits';

/** Whether the lens sees a light or sheet, or its stand, itself. */
export const comesIn = (inFrame: readonly Thing[] | null, { kind, key }: ThingRef): boolean =>
  (kind === 'light' || kind === 'sheet') &&
  (inFrame ?? []).some((thing) => thing.key === key && (thing.kind === kind || thing.kind === 'stand'));

/** Says that a light or sheet comes into the picture itself, as soon as the set rests. */
export function InFrameNote({ thing }: { thing: ThingRef }) {
  const inFrame = useAtRest(IN_FRAME);
  if (!comesIn(inFrame, thing)) return null;
  return (
    <Box
      role="status"
      sx={{ fontSize: '0.8125rem', borderLeft: 3, borderColor: 'warning.main', pl: 1, my: 0.5 }}
    >
      It comes into the picture.
    </Box>
  );
}
