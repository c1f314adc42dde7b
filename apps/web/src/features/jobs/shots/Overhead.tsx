import type { Camera } from '@fendrix/contract';
import { boomLoad, formatLength, parseLengthM, TIP_SAFETY } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { Explained } from '../../../shared/Explained';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import type { NamedEquipment } from '../../kit';
import { kgQuantity } from '../quantities';

const { format: kg, parse: parseKg } = kgQuantity;

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
  const [loadKg, setLoad] = useState(1.8);
  const [armKg, setArm] = useState(1.2);
  const [armM, setArmLength] = useState(stand?.boomM ?? 1);
  const [behindM, setBehind] = useState(0.5);
  const [counterKg, setCounter] = useState(2);
  const [bagsKg, setBags] = useState(5);
  if (!stand) return null;
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
          <QuantityField
            label="camera and lens"
            shown={kg(loadKg)}
            parse={parseKg}
            example="1.8 kg"
            onCommit={setLoad}
          />
          <QuantityField
            label="arm itself"
            shown={kg(armKg)}
            parse={parseKg}
            example="1.2 kg"
            onCommit={setArm}
          />
          <QuantityField
            label="arm out to the camera"
            shown={formatLength(armM)}
            parse={(text) => parseLengthM(text)}
            example="1.2 m"
            onCommit={setArmLength}
          />
          <QuantityField
            label="arm behind the column"
            shown={formatLength(behindM)}
            parse={(text) => parseLengthM(text)}
            example="50 cm"
            onCommit={setBehind}
          />
          <QuantityField
            label="counterweight"
            shown={kg(counterKg)}
            parse={parseKg}
            example="2 kg"
            onCommit={setCounter}
          />
          <QuantityField
            label="sandbags at the foot"
            shown={kg(bagsKg)}
            parse={parseKg}
            example="5 kg"
            onCommit={setBags}
          />
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
        joint and pull on it before the camera hangs. The lens is {formatLength(overFloorM)} over the floor:
        use a step ladder, not a chair, and come down to carry. Local rules and qualified riggers come first.
      </Alert>
    </Section>
  );
}
