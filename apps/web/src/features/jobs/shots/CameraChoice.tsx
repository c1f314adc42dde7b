import type { Framing } from '@fendrix/contract';
import { F_NUMBERS, printedSetting } from '@fendrix/core';
import { SelectField } from '../../../shared/form/formParts';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import type { useEquipment } from '../../kit';
import { partQuantity, tiltQuantity } from '../quantities';
import { bodyOf, lensOf } from './useStaged';

interface CameraChoiceProps {
  framing: Framing;
  equipment: NonNullable<ReturnType<typeof useEquipment>>;
  tiltDeg: number;
  onChange(changes: Partial<Framing>): void;
  onTilt(tiltDeg: number): void;
}

/** What the frame should hold and what it is taken with. */
export function CameraChoice({ framing, equipment, tiltDeg, onChange, onTilt }: CameraChoiceProps) {
  const { bodies, lenses } = equipment;
  const { body, lens } = framing;
  // One that is not in the kit any more stays to be seen.
  const withOwn = (names: readonly string[], own: string) => (names.includes(own) ? names : [own, ...names]);
  const zoom = lenses.find(({ name }) => name === lens.name);
  return (
    <Section title="What it is taken with">
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
        parse={parseMm}
        example="85 mm"
        onCommit={(focalLengthM) =>
          onChange({ lens: zoom ? lensOf(zoom, focalLengthM) : { ...lens, focalLengthM } })
        }
      />
      <QuantityField
        label="f-stop"
        shown={`f/${printedSetting(F_NUMBERS, framing.fNumber)}`}
        parse={(text) => {
          const match = /^\s*(?:f\/?)?\s*(\d+(?:[.,]\d+)?)\s*$/i.exec(text);
          return match ? Number((match[1] as string).replace(',', '.')) : null;
        }}
        example="f/11"
        onCommit={(fNumber) => onChange({ fNumber })}
      />
      <QuantityField
        label="looks down by"
        hint="0° level, 90° straight down"
        shown={tiltQuantity.format(tiltDeg)}
        parse={tiltQuantity.parse}
        example={tiltQuantity.example}
        onCommit={onTilt}
      />
      <QuantityField
        label="product fills"
        hint="Part of the frame in the tighter way; less where the formats need room"
        shown={partQuantity.format(framing.fillPart)}
        parse={partQuantity.parse}
        example={partQuantity.example}
        onCommit={(fillPart) => onChange({ fillPart })}
      />
      <QuantityField
        label="near larger than far, most"
        hint="How much larger the nearest part may look than the farthest"
        shown={partQuantity.format(framing.mostNearFarRatio - 1)}
        parse={partQuantity.parse}
        example="15 %"
        onCommit={(part) => onChange({ mostNearFarRatio: 1 + part })}
      />
    </Section>
  );
}

function parseMm(text: string): number | null {
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*(mm)?\s*$/.exec(text);
  return match ? Number((match[1] as string).replace(',', '.')) / 1000 : null;
}
