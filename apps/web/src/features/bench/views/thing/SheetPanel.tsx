import type { Sheet } from '@fendrix/contract';
import { Choice } from '../../../../shared/Choice';
import { thingSchema } from '../../../../shared/form/schema';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { useKitMaterials } from '../../../kit';
import { changedSince } from '../../state/edit';
import { changeSheet } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { SHEET_PLACES, type SheetPlace, sheetAt } from '../../state/sheetPlaces';
import { edit } from '../../state/thunks';
import { AimFields } from './AimFields';
import { CopyAcross } from './CopyAcross';
import { InFrameNote } from './InFrameNote';
import { KeepInKit } from './KeepInKit';
import { LengthField } from './LengthField';
import { AllFigures, ApparentSize, type PanelProps, RemoveButton, StandFields, Title } from './ThingFields';

const HERE = 'here';
const SHOWN = new Set(['tag', 'positionM', 'aimM', 'keepsDirection', 'widthM', 'heightM']);

const KIND_WORDS: Record<Sheet['kind'], string> = {
  card: 'bounces light',
  flag: 'cuts light',
  frame: 'spreads light',
  roof: 'spreads light from above',
  disc: 'bounces light',
  fold: 'bounces light, stands by itself',
  curve: 'bounces light round a body',
  cone: 'wraps light round a small thing',
  tent: 'wraps light all round',
  leaves: 'throws a pattern',
  'cut-out': 'cut to an outline',
};

export function SheetPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const materials = useKitMaterials('sheet');
  const sheet = set.sheets.find(({ tag }) => tag === thing.key);
  if (!sheet) return null;
  const places = (Object.keys(SHEET_PLACES) as SheetPlace[]).filter((place) => sheetAt(set, sheet, place));
  const change = (changes: object) =>
    dispatch(edit(changeSheet(sheet.tag, (old) => ({ ...old, ...changes }) as Sheet)));
  return (
    <>
      <Title tag={sheet.tag} name={sheet.name} kind={KIND_WORDS[sheet.kind]} />
      <InFrameNote thing={thing} />
      <StandFields set={set} thing={thing} />
      <AimFields set={set} thing={thing} />
      <Choice<SheetPlace | typeof HERE>
        shown
        label="put it"
        value={HERE}
        options={[
          { value: HERE, words: 'where it stands' },
          ...places.map((place) => ({ value: place, words: SHEET_PLACES[place] })),
        ]}
        onChoose={(place) => {
          if (place === HERE) return;
          dispatch(edit((old) => changeSheet(sheet.tag, (own) => sheetAt(old, own, place) ?? own)(old)));
        }}
      />
      {'widthM' in sheet && (
        <>
          <SizeFields size={sheet} onCommit={change} />
          <ApparentSize positionM={sheet.positionM} sizeM={Math.max(sheet.widthM, sheet.heightM)} />
        </>
      )}
      <MaterialChoice
        label="front"
        known={materials}
        material={sheet.front}
        onChoose={(front) =>
          dispatch(edit(changeSheet(sheet.tag, (now) => mirrored(now, { ...now, front }))))
        }
      />
      <MaterialChoice
        label="back"
        known={materials}
        material={sheet.back}
        onChoose={(back) => dispatch(edit(changeSheet(sheet.tag, (now) => mirrored(now, { ...now, back }))))}
      />
      <AllFigures
        schema={thingSchema('sheet')}
        value={sheet}
        hidden={SHOWN}
        onChange={(changed) =>
          dispatch(
            edit(changeSheet(sheet.tag, (now) => mirrored(now, changedSince(sheet, changed as Sheet, now)))),
          )
        }
      />
      <CopyAcross set={set} thing={thing} />
      <KeepInKit entry={{ what: 'sheet', thing: sheet }} />
      <RemoveButton thing={thing} />
    </>
  );
}

const passes = ({ kind }: Sheet['front']) => kind === 'translucent' || kind === 'net';

/** What lets light through has one material on both sides: the side that was changed goes on the other too. */
function mirrored(before: Sheet, after: Sheet): Sheet {
  if (!passes(after.front) && !passes(after.back)) return after;
  const changed = after.back === before.back ? after.front : after.back;
  if (passes(changed)) return { ...after, front: changed, back: changed };
  return { ...after, ...(after.back === before.back ? { back: changed } : { front: changed }) };
}

function SizeFields({
  size,
  onCommit,
}: {
  size: { widthM: number; heightM: number };
  onCommit(changes: { widthM: number } | { heightM: number }): void;
}) {
  return (
    <>
      <LengthField label="width" valueM={size.widthM} onCommit={(widthM) => onCommit({ widthM })} />
      <LengthField label="height" valueM={size.heightM} onCommit={(heightM) => onCommit({ heightM })} />
    </>
  );
}
