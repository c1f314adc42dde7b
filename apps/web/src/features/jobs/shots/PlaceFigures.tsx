import type { Framing } from '@fendrix/contract';
import { type FrameRect, formatLength, lensFigures, type StagedShot, tapeMarks, viewOf } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { Section } from '../../../shared/Section';
import { partQuantity } from '../quantities';

/** Where the camera stands, to be measured out with a tape. */
export function PlaceFigures({
  staged: { placed, set },
  framing,
  benchHeightM,
  crop,
}: {
  staged: StagedShot;
  framing: Framing;
  benchHeightM: number;
  /** The format chosen; without one the whole frame is marked. */
  crop: { name: string; crop: FrameRect | null } | undefined;
}) {
  const { camera, distanceM, fill } = placed;
  const { magnification } = lensFigures(camera);
  const marks = set.bench ? tapeMarks(viewOf(camera), crop?.crop ?? WHOLE_FRAME, set.bench) : [];
  const corners = ['far left', 'far right', 'near right', 'near left'];
  const rows: [string, string][] = [
    ['lens to the middle of the product', formatLength(distanceM)],
    ['lens in front of the centre', formatLength(-camera.positionM[1])],
    ['lens above the table', formatLength(camera.positionM[2])],
    ['lens above the floor', formatLength(camera.positionM[2] + benchHeightM)],
    ['fills', `${partQuantity.format(fill.width)} across, ${partQuantity.format(fill.height)} up`],
    ['size on the sensor', `1 : ${Math.round(10 / magnification) / 10}`],
    ['focus at', `${formatLength(camera.focusM)}, ${Math.round(framing.lens.focalLengthM * 1000)} mm`],
  ];
  return (
    <Section title="Camera position">
      <Box
        component="dl"
        sx={{ m: 0, display: 'grid', gridTemplateColumns: '1fr auto', fontSize: '0.8125rem' }}
      >
        {rows.map(([label, value]) => (
          <Box key={label} sx={{ display: 'contents' }}>
            <Box
              component="dt"
              sx={{ color: 'text.secondary', borderBottom: 1, borderColor: 'divider', py: 0.4 }}
            >
              {label}
            </Box>
            <Box
              component="dd"
              className="number"
              sx={{ m: 0, borderBottom: 1, borderColor: 'divider', py: 0.4, textAlign: 'right' }}
            >
              {value}
            </Box>
          </Box>
        ))}
      </Box>
      {marks.some((mark) => mark !== null) && (
        <Box sx={{ mt: 1, fontSize: '0.8125rem' }}>
          <Box sx={{ color: 'text.secondary' }}>
            Tape marks of the corners of {crop?.crop ? `“${crop.name}”` : 'the frame'} on the table, from its
            left and front edge:
          </Box>
          {marks.map((mark, index) =>
            mark ? (
              <Box key={corners[index]} component="span" className="number" sx={{ mr: 2 }}>
                {corners[index]} {formatLength(mark.fromLeftM)}, {formatLength(mark.fromFrontM)}
              </Box>
            ) : null,
          )}
        </Box>
      )}
    </Section>
  );
}

const WHOLE_FRAME: FrameRect = { left: 0, top: 0, right: 1, bottom: 1 };

/** What each format gets out of the frame. */
export function FormatFits({
  fits,
  heldByFormats,
  wanted,
  staged,
}: {
  fits: readonly { id: string; name: string; crop: unknown; pixelsWide: number; widthPx: number }[];
  heldByFormats: boolean;
  wanted: number;
  staged: StagedShot;
}) {
  const { width, height } = staged.placed.fill;
  return (
    <Section title="Formats in the frame">
      {heldByFormats && (
        <Alert severity="info" sx={{ mb: 1 }}>
          To leave every format its margin and its place for words the product fills{' '}
          {partQuantity.format(Math.max(width, height))} instead of {partQuantity.format(wanted)}. A format of
          its own picture would let it be larger.
        </Alert>
      )}
      {fits.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          The brief has no formats yet; with them their crops are kept within the frame.
        </Box>
      )}
      {fits.map(({ id, name, crop, pixelsWide, widthPx }) => (
        <Box
          key={id}
          sx={{ display: 'flex', fontSize: '0.8125rem', borderBottom: 1, borderColor: 'divider', py: 0.4 }}
        >
          <Box sx={{ flex: 1 }}>{name}</Box>
          <Box
            className="number"
            sx={{ color: crop && pixelsWide >= widthPx ? 'text.primary' : 'warning.main' }}
          >
            {crop
              ? `${pixelsWide} px of ${widthPx}${pixelsWide < widthPx ? ', would be enlarged' : ''}`
              : 'does not fit'}
          </Box>
        </Box>
      ))}
    </Section>
  );
}
