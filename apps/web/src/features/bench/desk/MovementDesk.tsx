import { fallSpeedMS, formatLength, freezingTimeS, parseLengthM } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { Choice } from '../../../shared/Choice';
import { Explained } from '../../../shared/Explained';
import { timeQuantity } from '../../../shared/form/words';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { useSetPart } from '../state/hooks';
import { BlurSection } from './movement/BlurSection';
import { KINDS, type Movement, type MovementFigures, usualFigures } from './movement/kinds';
import { ToneAndFocus } from './movement/ToneAndFocus';
import { TriesSection } from './movement/TriesSection';
import { countQuantity } from './stopsQuantity';
import { useDeskFigure } from './useDeskFigure';

/** Freeze or blur: speed, blur for the shutter and for each flash, what freezes it, tries and spares, tone and focus. */
export default function MovementDesk() {
  const camera = useSetPart((set) => set.camera);
  const [movement, setMovement] = useDeskFigure<Movement>('movement kind', 'pour');
  const [figures, setFigures] = useDeskFigure<Partial<Record<Movement, Partial<MovementFigures>>>>(
    'movement figures',
    {},
  );
  const own: MovementFigures = { ...usualFigures(movement), ...figures[movement] };
  const put = (changes: Partial<MovementFigures>) =>
    setFigures({ ...figures, [movement]: { ...figures[movement], ...changes } });
  const speed = own.fallM === undefined ? (own.speedMS ?? 0) : fallSpeedMS(own.fallM);
  const freezeS = freezingTimeS(camera, speed, own.sharpPx);

  return (
    <Box>
      <Section title="Movement">
        <Choice
          label="what moves"
          shown
          value={movement}
          options={(Object.keys(KINDS) as Movement[]).map((value) => ({ value, words: KINDS[value].words }))}
          onChoose={setMovement}
        />
        {own.fallM === undefined ? (
          <QuantityField
            label="speed, m/s"
            shown={countQuantity.format(own.speedMS ?? 0)}
            parse={countQuantity.parse}
            example="0.3"
            onCommit={(speedMS) => put({ speedMS })}
          />
        ) : (
          <QuantityField
            label="falls, from spout to where it is seen"
            shown={formatLength(own.fallM)}
            parse={positiveLength}
            example="10 cm"
            onCommit={(fallM) => put({ fallM })}
          />
        )}
        <Explained label="speed there" value={`${speed.toFixed(2)} m/s`}>
          √(2 g h) with h = {own.fallM === undefined ? 'none' : formatLength(own.fallM)} and g = 9.81 m/s²;
          the air is left out. Half the height is 0.7 of the speed.
        </Explained>
        <QuantityField
          label="sharp is up to, pixels of the sensor"
          shown={countQuantity.format(own.sharpPx)}
          parse={countQuantity.parse}
          example="2"
          onCommit={(sharpPx) => put({ sharpPx })}
        />
        <Explained label="required" value={`${timeQuantity.format(freezeS)} or faster`}>
          {own.sharpPx} pixels of the sensor over the speed, at the magnification of this focus.
        </Explained>
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', mt: 0.5 }}>{own.hint}</Box>
      </Section>

      <BlurSection speedMS={speed} freezeS={freezeS} />
      <TriesSection figures={own} onChange={put} />
      <ToneAndFocus />

      <Alert role="note" severity="warning">
        Liquid near lights and packs: residual-current device, drip loops, nothing on the floor with a joint,
        heads above and away, hands dry. Cover the camera. What was styled with glue or left warm is not
        eaten.
      </Alert>
    </Box>
  );
}

const positiveLength = (text: string) => {
  const value = parseLengthM(text);
  return value !== null && value > 0 ? value : null;
};
