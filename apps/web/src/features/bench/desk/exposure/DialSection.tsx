import { parsePower, powerWords } from '@fendrix/core';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { Choice } from '../../../../shared/Choice';
import { Section } from '../../../../shared/Section';
import { useSetPart } from '../../state/hooks';
import { TaggedChoice } from '../TaggedChoice';
import { useDeskFigure } from '../useDeskFigure';

/** Converts one head's power between watt-seconds, fractions and a numbered dial. */
export function DialSection() {
  const lights = useSetPart((set) => set.lights);
  const [tag, setTag] = useDeskFigure('dial tag', '');
  const [text, setText] = useDeskFigure('dial text', '1/4');
  const [full, setFull] = useDeskFigure('dial full', '10');
  const light = lights.find((own) => own.tag === tag) ?? lights[0];
  if (!light) return null;
  const stops = parsePower(text, light, Number(full));
  const words = stops === null ? null : powerWords(light, stops, Number(full));
  return (
    <Section title="Dials of other heads">
      <TaggedChoice label="head" things={lights} value={light.tag} onChoose={setTag} />
      <Choice
        label="full power on a numbered dial"
        shown
        value={full}
        options={['6', '7', '8', '9', '10', '11', '12']}
        onChoose={setFull}
      />
      <TextField
        size="small"
        fullWidth
        margin="dense"
        label="A power: 1/4 −0.3, 100 Ws, 8.3 or −2"
        value={text}
        error={stops === null}
        helperText={stops === null ? 'Not a power of this head. Full is 1/1.' : ' '}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
      {words && (
        <Box className="number" data-testid="dial" sx={{ fontSize: '0.8125rem' }}>
          {words.fraction} = {words.numbered}
          {words.wattSeconds === null ? '' : ` = ${Number(words.wattSeconds.toPrecision(3))} Ws`}
        </Box>
      )}
    </Section>
  );
}
