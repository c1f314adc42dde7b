import type { Wishes } from '@fendrix/contract';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { failureMessage } from '../../../shared/api';
import { readLikeness } from '../../../shared/render/readLikeness';
import { changedAt, setsApi } from '../../sets';
import { useBenchDispatch } from '../state/hooks';
import { edit } from '../state/thunks';

/** So many sets are offered for what is typed. */
const OFFERED = 20;

/** The picture that this one is to be like: the first of a series. Its figures are read once and kept with the wishes. */
export function LikePicture({ like }: { like: Wishes['like'] }) {
  const { id: own = '' } = useParams();
  const dispatch = useBenchDispatch();
  const [search, setSearch] = useState('');
  const { data, isFetching } = setsApi.useListSetsQuery({ search, offset: 0, limit: OFFERED });
  const [readSet] = setsApi.useLazyReadSetQuery();
  const [state, setState] = useState<{ reading: string } | { refused: string } | null>(null);
  const asked = useRef<AbortController | null>(null);
  useEffect(() => () => asked.current?.abort(), []);

  const read = async ({ id, name }: { id: string; name: string }) => {
    asked.current?.abort();
    const stop = new AbortController();
    asked.current = stop;
    setState({ reading: name });
    try {
      const { document } = await readSet(id).unwrap();
      const found = await readLikeness(document, stop.signal);
      if (stop.signal.aborted) return;
      setState(found ? null : { refused: `No product is seen in “${name}”: choose another picture.` });
      if (found) dispatch(edit((now) => ({ ...now, wishes: { ...now.wishes, like: found } })));
    } catch (error) {
      if (!stop.signal.aborted) setState({ refused: failureMessage(error) });
    }
  };
  const forget = () => {
    asked.current?.abort();
    setState(null);
    dispatch(edit(({ wishes: { like: _forgotten, ...wishes }, ...now }) => ({ ...now, wishes })));
  };

  return (
    <Box data-testid="like-picture" sx={{ mt: 1 }}>
      {like ? (
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
          <Typography sx={{ fontSize: '0.8125rem', minWidth: 0 }}>Like “{like.name}”</Typography>
          <Button
            size="small"
            color="inherit"
            sx={{ py: 0, flexShrink: 0, whiteSpace: 'nowrap', color: 'text.secondary' }}
            onClick={forget}
          >
            not any more
          </Button>
        </Box>
      ) : (
        <Autocomplete
          size="small"
          options={data?.sets.filter(({ id }) => id !== own) ?? []}
          getOptionLabel={({ name }) => name}
          getOptionKey={({ id }) => id}
          isOptionEqualToValue={(one, other) => one.id === other.id}
          filterOptions={(options) => options}
          value={null}
          blurOnSelect
          loading={isFetching}
          loadingText="Being searched"
          noOptionsText="No other set has that in its name."
          onInputChange={(_, text, reason) => setSearch(reason === 'input' ? text : '')}
          onChange={(_, chosen) => chosen && void read(chosen)}
          renderOption={({ key, ...props }, { name, updatedAt }) => (
            <Box component="li" key={key} {...props}>
              <Box>
                {name}
                <Typography sx={{ fontSize: '0.75rem', color: 'text.secondary' }}>
                  {changedAt(updatedAt)}
                </Typography>
              </Box>
            </Box>
          )}
          renderInput={(params) => (
            <TextField
              {...params}
              label="Like the picture of another set"
              helperText="As the first of a series: size, place, angle, tones and colour are held against it."
            />
          )}
        />
      )}
      {state && 'reading' in state && <Typography role="status">“{state.reading}” is being read</Typography>}
      {state && 'refused' in state && (
        <Typography role="alert" color="error">
          {state.refused}
        </Typography>
      )}
    </Box>
  );
}
