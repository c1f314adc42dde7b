import { formatLength, formatStops, projectPoint, vector, viewOf } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Choice } from '../../../../shared/Choice';
import { Explained } from '../../../../shared/Explained';
import { Section } from '../../../../shared/Section';
import { changeCamera } from '../../state/edits';
import { useBenchDispatch, useReadings, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { useDeskFigure } from '../useDeskFigure';

/** Below this the stream is lost against the ground, stops. */
const APART_STOPS = 1;

/** Tone of what moves against the ground, and its place against the plane of focus. */
export function ToneAndFocus() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const readings = useReadings();
  const seen = readings.filter(({ stopsFromMidTone }) => stopsFromMidTone !== null).map(({ name }) => name);
  const [stream, setStream] = useDeskFigure('movement stream', '');
  const [ground, setGround] = useDeskFigure('movement background', '');
  const one = readings.find(({ name }) => name === (seen.includes(stream) ? stream : seen[0]));
  const other = readings.find(({ name }) => name === (seen.includes(ground) ? ground : seen[1]));
  if (!one || !other || seen.length < 2) {
    return (
      <Section title="Tone and focus">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Pin one spot where the stream will be (hold a spoon or the glass there) and one on the background
          behind it.
        </Box>
      </Section>
    );
  }
  const apart = (one.stopsFromMidTone ?? 0) - (other.stopsFromMidTone ?? 0);
  const view = viewOf(set.camera);
  const depth = vector.dot(vector.subtract(one.pointM, view.origin), view.forward);
  const off = depth - set.camera.focusM;
  return (
    <Section title="Tone and focus">
      <Choice label="the stream runs at" shown value={one.name} options={seen} onChoose={setStream} />
      <Choice
        label="before the background at"
        shown
        value={other.name}
        options={seen.filter((name) => name !== one.name)}
        onChoose={setGround}
      />
      <Explained
        label="apart"
        value={`${formatStops(apart)}${Math.abs(apart) < APART_STOPS ? ', lost' : ', reads'}`}
      >
        A stream reads from about {APART_STOPS} stop of difference on. Light from behind lifts clear and thin
        liquids, a darker or brighter background does the rest.
      </Explained>
      <Explained
        label="from the plane of focus"
        value={`${formatLength(Math.abs(off))} ${off < 0 ? 'before' : 'behind'}`}
      >
        Focus on a spoon held where it will fall, then lock. It lies{' '}
        {projectPoint(view, one.pointM) ? 'in the frame' : 'outside of the frame'}.
        <Button size="small" onClick={() => dispatch(edit(changeCamera({ focusM: depth })))}>
          Focus there
        </Button>
      </Explained>
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        Who pours stands where no mirror shows them: put a person on the set (A, A person) and press M.
      </Box>
    </Section>
  );
}
