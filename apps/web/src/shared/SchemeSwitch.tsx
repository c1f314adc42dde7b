import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';

const next = { system: 'light', light: 'dark', dark: 'system' } as const;

/** Light, dark, or as the system says. */
export function SchemeSwitch() {
  const { mode = 'system', setMode } = useColorScheme();
  return (
    <Button
      size="small"
      color="inherit"
      onClick={() => setMode(next[mode])}
      aria-label={`Lists and panels: ${mode}. Change to ${next[mode]}`}
    >
      {mode === 'system' ? 'Theme' : mode === 'light' ? 'Light' : 'Dark'}
    </Button>
  );
}
