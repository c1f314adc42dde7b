import Box from '@mui/material/Box';
import { Section } from '../../../shared/Section';
import { surround } from '../../../shared/theme';
import { pictureUrl } from '../api';
import { useJob } from '../state/openJob';

/** The reference pictures of the brief, small, beside the work. */
export function ReferenceStrip() {
  const { references } = useJob().brief;
  if (references.length === 0) return null;
  return (
    <Section title="What comes near">
      <Box sx={{ display: 'flex', gap: 1, overflowX: 'auto' }}>
        {references.map(({ sha256, name, note }) => (
          <Box key={sha256} component="figure" sx={{ m: 0, width: 130, flex: 'none' }}>
            <Box
              component="img"
              src={pictureUrl(sha256)}
              alt={name}
              sx={{
                width: '100%',
                height: 90,
                objectFit: 'contain',
                bgcolor: surround.reference,
                display: 'block',
              }}
            />
            <Box component="figcaption" sx={{ fontSize: '0.75rem', color: 'text.secondary' }}>
              {note || name}
            </Box>
          </Box>
        ))}
      </Box>
    </Section>
  );
}
