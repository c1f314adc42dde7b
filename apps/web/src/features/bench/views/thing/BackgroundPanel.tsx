import type { Backdrop } from '@fendrix/contract';
import { parseBearingDeg } from '@fendrix/core';
import { surroundingSchema } from '../../../../shared/form/schema';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { QuantityField } from '../../../../shared/QuantityField';
import { within } from '../../../../shared/useTyped';
import { useKitMaterials } from '../../../kit';
import { changedSince } from '../../state/edit';
import { useBenchDispatch } from '../../state/hooks';
import { changeBackdrop, moveAlong, SURROUNDING_NAMES, setBackdrop } from '../../state/surroundings';
import { edit } from '../../state/thunks';
import { BACKGROUND_KINDS, BackgroundKinds } from './BackgroundKinds';
import { LengthField } from './LengthField';
import { AllFigures, type PanelProps, RemoveButton, Title } from './ThingFields';

const SHOWN = new Set([
  'kind',
  'widthM',
  'heightM',
  'backM',
  'frontM',
  'radiusM',
  'lyingMaterial',
  'centreM',
  'turnDeg',
  'material',
]);

/** What stands behind the products: its kind, size, place and what it is of. */
export function BackgroundPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const materials = useKitMaterials('opaque');
  const { backdrop } = set;
  if (!backdrop) return null;
  const change = (changes: Partial<Backdrop>) => dispatch(edit(changeBackdrop(changes)));
  const words = BACKGROUND_KINDS.find(({ value }) => value === backdrop.kind)?.words ?? '';
  return (
    <>
      <Title name={SURROUNDING_NAMES.backdrop} kind={words} />
      <BackgroundKinds kind={backdrop.kind} onChoose={(kind) => dispatch(edit(setBackdrop(kind)))} />
      <MaterialChoice
        label={backdrop.kind === 'boards' ? 'upright board' : 'material'}
        known={materials}
        material={backdrop.material}
        onChoose={(material) => change({ material })}
      />
      {backdrop.kind === 'boards' && (
        <MaterialChoice
          label="lying board"
          known={materials}
          material={backdrop.lyingMaterial}
          onChoose={(lyingMaterial) => change({ lyingMaterial })}
        />
      )}
      <LengthField label="width" valueM={backdrop.widthM} onCommit={(widthM) => change({ widthM })} />
      {backdrop.kind !== 'panel' ? (
        <>
          <LengthField
            label="top edge"
            valueM={backdrop.heightM}
            onCommit={(heightM) => change({ heightM })}
          />
          <LengthField
            label="upright behind centre"
            valueM={backdrop.backM}
            onCommit={(backM) => change({ backM })}
          />
          <LengthField
            label="front edge in front of centre"
            valueM={-backdrop.frontM}
            onCommit={(before) => change({ frontM: -before })}
          />
          {backdrop.kind === 'sweep' && (
            <LengthField
              label="radius of the bend"
              valueM={backdrop.radiusM}
              onCommit={(radiusM) => change({ radiusM })}
            />
          )}
        </>
      ) : (
        <>
          <LengthField label="height" valueM={backdrop.heightM} onCommit={(heightM) => change({ heightM })} />
          <LengthField
            label="behind centre"
            valueM={backdrop.centreM[1]}
            onCommit={(y) => dispatch(edit(moveAlong('backdrop', 1, y)))}
          />
          <LengthField
            label="middle to the right"
            valueM={backdrop.centreM[0]}
            onCommit={(x) => dispatch(edit(moveAlong('backdrop', 0, x)))}
          />
          <LengthField
            label="lower edge above the table"
            valueM={backdrop.centreM[2] - backdrop.heightM / 2}
            onCommit={(low) => dispatch(edit(moveAlong('backdrop', 2, low + backdrop.heightM / 2)))}
          />
          <QuantityField
            label="turned"
            shown={`${Math.round(10 * backdrop.turnDeg) / 10}°`}
            parse={within(parseBearingDeg, (deg) => `${deg}°`, { from: -180, to: 180 })}
            example="15 right"
            onCommit={(turnDeg) => change({ turnDeg })}
          />
        </>
      )}
      <AllFigures
        schema={surroundingSchema('backdrop')}
        value={backdrop}
        hidden={SHOWN}
        onChange={(changed) =>
          dispatch(
            edit((old) =>
              old.backdrop
                ? { ...old, backdrop: changedSince(backdrop, changed as Backdrop, old.backdrop) }
                : old,
            ),
          )
        }
      />
      <RemoveButton thing={thing} />
    </>
  );
}
