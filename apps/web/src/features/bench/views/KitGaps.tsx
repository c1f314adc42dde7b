import { kitCheck } from '@fendrix/core';
import { standInWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { Tag } from '../../../shared/Tag';
import { surround } from '../../../shared/theme';
import { useUnchanged } from '../../../shared/useUnchanged';
import { kitApi } from '../../kit';
import { useSetPart } from '../state/hooks';

/** What stands on the set and is not in the kit, and what of the kit could stand in. */
export const KitGaps = memo(function KitGaps() {
  const { data } = kitApi.useReadKitQuery();
  // Where things stand plays no part: a list that waits does not slow a drag.
  const lights = useDeferredValue(useSetPart((set) => set.lights));
  const sheets = useDeferredValue(useSetPart((set) => set.sheets));
  const missing = useMemo(
    () => (data ? kitCheck({ lights, sheets }, data.document) : []),
    [data, lights, sheets],
  );
  return <MissingList missing={useUnchanged(missing)} />;
});

const MissingList = memo(function MissingList({ missing }: { missing: ReturnType<typeof kitCheck> }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (missing.length === 0) return null;
  return (
    <>
      <Button
        size="small"
        aria-haspopup="dialog"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ color: surround.caution, whiteSpace: 'nowrap' }}
      >
        {missing.length} not in the kit
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <Box role="dialog" aria-label="Not in the kit" sx={{ p: 2, maxWidth: 420, fontSize: '0.8125rem' }}>
          {missing.map(({ tag, name, kind, instead }) => (
            <Box key={tag} sx={{ mb: 1.25 }}>
              <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', fontWeight: 650 }}>
                <Tag>{tag}</Tag>
                {name}
              </Box>
              {instead.length === 0 && (
                <Box>Nothing in the kit comes near. Enter it in the kit if you have it.</Box>
              )}
              {instead.map((entry) => (
                <Box key={entry.id}>
                  {entry.name}: {standInWords(kind, entry.kind)}
                </Box>
              ))}
            </Box>
          ))}
          <Box sx={{ color: 'text.secondary' }}>
            Compared by kind, size and number. The kit page says how many there are of each.
          </Box>
        </Box>
      </Popover>
    </>
  );
});
