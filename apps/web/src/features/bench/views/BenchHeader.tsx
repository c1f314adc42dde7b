import { type SetDocument, setDocument } from '@fendrix/contract';
import { describeChange } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useId } from 'react';
import { Link } from 'react-router';
import { FileBar } from '../../../shared/document/FileBar';
import { Refusal } from '../../../shared/Refusal';
import { tellRefusal } from '../../../shared/refusals';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { SchemeSwitch } from '../../../shared/SchemeSwitch';
import { surround } from '../../../shared/theme';
import { useWords } from '../../../shared/useWords';
import { WordsInput } from '../../../shared/WordsInput';
import { benchSet } from '../state/benchSlice';
import { renameSet } from '../state/edits';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { VerdictCount } from '../verdicts/VerdictCount';
import { ExportMenu } from './ExportMenu';
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
        columnGap: 1.5,
        rowGap: 0,
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
      <VerdictCount />
      <KitGaps />
      <ExportMenu />
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
  const refusalId = useId();
  const words = useWords(name, (typed, gesture) => {
    if (typed.trim()) dispatch(edit(renameSet(typed), gesture));
    else tellRefusal('A set has a name: type one.');
  });
  return (
    <Box sx={{ flex: '0 1 340px', minWidth: 60, position: 'relative' }}>
      <WordsInput
        fullWidth
        words={words}
        label="Name of the set"
        refusalId={refusalId}
        maxLength={80}
        sx={{ color: surround.text, fontSize: '0.875rem' }}
      />
      {/* Below the bar, which has no room for it. */}
      <Box sx={{ position: 'absolute', top: '100%', left: 0, zIndex: 1, px: 1, bgcolor: 'background.paper' }}>
        <Refusal id={refusalId} words={words.wrong} />
      </Box>
    </Box>
  );
}
