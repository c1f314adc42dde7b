import type { Bench } from '@fendrix/contract';
import { surroundingSchema } from '../../../../shared/form/schema';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { useKitMaterials } from '../../../kit';
import { changedSince } from '../../state/edit';
import { useBenchDispatch } from '../../state/hooks';
import { changeBench, moveAlong, SURROUNDING_NAMES } from '../../state/surroundings';
import { edit } from '../../state/thunks';
import { LengthField } from './LengthField';
import { AllFigures, type PanelProps, RemoveButton, Title } from './ThingFields';

const SHOWN = new Set(['widthM', 'depthM', 'centreM', 'material']);

/** The table: its size, where its middle is, how high its top is, and what it is of. */
export function TablePanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const materials = useKitMaterials('tabletop');
  const { bench, mark } = set;
  if (!bench) return null;
  const [x, y] = bench.centreM;
  const change = (changes: Partial<Bench>) => dispatch(edit(changeBench(changes)));
  return (
    <>
      <Title name={SURROUNDING_NAMES.bench} kind="tabletop" />
      <LengthField label="across" valueM={bench.widthM} onCommit={(widthM) => change({ widthM })} />
      <LengthField label="front to back" valueM={bench.depthM} onCommit={(depthM) => change({ depthM })} />
      <LengthField
        label="top above the floor"
        valueM={mark.heightAboveFloorM}
        onCommit={(heightAboveFloorM) => dispatch(edit((old) => ({ ...old, mark: { heightAboveFloorM } })))}
      />
      <LengthField
        label="middle to the right"
        valueM={x}
        onCommit={(to) => dispatch(edit(moveAlong('bench', 0, to)))}
      />
      <LengthField
        label="middle behind centre"
        valueM={y}
        onCommit={(to) => dispatch(edit(moveAlong('bench', 1, to)))}
      />
      <MaterialChoice
        label="material"
        known={materials}
        material={bench.material}
        onChoose={(material) => change({ material })}
      />
      <AllFigures
        schema={surroundingSchema('bench')}
        value={bench}
        hidden={SHOWN}
        onChange={(changed) =>
          dispatch(
            edit((old) =>
              old.bench ? { ...old, bench: changedSince(bench, changed as Bench, old.bench) } : old,
            ),
          )
        }
      />
      <RemoveButton thing={thing} />
    </>
  );
}
