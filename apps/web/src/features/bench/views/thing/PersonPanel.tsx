import { formatLength, parseLengthM } from '@fendrix/core';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { QuantityField } from '../../../../shared/QuantityField';
import { changePerson } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { type PanelProps, RemoveButton, StandFields, Title } from './ThingFields';

const DARK = 0.05;
const LIGHT = 0.7;

/** Someone on the set: where they stand, how tall, and whether their clothes are dark. */
export function PersonPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const person = set.people.find(({ name }) => name === thing.key);
  if (!person) return null;
  const clothes = 'reflectance' in person.clothes ? person.clothes.reflectance : DARK;
  const dark = typeof clothes === 'number' ? clothes < 0.2 : clothes[1] < 0.2;
  return (
    <>
      <Title name={person.name} kind="is mirrored and shades like everything else" />
      <StandFields set={set} thing={thing} onFloor />
      <QuantityField
        label="tall"
        shown={formatLength(person.heightM)}
        parse={(text) => parseLengthM(text)}
        example="175 cm"
        onCommit={(heightM) => dispatch(edit(changePerson(person.name, (old) => ({ ...old, heightM }))))}
      />
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={dark}
            onChange={(_, on) =>
              dispatch(
                edit(
                  changePerson(person.name, (old) => ({
                    ...old,
                    clothes: { kind: 'matte', reflectance: on ? DARK : LIGHT },
                  })),
                ),
              )
            }
          />
        }
        label="Dark clothes"
        slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
      />
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
        Press M to see where they come into the mirrors. Dark clothes, or a step aside, take them out.
      </Box>
      <RemoveButton thing={thing} />
    </>
  );
}
