import type { Light, Person, Product, SetDocument, Sheet, Vector } from '@fendrix/contract';
import {
  cameraShape,
  faceCorners,
  lightShape,
  personShape,
  productOutline,
  productShape,
  sheetShape,
  standShape,
} from '@fendrix/core';
import { memo, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { TagMark } from '../../../shared/Tag';
import { setMarks } from '../../../shared/theme';
import { useUnchanged } from '../../../shared/useUnchanged';
import { sameThing, type ThingRef } from '../state/edits';
import { useBench } from '../state/hooks';
import { Movable } from './Movable';
import { Pieces } from './Pieces';
import type { Plan } from './plan';

interface MarkProps {
  plan: Plan;
}

/** Depth that a softbox is drawn with, m, and how far its back tapers. */
const BODY_M = 0.1;
const TAPER = 0.6;

export const LightMark = memo(function LightMark({ plan, light }: MarkProps & { light: Light }) {
  const shape = useMemo(() => lightShape(light), [light]);
  if (light.kind === 'surround') return null;
  const thing: ThingRef = { kind: 'light', key: light.tag };
  const tone = light.on ? setMarks.light : setMarks.edge;
  const solid = plan.kind === 'above';
  return (
    <Movable plan={plan} thing={thing} name={`${light.name} ${light.tag}`} at={light.positionM}>
      {light.kind === 'softbox' ? (
        <>
          <path
            d={plan.outline([
              ...faceCorners(light),
              ...faceCorners(light, BODY_M).map((corner) => taper(corner, light.positionM)),
            ])}
            fill={setMarks.dark}
            fillOpacity={solid ? 0.85 : 0.3}
            stroke={setMarks.edge}
          />
          <path
            d={plan.outline(faceCorners(light))}
            fill={tone}
            fillOpacity={solid ? 0.9 : 0.25}
            stroke={tone}
            strokeWidth={4}
            strokeLinejoin="round"
          />
        </>
      ) : (
        <Pieces plan={plan} shape={shape} tone={tone} opacity={solid ? 0.8 : 0.3} />
      )}
      <TagOf plan={plan} thing={thing} at={light.positionM} />
    </Movable>
  );
});

const taper = (corner: Vector, centre: Vector): Vector =>
  corner.map((value, a) => TAPER * value + (1 - TAPER) * (centre[a] as number)) as Vector;

export const SheetMark = memo(function SheetMark({ plan, sheet }: MarkProps & { sheet: Sheet }) {
  const thing: ThingRef = { kind: 'sheet', key: sheet.tag };
  const tone = isDark(sheet) ? setMarks.dark : setMarks.light;
  const shape = useMemo(() => sheetShape(sheet), [sheet]);
  return (
    <Movable plan={plan} thing={thing} name={`${sheet.name} ${sheet.tag}`} at={sheet.positionM}>
      <Pieces plan={plan} shape={shape} tone={tone} opacity={sheetOpacity(plan, sheet)} />
      <TagOf plan={plan} thing={thing} at={sheet.positionM} />
    </Movable>
  );
});

/** Tents and cones stand round other things: those must show through. */
function sheetOpacity({ kind }: Plan, sheet: Sheet): number {
  if (sheet.kind === 'tent' || sheet.kind === 'cone' || sheet.kind === 'roof') return 0.08;
  return kind === 'above' ? 0.75 : 0.3;
}

function isDark({ front }: Sheet): boolean {
  const reflectance = 'reflectance' in front ? front.reflectance : 0.6;
  const [, green] = typeof reflectance === 'number' ? [0, reflectance] : reflectance;
  return green < 0.15 && front.kind !== 'translucent';
}

const ORIGIN: Vector = [0, 0, 0];

export const ProductMark = memo(function ProductMark({ plan, product }: MarkProps & { product: Product }) {
  const thing: ThingRef = { kind: 'product', key: product.id };
  const plain = (product.kind === 'turned' || product.kind === 'box') && !product.lean;
  // One of many crumbs takes long to outline: where it stands only shifts its drawing.
  const still = useUnchanged({ ...product, positionM: ORIGIN }, shallowEqual);
  const shape = useMemo(() => (plain ? [] : productShape(still)), [plain, still]);
  const [x, y] = plan.at(product.positionM);
  const [x0, y0] = plan.at(ORIGIN);
  return (
    <Movable plan={plan} thing={thing} name={product.name} at={product.positionM}>
      {plain ? (
        <path
          d={plan.path(productOutline(plan.kind, product))}
          fill={setMarks.product}
          stroke={setMarks.light}
          strokeWidth={1.2}
        />
      ) : (
        <Pieces
          plan={plan}
          shape={shape}
          tone={setMarks.product}
          opacity={0.9}
          shift={`translate(${x - x0} ${y - y0})`}
        />
      )}
    </Movable>
  );
});

export const CameraMark = memo(function CameraMark({ plan, set }: MarkProps & { set: SetDocument }) {
  const { camera, mark, bench } = set;
  const [x, y] = plan.at(camera.positionM);
  const shape = useMemo(() => cameraShape({ camera, mark, bench }), [camera, mark, bench]);
  return (
    <Movable plan={plan} thing={{ kind: 'camera', key: '' }} name="Camera" at={camera.positionM}>
      <Pieces plan={plan} shape={shape} tone={setMarks.dark} opacity={0.55} />
      <rect x={x - 11} y={y - 8} width={22} height={16} fill={setMarks.camera} stroke={setMarks.dark} />
      <circle cx={x} cy={y} r={4.5} fill={setMarks.lens} stroke={setMarks.lensRim} />
    </Movable>
  );
});

export const PersonMark = memo(function PersonMark({
  plan,
  person,
  mark,
}: MarkProps & { person: Person; mark: SetDocument['mark'] }) {
  const at: Vector = [...person.positionM, 0];
  const shape = useMemo(() => personShape(person, { mark, bench: undefined }), [person, mark]);
  const [x, y] = plan.at(at);
  return (
    <Movable plan={plan} thing={{ kind: 'person', key: person.name }} name={person.name} at={at}>
      <Pieces plan={plan} shape={shape} tone={setMarks.person} opacity={0.75} />
      <text x={x} y={y + 4} textAnchor="middle" fontSize={11} fill={setMarks.light} pointerEvents="none">
        {person.name}
      </text>
    </Movable>
  );
});

/** The stand of a light or sheet that has one. */
export function StandMark({ plan, held, set }: { plan: Plan; held: Light | Sheet; set: SetDocument }) {
  const { mark, bench } = set;
  const shape = useMemo(() => standShape(held, { mark, bench }), [held, mark, bench]);
  return (
    <g pointerEvents="none">
      <Pieces plan={plan} shape={shape} tone={setMarks.dark} opacity={0.55} />
    </g>
  );
}

function TagOf({ plan, thing, at }: { plan: Plan; thing: ThingRef; at: Vector }) {
  const selected = useBench(
    (bench) =>
      sameThing(bench.selected, thing) ||
      (bench.verdict?.causes.some((cause) => sameThing(cause, thing)) ?? false),
  );
  const [x, y] = plan.at(at);
  return (
    <TagMark x={x} y={y} selected={selected}>
      {thing.key}
    </TagMark>
  );
}
