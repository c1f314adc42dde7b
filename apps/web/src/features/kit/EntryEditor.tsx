import type { KitEntry } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import { useState } from 'react';
import { SchemaForm } from '../../shared/form/SchemaForm';
import { thingSchema } from '../../shared/form/schema';
import { WordsField } from '../../shared/form/WordsField';
import { QuantityField } from '../../shared/QuantityField';

/** Set anew wherever the thing is put on a set. */
const ON_SET = new Set([
  'tag',
  'id',
  'name',
  'positionM',
  'aimM',
  'rollDeg',
  'on',
  'turnDeg',
  'bandHeightM',
  'keepsDirection',
  'stand',
]);

interface EntryEditorProps {
  entry: KitEntry;
  onSave(entry: KitEntry): Promise<boolean>;
  onCopy(entry: KitEntry): void;
  onRemove(): void;
}

/** All figures of one entry, with what it is for and where the figures come from. */
export function EntryEditor({ entry, onSave, onCopy, onRemove }: EntryEditorProps) {
  const [draft, setDraft] = useState<KitEntry>(entry);
  const change = (changes: Partial<KitEntry>) => setDraft({ ...draft, ...changes } as KitEntry);
  return (
    <Box component="section" aria-label={`Figures of ${entry.name}`}>
      <WordsField
        label="name"
        value={draft.name}
        onCommit={(name) =>
          change({
            name,
            thing: 'name' in draft.thing ? { ...draft.thing, name } : draft.thing,
          } as Partial<KitEntry>)
        }
      />
      <WordsField
        label="good for (words, with commas)"
        wide
        value={draft.purposes.join(', ')}
        onCommit={(text) =>
          change({
            purposes: text
              .split(',')
              .map((word) => word.trim())
              .filter(Boolean),
          })
        }
      />
      <QuantityField
        label="how many there are"
        hint="What a set uses beyond this is told on its bench"
        shown={String(draft.count)}
        parse={(text) => (/^\d{1,2}$/.test(text.trim()) ? Number(text) : null)}
        example="2"
        onCommit={(count) => change({ count })}
      />
      <WordsField
        label="where its figures come from"
        multiline
        value={draft.source}
        onCommit={(source) => change({ source })}
      />
      <Box sx={{ mt: 1.5 }}>
        <SchemaForm
          schema={thingSchema(draft.what)}
          value={draft.thing as unknown as Record<string, unknown>}
          hidden={ON_SET}
          onChange={(thing) => change({ thing } as unknown as Partial<KitEntry>)}
        />
      </Box>
      <Stack direction="row" spacing={1} sx={{ mt: 2 }}>
        <Button
          variant="contained"
          size="small"
          disabled={draft === entry}
          onClick={() => void onSave(draft)}
        >
          Save
        </Button>
        <Button size="small" disabled={draft === entry} onClick={() => setDraft(entry)}>
          Leave as it was
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button size="small" color="inherit" onClick={() => onCopy(draft)}>
          Copy
        </Button>
        <Button size="small" color="inherit" onClick={onRemove}>
          Delete
        </Button>
      </Stack>
    </Box>
  );
}
