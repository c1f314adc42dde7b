import { messageOf } from '@fendrix/workers';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link, useRouteError } from 'react-router';
import { Page } from '../shared/Page';

/** A part of the program that comes when it is asked for, and did not: each browser says it in its own words. */
const NOT_LOADED = /dynamically imported module|importing a module script|preload/i;

/** In place of a page that could not be drawn, or loaded: what happened, what is kept, and the ways on. */
export function BrokenPage() {
  const said = messageOf(useRouteError());
  const notLoaded = NOT_LOADED.test(said);
  return (
    <Page title={notLoaded ? 'This page could not be loaded' : 'This page has a fault'}>
      <Typography sx={{ mb: 2, maxWidth: 640 }}>
        {notLoaded
          ? 'The server gave no answer, or Fendrix was updated while this window was open. Load the page again.'
          : 'It could not be drawn. What was saved is on the server, and what was not saved yet is kept in this browser: load the page again, and go on from there.'}
      </Typography>
      <Stack direction="row" spacing={1}>
        <Button variant="contained" onClick={() => window.location.reload()}>
          Load it again
        </Button>
        <Button component={Link} to="/jobs">
          All jobs
        </Button>
        <Button component={Link} to="/sets">
          All sets
        </Button>
      </Stack>
      {!notLoaded && (
        <Typography
          component="details"
          sx={{ mt: 3, color: 'text.secondary', fontSize: '0.8125rem', maxWidth: 640 }}
        >
          <summary>What to tell who looks after Fendrix</summary>
          {said}
        </Typography>
      )}
    </Page>
  );
}
