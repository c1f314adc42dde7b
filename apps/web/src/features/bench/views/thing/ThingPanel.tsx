import Box from '@mui/material/Box';
import { memo, useDeferredValue } from 'react';
import { useBench, useSet } from '../../state/hooks';
import { BackgroundPanel } from './BackgroundPanel';
import { CameraPanel } from './CameraPanel';
import { LightPanel } from './LightPanel';
import { PersonPanel } from './PersonPanel';
import { ProductPanel } from './ProductPanel';
import { RoomPanel } from './RoomPanel';
import { SheetPanel } from './SheetPanel';
import { TablePanel } from './TablePanel';

/** The selected thing's numbers, typed with units. */
export const ThingPanel = memo(function ThingPanel() {
  // Drawn in pieces beside the drag: forty fields at once would hold the page up.
  const set = useDeferredValue(useSet());
  const selected = useDeferredValue(useBench((bench) => bench.selected));
  if (!selected) {
    return (
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        Nothing is selected. Point at anything in a plan, the table, the background and the walls too, or at
        the picture to learn what that spot mirrors.
      </Box>
    );
  }
  // Of another thing the fields are others: what is half typed in one does not go to the next.
  const key = `${selected.kind} ${selected.key}`;
  switch (selected.kind) {
    case 'light':
      return <LightPanel key={key} set={set} thing={selected} />;
    case 'sheet':
      return <SheetPanel key={key} set={set} thing={selected} />;
    case 'product':
      return <ProductPanel key={key} set={set} thing={selected} />;
    case 'person':
      return <PersonPanel key={key} set={set} thing={selected} />;
    case 'camera':
      return <CameraPanel key={key} set={set} thing={selected} />;
    case 'bench':
      return <TablePanel key={key} set={set} thing={selected} />;
    case 'backdrop':
      return <BackgroundPanel key={key} set={set} thing={selected} />;
    case 'room':
      return <RoomPanel key={key} set={set} thing={selected} />;
  }
});
