import type { CameraBody, Framing } from '@fendrix/contract';
import { F_NUMBERS, isUpright, printedSetting } from '@fendrix/core';
import Box from '@mui/material/Box';
import { SelectField } from '../../../shared/form/formParts';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { within } from '../../../shared/useTyped';
import type { useEquipment } from '../../kit';
import { partQuantity, tiltQuantity } from '../quantities';
import { bodyOf, lensOf } from './useStaged';

interface CameraChoiceProps {
  framing: Framing;
  /** As it is held for the formats. */
  body: CameraBody;
  equipment: NonNullable<ReturnType<typeof useEquipment>>;
  tiltDeg: number;
  onChange(changes: Partial<Framing>): void;
  onTilt(tiltDeg: number): void;
}

/** What the frame should hold and what it is taken with. */
export function CameraChoice({ framing, body, equipment, tiltDeg, onChange, onTilt }: CameraChoiceProps) {
  const { bodies, lenses } = equipment;
  const { lens } = framing;
  // One that is not in the kit any more stays to be seen.
  const withOwn = (names: readonly string[], own: string) => (names.includes(own) ? names : [own, ...names]);
  const zoom = lenses.find(({ name }) => name === lens.name);
  return (
    <Section title="Camera">
      <SelectField
        label="body"
        options={withOwn(
          bodies.map(({ name }) => name),
          body.name,
        )}
        value={body.name}
        onChange={(name) => {
          const chosen = bodies.find((candidate) => candidate.name === name);
          if (chosen) onChange({ body: bodyOf(chosen) });
        }}
      />
      <SelectField
        label="orientation"
        hint="As the formats want it: upright where more of them are higher than wide"
        options={['as the formats want', 'level', 'upright']}
        value={framing.held ?? 'as the formats want'}
        onChange={(held) => onChange({ held: held === 'level' || held === 'upright' ? held : undefined })}
      />
      {framing.held === undefined && (
        <Box sx={{ fontSize: '0.75rem', color: 'text.secondary', py: 0.25 }}>
          {isUpright(body) ? 'Upright now.' : 'Level now.'}
        </Box>
      )}
      <SelectField
        label="lens"
        options={withOwn(
          lenses.map(({ name }) => name),
          lens.name,
        )}
        value={lens.name}
        onChange={(name) => {
          const chosen = lenses.find((candidate) => candidate.name === name);
          if (chosen) onChange({ lens: lensOf(chosen, lens.focalLengthM) });
        }}
      />
      <QuantityField
        label="focal length"
        shown={`${Math.round(lens.focalLengthM * 1e4) / 10} mm`}
        parse={within(parseMm, (m) => `${Math.round(m * 1e4) / 10} mm`, {
          from: zoom?.shortestM ?? 0.002,
          to: zoom?.longestM ?? 2,
        })}
        example="85 mm"
        onCommit={(focalLengthM) =>
          onChange({ lens: zoom ? lensOf(zoom, focalLengthM) : { ...lens, focalLengthM } })
        }
      />
      <QuantityField
        label="f-stop"
        shown={`f/${printedSetting(F_NUMBERS, framing.fNumber)}`}
        parse={within(parseFStop, (value) => `f/${printedSetting(F_NUMBERS, value)}`, {
          from: (lens.widestFNumber ?? 0.5) * 0.97,
          to: (lens.smallestFNumber ?? 128) * 1.03,
        })}
        example="f/11"
        onCommit={(fNumber) => onChange({ fNumber })}
      />
      <QuantityField
        label="tilt down"
        hint="0° level, 90° straight down"
        shown={tiltQuantity.format(tiltDeg)}
        parse={within(tiltQuantity.parse, tiltQuantity.format, { from: 0, to: 90 })}
        example={tiltQuantity.example}
        onCommit={onTilt}
      />
      <QuantityField
        label="product fills"
        hint="Part of the frame in the tighter way; less where the formats need room"
        shown={partQuantity.format(framing.fillPart)}
        parse={within(partQuantity.parse, partQuantity.format, { from: 0.05, to: 1 })}
        example={partQuantity.example}
        onCommit={(fillPart) => onChange({ fillPart })}
      />
      <QuantityField
        label="near larger than far, most"
        hint="How much larger the nearest part may look than the farthest"
        shown={partQuantity.format(framing.mostNearFarRatio - 1)}
        parse={within(partQuantity.parse, partQuantity.format, { from: 0.01, to: 2 })}
        example="15 %"
        onCommit={(part) => onChange({ mostNearFarRatio: 1 + part })}
      />
    </Section>
  );
}

function parseFStop(text: string): number | null {
  const match = /^\s*(?:f\/?)?\s*(\d+(?:[.,]\d+)?)\s*$/i.exec(text);
  return match ? Number((match[1] as string).replace(',', '.')) : null;
}

function parseMm(text: string): number | null {
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*(mm)?\s*$/.exec(text);
  return match ? Number((match[1] as string).replace(',', '.')) / 1000 : null;
}
