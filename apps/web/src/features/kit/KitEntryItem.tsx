import type { KitEntry } from '@fendrix/contract';
import Box from '@mui/material/Box';
import ListItem from '@mui/material/ListItem';
import ListItemButton from '@mui/material/ListItemButton';
import ListItemText from '@mui/material/ListItemText';
import Skeleton from '@mui/material/Skeleton';
import Typography from '@mui/material/Typography';
import { kitApi } from './api';
import { EntryPicture } from './EntryPicture';

/** An entry of the kit in a list to choose from: its picture, name and what it is for. */
export function KitEntryItem({
  entry,
  note,
  selected = false,
  onChoose,
}: {
  entry: KitEntry;
  /** What is to be known before it is taken. */
  note?: string | undefined;
  selected?: boolean;
  onChoose(): void;
}) {
  const purposes = entry.purposes.join(', ');
  return (
    <ListItem disablePadding divider>
      <ListItemButton selected={selected} onClick={onChoose}>
        <Box sx={{ mr: 1.5, display: 'flex' }}>
          <EntryPicture entry={entry} />
        </Box>
        <ListItemText primary={entry.name} secondary={note ? `${note} · ${purposes}` : purposes} />
      </ListItemButton>
    </ListItem>
  );
}

/** While the kit is being read, or cannot be. */
export function KitReading() {
  const { data, error } = kitApi.useReadKitQuery();
  if (error) {
    return (
      <Typography sx={{ color: 'text.secondary' }}>The kit cannot be read from the server now.</Typography>
    );
  }
  return data ? null : <Skeleton height={120} />;
}
