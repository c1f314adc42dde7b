import type { Camera } from '@fendrix/contract';
import { boomLoad, formatLength, TIP_SAFETY } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { Explained } from '../../../shared/Explained';
import { type Quantity, quantityOf } from '../../../shared/form/words';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { within } from '../../../shared/useTyped';
import type { NamedEquipment } from '../../kit';
import { kgQuantity } from '../quantities';

const { format: kg } = kgQuantity;

/** What is at the end of the arm, the arm itself, and what holds it. */
interface Figures {
  loadKg: number;
  armKg: number;
  armM: number;
  behindM: number;
  counterKg: number;
  bagsKg: number;
}

/** Usual for a body with a lens on a light boom: to be weighed and measured. */
const USUAL: Figures = { loadKg: 1.8, armKg: 1.2, armM: 1.2, behindM: 0.5, counterKg: 2, bagsKg: 5 };

const lengthQuantity = quantityOf('lengthM');
const FIELDS: readonly { key: keyof Figures; label: string; quantity: Quantity }[] = [
  { key: 'loadKg', label: 'camera and lens', quantity: kgQuantity },
  { key: 'armKg', label: 'arm itself', quantity: kgQuantity },
  { key: 'armM', label: 'arm out to the camera', quantity: lengthQuantity },
  { key: 'behindM', label: 'arm behind the column', quantity: lengthQuantity },
  { key: 'counterKg', label: 'counterweight', quantity: kgQuantity },
  { key: 'bagsKg', label: 'sandbags at the foot', quantity: kgQuantity },
];

/** Whether the stand that holds a camera overhead tips: load, arm, counterweight; with the cautions of such work. */
export function Overhead({
  supports,
  camera,
  benchHeightM,
}: {
  supports: readonly NamedEquipment<'support'>[];
  camera: Camera;
  benchHeightM: number;
}) {
  const stand = [...supports].sort((a, b) => b.boomM - a.boomM)[0];
  const [figures, setFigures] = useState<Figures>({ ...USUAL, armM: stand?.boomM ?? 1 });
  if (!stand) return null;
  const { loadKg, armKg, armM, behindM, counterKg, bagsKg } = figures;
  const answer = boomLoad(
    { loadKg, armKg, armM, behindM, baseRadiusM: stand.baseRadiusM, standKg: stand.ownKg + bagsKg },
    counterKg,
  );
  const heavy = loadKg + armKg + counterKg > stand.mostLoadKg;
  const overFloorM = camera.positionM[2] + benchHeightM;
  return (
    <Section title={`Overhead on “${stand.name}”`}>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, gap: 3 }}>
        <Box>
          {FIELDS.map(({ key, label, quantity }) => (
            <QuantityField
              key={key}
              label={label}
              shown={quantity.format(figures[key])}
              parse={within(quantity.parse, quantity.format, { from: 0 })}
              example={quantity.example}
              onCommit={(value) => setFigures({ ...figures, [key]: value })}
            />
          ))}
        </Box>
        <Box>
          <Explained
            label="holding over tipping"
            value={Number.isFinite(answer.factor) ? answer.factor.toFixed(1) : 'does not tip'}
          >
            Moments of mass about the line between the two feet nearest the camera,{' '}
            {formatLength(stand.baseRadiusM)} from the column: what lies outside of it tips, what lies inside
            holds. At least {TIP_SAFETY} is asked for. More counterweight, a shorter arm or sandbags raise it.
          </Explained>
          <Explained
            label="counterweight that balances"
            value={Number.isFinite(answer.balanceKg) ? kg(answer.balanceKg) : 'none: no arm behind'}
          >
            {kg(loadKg)} × {formatLength(armM)} and the arm’s own {kg(armKg)} at its middle, over{' '}
            {formatLength(behindM)} behind the column.
          </Explained>
          {answer.ballastKg > 0 && (
            <Explained label="or more sandbags" value={kg(answer.ballastKg)}>
              What is missing for {TIP_SAFETY} times the tipping moment, over{' '}
              {formatLength(stand.baseRadiusM)}.
            </Explained>
          )}
          <Alert severity={answer.safe && !heavy ? 'success' : 'warning'} sx={{ mt: 1 }}>
            {heavy
              ? `Together ${kg(loadKg + armKg + counterKg)}; the stand is made for ${kg(stand.mostLoadKg)}.`
              : answer.safe
                ? 'It stands, on level ground and left alone.'
                : `It may tip: only ${answer.factor.toFixed(1)} times; ${TIP_SAFETY} is asked for.`}
          </Alert>
        </Box>
      </Box>
      <Alert severity="warning" icon={false} sx={{ mt: 1.5 }}>
        Sandbag the stand and tie a safety line to camera and arm. Nobody’s head under the arm; lock every
        joint and pull on it before the camera hangs. The lens is {formatLength(overFloorM)} above the floor:
        use a step ladder, not a chair, and come down to carry. Local rules and qualified riggers come first.
      </Alert>
    </Section>
  );
}
