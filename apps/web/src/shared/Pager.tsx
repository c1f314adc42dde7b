import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

/** Leafs through a long list; nothing where it fits on one page. */
export function Pager({
  offset,
  page,
  total,
  words,
  onMove,
}: {
  offset: number;
  page: number;
  total: number;
  /** For the page before and the one after. */
  words: readonly [string, string];
  onMove(offset: number): void;
}) {
  if (total <= page) return null;
  return (
    <Stack direction="row" spacing={1} sx={{ mt: 2, alignItems: 'center' }}>
      <Button disabled={offset === 0} onClick={() => onMove(offset - page)}>
        {words[0]}
      </Button>
      <Button disabled={offset + page >= total} onClick={() => onMove(offset + page)}>
        {words[1]}
      </Button>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {offset + 1} to {Math.min(offset + page, total)} of {total}
      </Typography>
    </Stack>
  );
}
