import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { Page } from '../shared/Page';

export function LostPage() {
  return (
    <Page title="Nothing here">
      <Typography sx={{ mb: 2 }}>This address leads nowhere; the set may have been deleted.</Typography>
      <Button component={Link} to="/sets" variant="contained">
        All sets
      </Button>
    </Page>
  );
}
