import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import ListItemButton from '@mui/material/ListItemButton';
import ListItemText from '@mui/material/ListItemText';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { useDeferredValue, useState } from 'react';
import { useDispatch } from 'react-redux';
import { Link, useNavigate } from 'react-router';
import { failureMessage } from '../../shared/api';
import { DropFiles } from '../../shared/DropFiles';
import { FileButton } from '../../shared/FileButton';
import { Page } from '../../shared/Page';
import { Pager } from '../../shared/Pager';
import { useAttempt, useTellDeleted } from '../../shared/useAttempt';
import { equipmentOf, kitApi } from '../kit';
import { setsApi } from './api';
import { changedAt } from './changedAt';
import { SetThumbnail } from './SetThumbnail';
import { starterSet } from './starterSet';
import { DROP_WORDS, useReadSets } from './useReadSets';

const PAGE = 20;

/** All sets, newest first: open, copy, delete, search. */
export function SetListView() {
  const [search, setSearch] = useState('');
  const [offset, setOffset] = useState(0);
  const { data, error, isLoading, refetch } = setsApi.useListSetsQuery({
    search: useDeferredValue(search),
    offset,
    limit: PAGE,
  });
  const actions = useSetActions();
  const readSets = useReadSets();

  return (
    <Page title="Sets">
      <DropFiles words={DROP_WORDS} onFiles={readSets} />
      <Stack direction="row" spacing={2} sx={{ mb: 2 }}>
        <TextField
          size="small"
          label="Find by name"
          value={search}
          onChange={(event) => {
            setSearch(event.target.value);
            setOffset(0);
          }}
          sx={{ flex: 1 }}
        />
        <FileButton
          words="Import"
          label="Set files to read"
          accept=".json,application/json"
          multiple
          onFiles={readSets}
        />
        <Button variant="contained" onClick={actions.createNew}>
          New set
        </Button>
      </Stack>
      {error && (
        <Alert severity="warning" action={<Button onClick={() => void refetch()}>Try again</Button>}>
          {failureMessage(error)}
        </Alert>
      )}
      {isLoading && <Skeleton height={64} />}
      {data && data.total === 0 && (
        <Typography sx={{ color: 'text.secondary', maxWidth: 520 }}>
          {search
            ? `No set has “${search}” in its name.`
            : 'No set yet. A new one starts with a gloss cylinder on white paper and one softbox camera left: drag the softbox and watch where its mirror image goes. For a finished example start the application with npm run demo.'}
        </Typography>
      )}
      <List disablePadding>
        {data?.sets.map((set) => (
          <ListItem
            key={set.id}
            disablePadding
            divider
            sx={{ flexWrap: { xs: 'wrap', sm: 'nowrap' }, justifyContent: 'flex-end' }}
          >
            <ListItemButton component={Link} to={`/sets/${set.id}`} sx={{ gap: 2, py: 0.75 }}>
              <SetThumbnail id={set.id} />
              <ListItemText primary={set.name} secondary={changedAt(set.updatedAt)} />
            </ListItemButton>
            <Button size="small" onClick={() => actions.copy(set.id)} aria-label={`Copy ${set.name}`}>
              Copy
            </Button>
            <Button
              size="small"
              onClick={() => actions.remove(set.id, set.name)}
              aria-label={`Delete ${set.name}`}
            >
              Delete
            </Button>
          </ListItem>
        ))}
      </List>
      {data && (
        <Pager {...{ offset }} page={PAGE} total={data.total} words={['Newer', 'Older']} onMove={setOffset} />
      )}
    </Page>
  );
}

function useSetActions() {
  const dispatch = useDispatch<ThunkDispatch<unknown, unknown, UnknownAction>>();
  const navigate = useNavigate();
  const attempt = useAttempt();
  const tellDeleted = useTellDeleted();
  const [create] = setsApi.useCreateSetMutation();
  const [remove] = setsApi.useDeleteSetMutation();

  const read = (id: string) =>
    dispatch(setsApi.endpoints.readSet.initiate(id, { forceRefetch: true, subscribe: false })).unwrap();

  return {
    createNew: () =>
      attempt(async () => {
        // Pressed before the kit is there it waits for it: a set without it stands in no room.
        const kit = dispatch(kitApi.endpoints.readKit.initiate(undefined, { subscribe: false }));
        const { lights, studio } = equipmentOf((await kit.unwrap()).document);
        const stored = await create(starterSet(lights, studio)).unwrap();
        await navigate(`/sets/${stored.id}`);
      }),
    copy: (id: string) =>
      attempt(async () => {
        const { document } = await read(id);
        await create({ ...document, name: `${document.name}, copy`.slice(0, 80) }).unwrap();
      }),
    remove: (id: string, name: string) =>
      attempt(async () => {
        const { document } = await read(id);
        await remove(id).unwrap();
        tellDeleted(name, () => create(document).unwrap());
      }),
  };
}
