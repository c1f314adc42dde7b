import type { AnyMaterial } from '@fendrix/contract';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useId } from 'react';
import { Choice } from '../Choice';
import { Row } from '../Row';
import { grouped, type NamedMaterial } from './materialGroups';
import { Swatch } from './Swatch';
import { knownAs, TINTS, type Tint, tinted } from './tint';

const OWN = 'its own figures';

/** A material by name and picture; one that is not known goes by its own figures. */
export function MaterialChoice<M extends AnyMaterial>({
  label,
  material,
  known,
  onChoose,
}: {
  label: string;
  material: M;
  known: readonly NamedMaterial<M>[];
  onChoose(material: M): void;
}) {
  const id = useId();
  const as = knownAs(material, known);
  const now = as?.one.name ?? OWN;
  return (
    <>
      <Row label={<span id={id}>{label}</span>}>
        <Select
          variant="standard"
          disableUnderline
          value={now}
          labelId={id}
          onChange={({ target: { value } }) => {
            const found = known.find(({ name }) => name === value);
            if (found) onChoose(found.material);
          }}
          renderValue={(name) => (
            <>
              <Swatch material={material} width={30} />
              <span style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</span>
            </>
          )}
          sx={{
            maxWidth: '68%',
            my: '2px',
            fontSize: '0.8125rem',
            border: '1px solid',
            borderColor: 'divider',
            borderRadius: '2px',
            '& .MuiSelect-select': { display: 'flex', alignItems: 'center', gap: 0.75, py: 0.25, pl: 0.5 },
          }}
          MenuProps={{ slotProps: { paper: { sx: { maxHeight: 460 } } } }}
        >
          {now === OWN && (
            <MenuItem dense value={OWN} sx={{ gap: 1, fontSize: '0.8125rem' }}>
              <Swatch material={material} /> {OWN}
            </MenuItem>
          )}
          {grouped(known).flatMap(([group, own]) => [
            <ListSubheader key={`group ${group}`} sx={{ lineHeight: 2 }}>
              {group}
            </ListSubheader>,
            ...own.map((one) => (
              <MenuItem key={one.name} dense value={one.name} sx={{ gap: 1, fontSize: '0.8125rem' }}>
                <Swatch material={one.material} /> {one.name}
              </MenuItem>
            )),
          ])}
        </Select>
      </Row>
      {as?.tint && (
        <Choice
          shown
          label={`colour of ${label}`}
          value={as.tint}
          options={Object.keys(TINTS) as Tint[]}
          onChoose={(tint) =>
            as.one.material.kind === 'dielectric' && onChoose(tinted(as.one.material, TINTS[tint]) as M)
          }
        />
      )}
    </>
  );
}
