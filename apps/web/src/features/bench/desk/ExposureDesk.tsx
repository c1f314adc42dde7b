import Box from '@mui/material/Box';
import { AmbientSection } from './exposure/AmbientSection';
import { CastSection } from './exposure/CastSection';
import { DialSection } from './exposure/DialSection';
import { EquivalentSection } from './exposure/EquivalentSection';
import { FilterSection } from './exposure/FilterSection';
import { PowerSection } from './exposure/PowerSection';

/** Powers for wanted tones, flash against ambient, equivalent exposures, what takes light, colour, dials. */
export default function ExposureDesk() {
  return (
    <Box>
      <PowerSection />
      <AmbientSection />
      <EquivalentSection />
      <FilterSection />
      <CastSection />
      <DialSection />
    </Box>
  );
}
