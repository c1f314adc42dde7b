import type { Light } from '@fendrix/contract';
import {
  asMetered,
  atMoment,
  formatStops,
  parseStops,
  placeOf,
  type Sky,
  type WindowLight,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link } from 'react-router';
import { Choice } from '../../../../shared/Choice';
import { QuantityField } from '../../../../shared/QuantityField';
import { useEquipment } from '../../../kit';

/** Now, as a field for day and time takes it. */
const localNow = (): string => {
  const now = new Date();
  return new Date(now.getTime() - 60_000 * now.getTimezoneOffset()).toISOString().slice(0, 16);
};

/** Gives a window of the studio the daylight of a day and time. */
export function DaylightAt({ window, onChange }: { window: WindowLight; onChange(changes: Light): void }) {
  const studio = useEquipment()?.studio;
  const [at, setAt] = useState(localNow);
  const [sky, setSky] = useState<Sky>('overcast');
  const place = studio && placeOf(studio);
  const faces = studio?.windows.find(({ name }) => name === window.name)?.facesDeg;
  if (!studio || faces === undefined) return null;
  if (!place)
    return (
      <Box sx={{ fontSize: '0.75rem', color: 'text.secondary', my: 0.5 }}>
        Say in the{' '}
        <Link to="/room" style={{ color: 'inherit' }}>
          room
        </Link>{' '}
        where it is, and this window can have the daylight of a time.
      </Box>
    );
  const moment = new Date(at).getTime();
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, alignItems: 'center', my: 0.5 }}>
      <input
        type="datetime-local"
        className="number"
        aria-label="Day and time of the daylight"
        value={at}
        onChange={({ target }) => setAt(target.value)}
      />
      <Choice<Sky>
        label="Sky"
        value={sky}
        options={[
          { value: 'overcast', words: 'overcast' },
          { value: 'clear', words: 'clear' },
        ]}
        onChoose={setSky}
      />
      <Button
        size="small"
        disabled={Number.isNaN(moment)}
        onClick={() => onChange(atMoment(window, faces, moment, place, sky))}
      >
        Give it this daylight
      </Button>
      <Box sx={{ width: '100%' }}>
        <QuantityField
          label="a meter reads more by"
          hint="Against what this window is taken to give: its sky and sun are made that much stronger"
          shown={formatStops(0)}
          parse={parseStops}
          example="+0.7"
          onCommit={(stops) => stops !== 0 && onChange(asMetered(window, stops))}
        />
      </Box>
    </Box>
  );
}
