import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { memo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { surround } from '../../../shared/theme';

const KEYS: readonly (readonly [string, string])[] = [
  ['M T S X F', 'mirrors, show-through, stops, clipping, focus over the picture; the same key takes it off'],
  ['C', 'crops'],
  ['P', 'pin a spot: then point, or Enter on the picture'],
  ['E', 'evenness: then drag a field'],
  ['W', 'whole paths: the picture without what is kept on large sheets'],
  ['Z', 'zones in the plans'],
  ['+ − 0', 'magnify, smaller, whole frame'],
  ['O', 'only the selected light, the same key shows all again'],
  ['U', 'the selected light off, or on'],
  ['K', 'keep a take'],
  ['L', 'plates laid over the picture, or not'],
  ['V', 'verdicts: then the arrows, Enter to see what would mend one'],
  ['A', 'add something from the kit'],
  ['B', 'a card or flag: then point where, or Enter on the picture'],
  [
    'arrows',
    'move the focused thing 1 cm, with Shift 10 cm, with Alt 1 mm; an edge of the band; the ruler; the pointer in the picture',
  ],
  ['Enter', 'on the picture: point there'],
  ['Delete', 'take the selected thing off the set'],
  ['Ctrl+Z, Ctrl+Shift+Z', 'undo, redo'],
  ['Escape', 'leave what was begun, then what is selected'],
];

/** The keys of the bench, by a button or the question mark. */
export const KeysHelp = memo(function KeysHelp() {
  const [open, setOpen] = useState(false);
  useHotkeys('*', ({ key }) => {
    if (key === '?') setOpen(true);
  });
  return (
    <>
      <Button
        size="small"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
        sx={{ color: surround.quiet, px: 0, minWidth: 0 }}
      >
        Keys
      </Button>
      {open && (
        <Dialog open onClose={() => setOpen(false)} maxWidth="sm" fullWidth aria-labelledby="keys-title">
          <DialogTitle id="keys-title">Keys of the bench</DialogTitle>
          <DialogContent>
            <table>
              <tbody>
                {KEYS.map(([keys, words]) => (
                  <tr key={keys}>
                    <th
                      scope="row"
                      className="number"
                      style={{
                        textAlign: 'left',
                        verticalAlign: 'top',
                        paddingRight: 16,
                        whiteSpace: 'nowrap',
                      }}
                    >
                      {keys}
                    </th>
                    <td>{words}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </DialogContent>
          <DialogActions>
            <Button onClick={() => setOpen(false)}>Close</Button>
          </DialogActions>
        </Dialog>
      )}
    </>
  );
});
