import Box from '@mui/material/Box';
import { CurveSection } from './background/CurveSection';
import { FlagSection } from './background/FlagSection';
import { FrostSection } from './background/FrostSection';
import { GroundSection } from './background/GroundSection';

/** White enough, black enough, even enough; gradients through frost; what flags change. */
export default function BackgroundDesk() {
  return (
    <Box>
      <GroundSection />
      <CurveSection />
      <FrostSection />
      <FlagSection />
    </Box>
  );
}
