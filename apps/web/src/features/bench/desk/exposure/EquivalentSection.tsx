import { equivalents, formatLength, handHeldShutterS, lensFigures, lightLuminance } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { Section } from '../../../../shared/Section';
import { changeCamera } from '../../state/edits';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';

/** Hand-held limit of a 50 mm lens at a distance, s. */
const HAND_S = 1 / 125;
/** Sharp: two pixels of the sensor. */
const CIRCLE_PIXELS = 2;

/** Ways to the same exposure, with what each does to depth, diffraction and shake. */
export function EquivalentSection() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const { camera } = set;
  const flash = set.lights.some((light) => light.on && lightLuminance(light).time === 'flash');
  const by = flash ? 'iso' : 'shutter';
  const list = useMemo(() => {
    const circleM = CIRCLE_PIXELS * lensFigures(camera).pixelPitchM;
    return equivalents(camera, { by, circleM, handHeldS: handHeldShutterS(camera, HAND_S) });
  }, [camera, by]);
  return (
    <Section title="Equivalent exposures">
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', mb: 0.5 }}>
        {flash
          ? 'Flash does not follow the shutter: f-stop against ISO.'
          : 'Continuous light: f-stop against shutter.'}
      </Box>
      <Box
        component="table"
        sx={{
          width: '100%',
          fontSize: '0.75rem',
          borderCollapse: 'collapse',
          '& th': { fontWeight: 400, color: 'text.secondary', textAlign: 'right' },
          '& td': { textAlign: 'right', borderTop: 1, borderColor: 'divider' },
        }}
      >
        <thead>
          <tr>
            <th>f-stop</th>
            <th>{flash ? 'ISO' : 'shutter'}</th>
            <th>depth</th>
            <th>Airy disc</th>
            <th>{flash ? '' : 'by hand'}</th>
            <th />
          </tr>
        </thead>
        <tbody className="number">
          {list.map(({ fNumber, shutter, iso, depthM, airyPixels, shakeStops }) => (
            <tr key={fNumber.printed}>
              <td>f/{fNumber.printed}</td>
              <td>{flash ? iso.printed : shutter.printed}</td>
              <td>{Number.isFinite(depthM) ? formatLength(depthM) : 'far'}</td>
              <td>{airyPixels.toFixed(1)} px</td>
              <td>{flash ? '' : shakeStops <= 0 ? 'holds' : `tripod (${shakeStops.toFixed(0)})`}</td>
              <td>
                <Button
                  size="small"
                  sx={{ py: 0, minWidth: 0 }}
                  aria-label={`Take f/${fNumber.printed}`}
                  onClick={() =>
                    dispatch(
                      edit(changeCamera({ fNumber: fNumber.value, shutterS: shutter.value, iso: iso.value })),
                    )
                  }
                >
                  Take
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 0.5 }}>
        Depth within {CIRCLE_PIXELS} pixels of the sensor. By hand: stops slower than the hand holds, by focal
        length and magnification. On a tripod wait for it to settle, with mirror up or electronic shutter, by
        remote or self-timer.
      </Box>
    </Section>
  );
}
