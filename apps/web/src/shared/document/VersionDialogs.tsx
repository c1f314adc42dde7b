import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { type ReactNode, useMemo } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { useNavigate } from 'react-router';
import { fileName, saveFile } from '../saveFile';
import { useAttempt } from '../useAttempt';
import { dropDraft } from './drafts';
import type { FileBarProps } from './FileBar';
import type { OpenDocumentState } from './openDocument';

type Props<D extends { name: string }, K extends string> = FileBarProps<D, K>;

function useFile<D extends { name: string }, K extends string>({ open }: Props<D, K>) {
  const file = useSelector((state: Record<K, OpenDocumentState<D>>) => state[open.key].file);
  const mine = useSelector((state: Record<K, OpenDocumentState<D>>) => open.documentOf(state));
  const dispatch = useDispatch<ThunkDispatch<Record<K, OpenDocumentState<D>>, unknown, UnknownAction>>();
  return { file, mine, dispatch };
}

/** Stores a document under an address of its own, and opens that. */
function useCopy<D extends { name: string }, K extends string>({ open }: Props<D, K>) {
  const dispatch = useDispatch<ThunkDispatch<unknown, unknown, UnknownAction>>();
  const attempt = useAttempt();
  const navigate = useNavigate();
  return (document: D, done: () => void) =>
    attempt(async () => {
      const name = `${document.name}, copy`.slice(0, 80);
      const call = dispatch(open.copies.create({ ...document, name }) as UnknownAction) as unknown as {
        unwrap(): Promise<{ id: string }>;
      };
      const { id } = await call.unwrap();
      done();
      await navigate(open.copies.path(id));
    });
}

const saveDocument = (document: { name: string }): void =>
  saveFile(JSON.stringify(document, null, 2), fileName(document.name, 'json'), 'application/json');

const DAY = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short' });

/** Asks which of two versions to go on with when the document was changed elsewhere. */
export function ConflictDialog<D extends { name: string }, K extends string>(props: Props<D, K>) {
  const { file, mine, dispatch } = useFile(props);
  const copy = useCopy(props);
  const { open, noun } = props;
  const { newer } = file;
  if (!newer || !mine) return null;
  return (
    <Versions
      {...props}
      title={`This ${noun} was changed elsewhere`}
      first={{ title: 'The newer one, as saved elsewhere', document: newer.document }}
      second={{ title: 'Yours, not saved', document: mine }}
      words="Another window saved it in the meantime. Whichever you go on with, undo brings the other one back."
    >
      <Button onClick={() => copy(mine, () => void dispatch(open.settleConflict('newer')))}>
        Save mine as a copy
      </Button>
      <Button onClick={() => dispatch(open.settleConflict('newer'))}>Take the newer one</Button>
      <Button variant="contained" onClick={() => dispatch(open.settleConflict('mine'))}>
        Go on with mine
      </Button>
    </Versions>
  );
}

/** Offers what was kept in this browser and never saved. */
export function DraftDialog<D extends { name: string }, K extends string>(props: Props<D, K>) {
  const { file, mine, dispatch } = useFile(props);
  const copy = useCopy(props);
  const { open, noun } = props;
  const [draft] = file.offered;
  const { stored } = file;
  if (!draft || !mine || !stored || file.newer) return null;
  const document = draft.document as D;
  const when = draft.at ? `on ${DAY.format(new Date(draft.at))}` : 'some time ago';
  const settled = () => void dispatch(open.draftSettled(draft.window));
  const older = draft.revision < stored.revision ? ` It was saved elsewhere since.` : '';
  return (
    <Versions
      {...props}
      title={`Changes to this ${noun} were never saved`}
      first={{ title: 'As it is saved', document: mine }}
      second={{ title: 'Kept in this browser, not saved', document }}
      words={`They were made ${when} in this browser and could not be saved.${older} Going on with them can be undone.`}
      onEscape={settled}
    >
      <Button
        color="inherit"
        onClick={() => {
          dropDraft(stored.id, draft.window);
          settled();
        }}
      >
        Discard them
      </Button>
      <Button color="inherit" onClick={settled}>
        Decide later
      </Button>
      <Button
        onClick={() =>
          copy(document, () => {
            dropDraft(stored.id, draft.window);
            settled();
          })
        }
      >
        Save them as a copy
      </Button>
      <Button variant="contained" onClick={() => dispatch(open.takeDraft(draft))}>
        Go on with them
      </Button>
    </Versions>
  );
}

/** What went wrong with saving, and the ways out. */
export function TroubleDialog<D extends { name: string }, K extends string>({
  why,
  onClose,
  ...props
}: Props<D, K> & { why: string; onClose(): void }) {
  const { file, mine } = useFile(props as unknown as Props<D, K>);
  const copy = useCopy(props as unknown as Props<D, K>);
  if (!mine) return null;
  const waits = file.save === 'storage' || file.save === 'failed';
  return (
    <Dialog open onClose={onClose} aria-labelledby="trouble-title">
      <DialogTitle id="trouble-title">Your last changes are not saved</DialogTitle>
      <DialogContent sx={{ fontSize: '0.875rem', display: 'grid', gap: 1 }}>
        <div>{why}</div>
        <div>
          {file.kept
            ? 'They are kept in this browser until they are saved, thrown away or saved as a copy.'
            : 'This browser has no room for them either: leave this page open, or save them as a file.'}
          {waits && ' The save is tried again by itself every few seconds.'}
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => saveDocument(mine)}>Save as a file</Button>
        <Button onClick={() => copy(mine, onClose)}>Save as a copy</Button>
        <Button variant="contained" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}

interface Version<D> {
  title: string;
  document: D;
}

/** Two versions side by side, with what tells them apart, and what can be done. */
function Versions<D extends { name: string }, K extends string>({
  title,
  words,
  first,
  second,
  describe,
  picture,
  onEscape,
  children,
}: Props<D, K> & {
  title: string;
  words: string;
  first: Version<D>;
  second: Version<D>;
  /** Where nothing has to be decided now. */
  onEscape?(): void;
  children: ReactNode;
}) {
  const differences = useMemo(() => {
    try {
      return describe(first.document, second.document);
    } catch {
      return ['it was written by another version of Fendrix'];
    }
  }, [describe, first.document, second.document]);
  return (
    <Dialog
      open
      maxWidth="sm"
      fullWidth
      aria-labelledby="versions-title"
      onClose={(_, reason) => reason === 'escapeKeyDown' && onEscape?.()}
    >
      <DialogTitle id="versions-title">{title}</DialogTitle>
      <DialogContent sx={{ fontSize: '0.875rem' }}>
        <div>{words}</div>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 2, mt: 1.5 }}>
          {[first, second].map(({ title: heading, document }) => (
            <Box key={heading} sx={{ minWidth: 0 }}>
              <Box component="h3" sx={{ m: 0, mb: 0.5, fontSize: '0.8125rem' }}>
                {heading}
              </Box>
              {picture?.(document)}
              <Box sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>{document.name}</Box>
            </Box>
          ))}
        </Box>
        <Box sx={{ mt: 1.5, fontWeight: 600 }}>What the second has other than the first</Box>
        <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
          {differences.slice(0, 8).map((what) => (
            <li key={what}>{what}</li>
          ))}
          {differences.length === 0 && <li>nothing that is seen: small figures only</li>}
          {differences.length > 8 && <li>and {differences.length - 8} more</li>}
        </Box>
      </DialogContent>
      <DialogActions sx={{ flexWrap: 'wrap', gap: 0.5 }}>{children}</DialogActions>
    </Dialog>
  );
}
