import type { Product, StoredSet } from '@fendrix/contract';
import { changesBetween, type Rebuilt } from '@fendrix/core';
import { describeChange, rebuiltFrameWords, rebuiltImageWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { failureMessage } from '../../shared/api';
import { Choice } from '../../shared/Choice';
import { Page } from '../../shared/Page';
import { Section } from '../../shared/Section';
import { useAttempt } from '../../shared/useAttempt';
import { jobsApi } from '../jobs';
import { kitApi } from '../kit';
import { setsApi } from '../sets';
import { rebuildApi } from './rebuildApi';

/** An old set with another product: what must change, what stays; then it is made and built. */
export function RebuildView() {
  const { id = '' } = useParams();
  const { data, error } = setsApi.useReadSetQuery(id, { refetchOnMountOrArgChange: true });
  useEffect(() => {
    document.title = 'Rebuild · Fendrix';
  }, []);
  return (
    <Page title={data ? `Rebuild “${data.name}” with another product` : 'Rebuild'} wide>
      <Box sx={{ mb: 2 }}>
        <Button component={Link} to={`/sets/${id}`} size="small" variant="outlined" color="inherit">
          To the bench of the old set
        </Button>
      </Box>
      {error ? (
        <Alert severity="error">{failureMessage(error)}</Alert>
      ) : !data ? (
        <LinearProgress aria-label="The set is being read" />
      ) : data.document.products.length === 0 ? (
        <Box>
          Nothing stands on this set that another product could take the place of: put a product on its bench
          first.
        </Box>
      ) : (
        <Rebuilding stored={data} />
      )}
    </Page>
  );
}

const KIT = '';

function Rebuilding({ stored }: { stored: StoredSet }) {
  const { products } = stored.document;
  const [old, setOld] = useState(products[0]?.id ?? '');
  const [source, setSource] = useState(KIT);
  const [chosen, setChosen] = useState('');
  const [align, setAlign] = useState<'base' | 'centre'>('base');
  const jobs = jobsApi.useListJobsQuery({ search: '', offset: 0, limit: 50, archived: 'no' });
  const offered = useProductsOf(source);
  const body = offered.find(({ id }) => id === chosen)?.body;
  const { currentData: found, error } = rebuildApi.useRebuildQuery(
    { set: stored.id, product: old, with: body as Product, align },
    { skip: !body },
  );
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, mb: 2, '& > *': { minWidth: 360 } }}>
        {products.length > 1 && (
          <Choice
            shown
            label="In the place of"
            value={old}
            options={products.map(({ id, name }) => ({ value: id, words: name }))}
            onChoose={setOld}
          />
        )}
        <Choice
          shown
          label="Products of"
          value={source}
          options={[
            { value: KIT, words: 'the kit' },
            ...(jobs.data?.jobs ?? []).map(({ id, name }) => ({ value: id, words: name })),
          ]}
          onChoose={(next) => {
            setSource(next);
            setChosen('');
          }}
        />
        <Choice
          shown
          label="New product"
          value={chosen}
          options={[
            { value: '', words: 'choose one' },
            ...offered.map(({ id, name }) => ({ value: id, words: name })),
          ]}
          onChoose={setChosen}
        />
        <Choice
          shown
          label="On one line"
          value={align}
          options={[
            { value: 'base', words: 'the feet' },
            { value: 'centre', words: 'the middles, by a riser' },
          ]}
          onChoose={setAlign}
        />
      </Box>
      {!body && (
        <Box sx={{ color: 'text.secondary', maxWidth: 640 }}>
          Choose the new product. Then it stands here what has to be moved, cut or raised so that its picture
          stands beside the old one, and what stays.
        </Box>
      )}
      {error && <Alert severity="error">{failureMessage(error)}</Alert>}
      {body && !found && !error && (
        <Box role="status">
          Each light and card is tried until its image lies as it did.
          <LinearProgress aria-label="The set is being rebuilt" sx={{ mt: 1 }} />
        </Box>
      )}
      {found && body && <Found stored={stored} found={found} name={`${stored.name}, ${body.name}`} />}
    </>
  );
}

/** Products of the kit, or of a job. */
function useProductsOf(source: string): { id: string; name: string; body: Product }[] {
  const kit = kitApi.useReadKitQuery();
  const job = jobsApi.useReadNewerJobQuery(source, { skip: source === KIT });
  if (source === KIT)
    return (kit.data?.document.entries ?? []).flatMap((entry) =>
      entry.what === 'product' ? [{ id: entry.id, name: entry.name, body: entry.thing }] : [],
    );
  return (job.currentData?.document.products ?? []).map(({ id, name, body }) => ({ id, name, body }));
}

function Found({ stored, found, name }: { stored: StoredSet; found: Rebuilt; name: string }) {
  const attempt = useAttempt();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const [create, creating] = setsApi.useCreateSetMutation();
  const before = stored.document;
  const images = found.images.map((image) => ({ ...image, ...rebuiltImageWords(image) }));
  const changed = new Set(
    changesBetween(before, found.set).flatMap(({ thing }) =>
      'tag' in thing ? [`${thing.kind} ${thing.tag}`] : [],
    ),
  );
  const untouched = [
    ...before.lights.map(({ tag, name: own }) => ({ key: `light ${tag}`, words: `${tag} ${own}` })),
    ...before.sheets.map(({ tag, name: own }) => ({ key: `sheet ${tag}`, words: `${tag} ${own}` })),
  ].filter(({ key }) => !changed.has(key));
  const make = () =>
    attempt(async () => {
      const made = await create({ ...found.set, name: name.slice(0, 80) }).unwrap();
      const frame = query.get('frame');
      navigate(`/sets/${made.id}/build?from=${stored.id}${frame ? `&frame=${frame}` : ''}`);
    });
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: '3fr 2fr' }, gap: 4 }}>
      <Section title="What must change">
        <ul style={{ margin: 0, paddingLeft: 18 }}>
          {rebuiltFrameWords(found).map((words) => (
            <li key={words}>{words}</li>
          ))}
          {images
            .filter(({ how, isMet }) => how !== 'stays' || !isMet)
            .map(({ title, words, isMet }) => (
              <li key={`${title} ${words}`}>
                <strong>{title}</strong> {isMet ? '' : 'is not as it was: '}
                {words}
              </li>
            ))}
        </ul>
        <Box sx={{ mt: 1.5, fontSize: '0.8125rem' }}>
          <strong>In all:</strong> {describeChange(before, found.set).join('; ') || 'nothing'}.
        </Box>
        <Button variant="contained" sx={{ mt: 2 }} disabled={creating.isLoading} onClick={() => void make()}>
          Make this set and build it
        </Button>
      </Section>
      <Section title="What stays">
        <ul style={{ margin: 0, paddingLeft: 18 }}>
          <li>Lens, f-stop, shutter, ISO, white balance.</li>
          {images
            .filter(({ how, isMet }) => how === 'stays' && isMet)
            .map(({ title, words }) => (
              <li key={`${title} ${words}`}>
                <strong>{title}</strong> {words}
              </li>
            ))}
          {untouched
            .filter(({ words }) => !images.some(({ title }) => title === words))
            .map(({ key, words }) => (
              <li key={key}>
                <strong>{words}</strong> stays.
              </li>
            ))}
        </ul>
        <Box sx={{ mt: 1.5, color: 'text.secondary', fontSize: '0.8125rem' }}>
          Percents are of the visible width of the product from camera left, at the height of its mirror band.
          Check tones and verdicts on the bench: another material records otherwise.
        </Box>
      </Section>
    </Box>
  );
}
