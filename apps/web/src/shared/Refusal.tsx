import Box from '@mui/material/Box';

/** Why what was typed is not taken, at its field. */
export function Refusal({ id, words }: { id: string; words: string | null }) {
  if (words === null) return null;
  return (
    <Box id={id} role="alert" sx={{ color: 'error.main', fontSize: '0.75rem', pb: 0.5 }}>
      {words}
    </Box>
  );
}
