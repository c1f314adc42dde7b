import type { KitEntry } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import ListItemButton from '@mui/material/ListItemButton';
import ListItemText from '@mui/material/ListItemText';
import Skeleton from '@mui/material/Skeleton';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useDeferredValue, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { Page } from '../../shared/Page';
import { changeRow, freeId, withoutRow } from '../../shared/rows';
import { CsvButtons } from './CsvButtons';
import { EntryEditor } from './EntryEditor';
import { EntryPicture } from './EntryPicture';
import { searchKit } from './search';
import { useKitChanges } from './useKitChanges';

const GROUPS: [KitEntry['what'], string][] = [
  ['light', 'Lights and modifiers'],
  ['sheet', 'Cards, flags and frost'],
  ['product', 'Products'],
  ['material', 'Materials'],
  ['equipment', 'Cameras, lenses, supports, filters, meters'],
];

/** Another piece of the same: what the first was calibrated to is not known of it. */
function uncalibrated(entry: KitEntry): KitEntry {
  if (!('calibrated' in entry) || !entry.calibrated) return entry;
  const { calibrated, ...own } = entry;
  return { ...own, thing: calibrated.before } as KitEntry;
}

/** The studio's kit: what can be put on a set, with real figures. */
export function KitView() {
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const { kit, change } = useKitChanges();
  const wanted = useDeferredValue(search);
  const found = kit ? searchKit(kit.entries, wanted) : [];
  const entry = kit?.entries.find(({ id }) => id === chosen);
  useEffect(() => {
    document.title = 'Kit · Fendrix';
  }, []);

  return (
    <Page title="Kit" wide>
      <Typography sx={{ color: 'text.secondary', maxWidth: 640, mb: 2 }}>
        What the bench offers to put on a set. The figures are usual ones, each with its source: where you
        know your own from a data sheet or a meter, put them in.
      </Typography>
      <CsvButtons name="kit" of={() => true}>
        <Button size="small" component={Link} to="/kit/calibration">
          Calibrate by a card
        </Button>
      </CsvButtons>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) minmax(0, 1fr)' }, gap: 4 }}>
        <Box>
          <TextField
            size="small"
            fullWidth
            label="Find by name or by what it is for: soft, edge, cut, bounce"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          {!kit && <Skeleton height={200} />}
          {kit && found.length === 0 && (
            <Typography sx={{ color: 'text.secondary', mt: 2 }}>
              Nothing in the kit is called or good for “{search}”. Copy something near it and give it that
              word.
            </Typography>
          )}
          {GROUPS.map(([what, title]) => {
            const own = found.filter((candidate) => candidate.what === what);
            if (own.length === 0) return null;
            return (
              <Box key={what} component="section" aria-label={title} sx={{ mt: 2 }}>
                <Typography variant="h2" sx={{ fontSize: '0.9375rem', fontWeight: 650 }}>
                  {title}
                </Typography>
                <List dense disablePadding>
                  {own.map((candidate) => (
                    <ListItem key={candidate.id} disablePadding divider>
                      <ListItemButton
                        selected={candidate.id === chosen}
                        onClick={() => setChosen(candidate.id)}
                        sx={{ gap: 1.5, pl: 0.5 }}
                      >
                        <EntryPicture entry={candidate} />
                        <ListItemText primary={candidate.name} secondary={candidate.purposes.join(', ')} />
                      </ListItemButton>
                    </ListItem>
                  ))}
                </List>
              </Box>
            );
          })}
        </Box>
        <Box
          sx={{
            position: { md: 'sticky' },
            top: 16,
            alignSelf: 'start',
            maxHeight: { md: '90vh' },
            overflow: 'auto',
          }}
        >
          {entry ? (
            <EntryEditor
              key={`${entry.id} ${JSON.stringify(entry)}`}
              entry={entry}
              onSave={(changed) =>
                change(`“${changed.name}” is saved.`, (all) => ({
                  ...all,
                  entries: changeRow(all.entries, entry.id, changed),
                }))
              }
              onCopy={(copied) => {
                const name = `${copied.name}, copy`.slice(0, 80);
                const id = freeId(kit?.entries ?? [], name, 'entry');
                void change(`“${name}” is in the kit.`, (all) => ({
                  ...all,
                  entries: [...all.entries, { ...uncalibrated(copied), id, name } as KitEntry],
                })).then((done) => done && setChosen(id));
              }}
              onRemove={() =>
                void change(`“${entry.name}” is deleted.`, (all) => ({
                  ...all,
                  entries: withoutRow(all.entries, entry.id),
                }))
              }
            />
          ) : (
            <Typography sx={{ color: 'text.secondary' }}>
              Choose an entry to see and change its figures.
            </Typography>
          )}
        </Box>
      </Box>
    </Page>
  );
}
