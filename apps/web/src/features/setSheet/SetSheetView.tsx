import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { Link, useParams } from 'react-router';
import { failureMessage } from '../../shared/api';
import { Page } from '../../shared/Page';
import { Section } from '../../shared/Section';
import { SetSheetTables } from './SetSheetTables';
import { setSheetApi } from './setSheetApi';

/** Two pages that rebuild a set: to be read, printed or saved as PDF. */
export function SetSheetView() {
  const { id = '' } = useParams();
  const { data: words, error } = setSheetApi.useReadSetSheetQuery(id, { refetchOnMountOrArgChange: true });
  const address = `/api/sets/${id}/sheet`;
  return (
    <Page title={words?.title ?? 'Set sheet'} wide>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 2, '@media print': { display: 'none' } }}>
        <Button component={Link} to={`/sets/${id}`} size="small" variant="outlined" color="inherit">
          Back to the bench
        </Button>
        {(['A4', 'Letter'] as const).map((paper) => (
          <Button
            key={paper}
            component="a"
            href={`${address}/plans?paper=${paper}`}
            download
            size="small"
            variant="outlined"
            color="inherit"
          >
            Plans alone, {paper}
          </Button>
        ))}
        {words && (
          <>
            <Button size="small" variant="contained" onClick={() => window.print()}>
              Print
            </Button>
            {(['A4', 'Letter'] as const).map((paper) => (
              <Button
                key={paper}
                component="a"
                href={`${address}/pdf?paper=${paper}`}
                download
                size="small"
                variant="outlined"
              >
                PDF, {paper}
              </Button>
            ))}
          </>
        )}
      </Box>
      {error ? (
        <Alert severity="error">{failureMessage(error)}</Alert>
      ) : !words ? (
        <Box role="status">
          Each distance and angle is put off a little, and the light and the mirror images are worked out
          again: some ten to thirty seconds.
          <LinearProgress aria-label="The set sheet is being worked out" sx={{ mt: 1 }} />
        </Box>
      ) : (
        <>
          {words.note && <Box sx={{ mb: 2, maxWidth: 720 }}>{words.note}</Box>}
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { md: '3fr 2fr' },
              gap: 3,
              alignItems: 'start',
              mb: 3,
            }}
          >
            <Box
              component="img"
              src={`${address}/picture`}
              alt={`The picture of ${words.title}`}
              sx={{ width: '100%', aspectRatio: '3 / 2', objectFit: 'contain', bgcolor: 'action.hover' }}
            />
            <SetSheetTables words={words} part="picture" />
          </Box>
          <Section title="Plans">
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3, alignItems: 'flex-end' }}>
              {(['above', 'side'] as const).map((kind) => (
                <Box
                  key={kind}
                  component="img"
                  src={`${address}/${kind}`}
                  alt={kind === 'above' ? 'The set from above' : 'The set from the side, camera at the left'}
                  sx={{ maxWidth: 'min(100%, 540px)', maxHeight: 420, p: 1, bgcolor: 'common.white' }}
                />
              ))}
            </Box>
          </Section>
          <SetSheetTables words={words} part="building" />
        </>
      )}
    </Page>
  );
}
