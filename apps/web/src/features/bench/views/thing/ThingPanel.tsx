import Button from '@mui/material/Button';
import { memo, useDeferredValue } from 'react';
import { benchActions } from '../../state/benchSlice';
import { useBench, useBenchDispatch, useSet } from '../../state/hooks';
import { BackgroundPanel } from './BackgroundPanel';
import { CameraPanel } from './CameraPanel';
import { LightPanel } from './LightPanel';
import { PersonPanel } from './PersonPanel';
import { ProductPanel } from './ProductPanel';
import { RoomPanel } from './RoomPanel';
import { SheetPanel } from './SheetPanel';
import { TablePanel } from './TablePanel';
import type { PanelProps } from './ThingFields';
import { ThingsOnSet } from './ThingsOnSet';

/** The selected thing's numbers, typed with units. */
export const ThingPanel = memo(function ThingPanel() {
  // Drawn in pieces beside the drag: forty fields at once would hold the page up.
  const set = useDeferredValue(useSet());
  const selected = useDeferredValue(useBench((bench) => bench.selected));
  if (!selected) return <ThingsOnSet set={set} />;
  return (
    <>
      <AllThings />
      <PanelOf set={set} thing={selected} />
    </>
  );
});

/** Back to the list of what stands on the set. */
function AllThings() {
  const dispatch = useBenchDispatch();
  return (
    <Button
      size="small"
      color="inherit"
      sx={{ px: 0, py: 0, mb: 0.5, color: 'text.secondary' }}
      onClick={() => dispatch(benchActions.selected(null))}
    >
      ‹ all on the set
    </Button>
  );
}

function PanelOf({ set, thing }: PanelProps) {
  // Of another thing the fields are others: what is half typed in one does not go to the next.
  const key = `${thing.kind} ${thing.key}`;
  switch (thing.kind) {
    case 'light':
      return <LightPanel key={key} set={set} thing={thing} />;
    case 'sheet':
      return <SheetPanel key={key} set={set} thing={thing} />;
    case 'product':
      return <ProductPanel key={key} set={set} thing={thing} />;
    case 'person':
      return <PersonPanel key={key} set={set} thing={thing} />;
    case 'camera':
      return <CameraPanel key={key} set={set} thing={thing} />;
    case 'bench':
      return <TablePanel key={key} set={set} thing={thing} />;
    case 'backdrop':
      return <BackgroundPanel key={key} set={set} thing={thing} />;
    case 'room':
      return <RoomPanel key={key} set={set} thing={thing} />;
  }
}
