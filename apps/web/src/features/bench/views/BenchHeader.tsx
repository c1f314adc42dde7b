import { type SetDocument, setDocument } from '@fendrix/contract';
import { describeChange } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import InputBase from '@mui/material/InputBase';
import { memo } from 'react';
import { Link } from 'react-router';
import { FileBar } from '../../../shared/document/FileBar';
import { tellRefusal } from '../../../shared/refusals';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { SchemeSwitch } from '../../../shared/SchemeSwitch';
import { surround } from '../../../shared/theme';
import { useWords } from '../../../shared/useWords';
import { benchSet } from '../state/benchSlice';
import { renameSet } from '../state/edits';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { KeysHelp } from './KeysHelp';
import { KitGaps } from './KitGaps';

/** Name of the set, undo and redo, and whether it is kept. */
export const BenchHeader = memo(function BenchHeader() {
  return (
    <Box
      component="header"
      sx={{
        minHeight: 44,
        px: 2.5,
        display: 'flex',
        flexWrap: { xs: 'wrap', md: 'nowrap' },
        alignItems: 'center',
        gap: 1.5,
        bgcolor: surround.deep,
      }}
    >
      <Button
        component={Link}
        to="/jobs"
        size="small"
        sx={{ color: surround.text, fontWeight: 650, px: 0, minWidth: 0 }}
      >
        Fendrix
      </Button>
      <Button component={Link} to="/sets" size="small" sx={{ color: surround.quiet, px: 0, minWidth: 0 }}>
        Sets
      </Button>
      <Box sx={{ color: surround.quiet }}>/</Box>
      <SetName />
      <Box sx={{ flex: 1 }} />
      <KitGaps />
      <KeysHelp />
      <Box sx={{ color: surround.text }}>
        <SchemeSwitch />
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', color: surround.quiet }}>
        <FileBar open={benchSet} noun="set" describe={setDifferences} picture={smallPictureOf} />
      </Box>
    </Box>
  );
});

/** What tells two states of a set apart, in words. */
const setDifferences = (before: SetDocument, after: SetDocument): string[] => [
  ...(before.name === after.name ? [] : [`named “${after.name}”`]),
  ...describeChange(before, after),
  ...(before.note === after.note ? [] : ['another note']),
  ...(before.takes.length === after.takes.length
    ? []
    : [`${after.takes.length} takes instead of ${before.takes.length}`]),
];

/** What was kept may be no set any more: of that there is no picture. */
const smallPictureOf = (set: SetDocument) =>
  setDocument.safeParse(set).success && (
    <SmallPicture set={set} width={240} samples={2} label={`How “${set.name}” looks`} />
  );

function SetName() {
  const name = useSetPart((set) => set.name);
  const dispatch = useBenchDispatch();
  const { input, wrong } = useWords(name, (words, gesture) => {
    if (words.trim()) dispatch(edit(renameSet(words), gesture));
    else tellRefusal('A set has a name: type one.');
  });
  return (
    <InputBase
      value={input.value}
      onFocus={input.onFocus}
      onChange={input.onChange}
      onBlur={input.onBlur}
      onKeyDown={input.onKeyDown}
      title={wrong ?? undefined}
      slotProps={{
        input: {
          'aria-label': 'Name of the set',
          'aria-invalid': input['aria-invalid'],
          'data-settled': input['data-settled'],
          maxLength: 80,
        } as object,
      }}
      sx={{ color: surround.text, fontSize: '0.875rem', flex: '0 1 340px', minWidth: 60 }}
    />
  );
}
