import type { Plate } from '@fendrix/contract';
import {
  formatLength,
  fStopsOf,
  ISO_SPEEDS,
  parseLengthM,
  plateFindings,
  SHUTTERS,
  setOfPlate,
} from '@fendrix/core';
import { PLATE_GIVES, plateFindingWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { Choice } from '../../../shared/Choice';
import { WordsField } from '../../../shared/form/WordsField';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { benchActions } from '../state/benchSlice';
import { useBenchDispatch, useSet } from '../state/hooks';
import { changePlate, removePlate } from '../state/plates';
import { edit } from '../state/thunks';
import { PlateDial } from './PlateDial';
import { PlateLights } from './PlateLights';
import { PlateMask } from './PlateMask';

const GIVES = (Object.keys(PLATE_GIVES) as Plate['gives'][]).map((value) => ({
  value,
  words: PLATE_GIVES[value],
}));
/** Stands for no take. */
const AS_IT_STANDS = '-';

/** One plate: what it gives, how it is taken, and what of it goes into the picture. */
export function PlateEditor({ plate }: { plate: Plate }) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const { id, name, gives, note, takeId } = plate;
  const change = (changes: Parameters<typeof changePlate>[1], gesture?: string | null) =>
    dispatch(edit(changePlate(id, changes), gesture));
  const own = setOfPlate(set, plate);
  const { camera } = own;
  return (
    <>
      <Section
        title={name}
        action={
          <Button
            size="small"
            color="inherit"
            onClick={() => {
              dispatch(edit(removePlate(id)));
              dispatch(benchActions.platesChanged({ chosen: null, pointing: null, maskShown: false }));
            }}
          >
            Remove
          </Button>
        }
      >
        {plateFindings(set, plate).map((finding) => (
          <Alert key={JSON.stringify(finding)} severity="warning" sx={{ py: 0, mb: 0.5 }}>
            {plateFindingWords(finding)}
          </Alert>
        ))}
        <WordsField
          label="Name of the plate"
          value={name}
          onCommit={(value, gesture) => change(() => ({ name: value }), gesture)}
        />
        <Choice
          label="gives"
          shown
          value={gives}
          options={GIVES}
          onChoose={(value) => change(() => ({ gives: value }))}
        />
        <Choice
          label="made on"
          hint="A take that was kept may hold other cards, flags and lights; camera and products must be the same"
          shown
          value={takeId ?? AS_IT_STANDS}
          options={[
            { value: AS_IT_STANDS, words: 'the set as it stands' },
            ...set.takes.map((take) => ({ value: take.id, words: take.name })),
          ]}
          onChoose={(value) => change(() => ({ takeId: value === AS_IT_STANDS ? undefined : value }))}
        />
        <WordsField
          label="What to see to"
          value={note}
          multiline
          onCommit={(value, gesture) => change(() => ({ note: value }), gesture)}
        />
      </Section>
      <Section title="Lights of this plate">
        <PlateLights plate={plate} lights={own.lights} />
      </Section>
      <Section title="Exposure and focus of this plate">
        <PlateDial
          label="f-stop"
          prefix="f/"
          dial={fStopsOf(camera.lens)}
          own={plate.fNumber}
          set={set.camera.fNumber}
          onChange={(fNumber) => change(() => ({ fNumber }))}
        />
        <PlateDial
          label="shutter"
          prefix=""
          dial={SHUTTERS}
          own={plate.shutterS}
          set={set.camera.shutterS}
          onChange={(shutterS) => change(() => ({ shutterS }))}
        />
        <PlateDial
          label="ISO"
          prefix=""
          dial={ISO_SPEEDS}
          own={plate.iso}
          set={set.camera.iso}
          onChange={(iso) => change(() => ({ iso }))}
        />
        <QuantityField
          label="focus at"
          hint="From the lens along its axis; left empty it is that of the set"
          shown={plate.focusM === undefined ? '' : formatLength(plate.focusM)}
          none={formatLength(camera.focusM)}
          parse={(text) => parseLengthM(text)}
          example="62 cm"
          onCommit={(focusM) => change(() => ({ focusM }))}
          onClear={() => change(() => ({ focusM: undefined }))}
        />
      </Section>
      <PlateMask plate={plate} />
    </>
  );
}
