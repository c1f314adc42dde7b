import type { SetDocument, Vector } from '@fendrix/contract';
import { formatBearing, formatLength, toStand } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, memo, type ReactNode, useEffect, useRef, useState } from 'react';
import { surround } from '../../../app/theme';
import { TagMark } from '../../../shared/Tag';
import { benchActions } from '../state/benchSlice';
import { moveThing, positionOf, sameThing, type ThingRef } from '../state/edits';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';
import {
  coneOfView,
  extent,
  type Flat,
  faceCorners,
  flatten,
  hull,
  type PlanKind,
  productOutline,
  shift,
} from './planGeometry';

const MARGIN = 34;

interface Fit {
  /** Pixels per metre and place of the mark. */
  scale: number;
  originX: number;
  originY: number;
}

/** The set from above or from the side: drag things, or focus one and use the arrow keys. */
export const PlanView = memo(function PlanView({ kind }: { kind: PlanKind }) {
  const set = useSet();
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 400, height: kind === 'above' ? 380 : 240 });
  const [dragging, setDragging] = useState(false);
  const fit = useSteadyFit(kind, set, size, dragging);

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const to = (point: Flat): Flat => [fit.originX + point[0] * fit.scale, fit.originY + point[1] * fit.scale];
  const at = (point: Vector): Flat => to(flatten(kind, point));
  const path = (points: readonly Flat[], close = true) =>
    points
      .map(
        (point, i) =>
          `${i === 0 ? 'M' : 'L'}${to(point)
            .map((v) => v.toFixed(1))
            .join(' ')}`,
      )
      .join(' ') + (close ? ' Z' : '');
  const shared: Shared = { kind, set, fit, at, path, setDragging };

  return (
    <Box
      ref={frame}
      sx={{
        position: 'absolute',
        inset: 0,
        '& [aria-pressed="true"] > :is(path, circle, rect)': { stroke: surround.accent },
      }}
    >
      <svg
        width={size.width}
        height={size.height}
        role="group"
        aria-label={kind === 'above' ? 'The set from above' : 'The set from the side'}
        style={{ display: 'block', touchAction: 'none' }}
      >
        <Surroundings {...shared} size={size} />
        <PickRay {...shared} />
        {set.lights.map((light) => {
          if (light.kind === 'surround') return null;
          const thing: ThingRef = { kind: 'light', key: light.tag };
          const [x, y] = at(light.positionM);
          return (
            <Movable key={light.tag} thing={thing} name={`${light.name} ${light.tag}`} {...shared}>
              {light.kind === 'softbox' ? (
                <>
                  <path
                    d={path(
                      hull(
                        [
                          ...faceCorners(light),
                          ...faceCorners(light, 0.1).map((c) => shrink(c, light.positionM)),
                        ].map((c) => flatten(kind, c)),
                      ),
                    )}
                    fill="#1d1d1d"
                    fillOpacity={kind === 'above' ? 0.85 : 0.3}
                    stroke="#777"
                  />
                  <path
                    d={path(hull(faceCorners(light).map((corner) => flatten(kind, corner))))}
                    fill={light.on ? '#fff' : '#777'}
                    fillOpacity={kind === 'above' ? 0.9 : 0.25}
                    stroke={light.on ? '#fff' : '#777'}
                    strokeWidth={4}
                    strokeLinejoin="round"
                  />
                </>
              ) : (
                <circle
                  cx={x}
                  cy={y}
                  r={Math.max(5, light.radiusM * fit.scale)}
                  fill={light.on ? '#fff' : '#777'}
                  stroke="#222"
                />
              )}
              <TaggedPlace tag={light.tag} place={[x, y]} thing={thing} />
            </Movable>
          );
        })}
        {set.sheets.map((sheet) => {
          const black = sheet.kind === 'flag';
          return (
            <Movable
              key={sheet.tag}
              thing={{ kind: 'sheet', key: sheet.tag }}
              name={`${sheet.name} ${sheet.tag}`}
              {...shared}
            >
              <path
                d={path(hull(faceCorners(sheet).map((corner) => flatten(kind, corner))))}
                fill={black ? '#111' : '#fff'}
                fillOpacity={kind === 'above' ? 0.75 : 0.3}
                stroke={black ? '#0a0a0a' : '#fff'}
                strokeWidth={3}
                strokeLinejoin="round"
              />
              <TaggedPlace
                tag={sheet.tag}
                place={at(sheet.positionM)}
                thing={{ kind: 'sheet', key: sheet.tag }}
              />
            </Movable>
          );
        })}
        {set.products.map((product) => (
          <Movable
            key={product.id}
            thing={{ kind: 'product', key: product.id }}
            name={product.name}
            {...shared}
          >
            <path d={path(productOutline(kind, product))} fill="#8c2f43" stroke="#fff" strokeWidth={1.2} />
          </Movable>
        ))}
        <Movable thing={{ kind: 'camera', key: '' }} name="Camera" {...shared}>
          <CameraMark place={at(set.camera.positionM)} />
        </Movable>
      </svg>
    </Box>
  );
});

interface Shared {
  kind: PlanKind;
  set: SetDocument;
  fit: Fit;
  at(point: Vector): Flat;
  path(points: readonly Flat[], close?: boolean): string;
  setDragging(dragging: boolean): void;
}

const shrink = (corner: Vector, centre: Vector): Vector =>
  corner.map((value, a) => value * 0.6 + (centre[a] as number) * 0.4) as Vector;

/** Fits the set into the plan, and holds still while something is dragged. */
function useSteadyFit(
  kind: PlanKind,
  set: SetDocument,
  size: { width: number; height: number },
  hold: boolean,
): Fit {
  const held = useRef<Fit | null>(null);
  const { min, max } = extent(kind, set);
  const scale = Math.max(
    20,
    Math.min(
      (size.width - 2 * MARGIN) / Math.max(0.3, max[0] - min[0]),
      (size.height - 2 * MARGIN) / Math.max(0.3, max[1] - min[1]),
    ),
  );
  const fresh: Fit = {
    scale,
    originX: size.width / 2 - (scale * (min[0] + max[0])) / 2,
    originY: size.height / 2 - (scale * (min[1] + max[1])) / 2,
  };
  if (!hold || !held.current) held.current = fresh;
  return held.current;
}

interface MovableProps extends Shared {
  thing: ThingRef;
  name: string;
  children: ReactNode;
}

let gestureCount = 0;
let nextFrame: (() => void) | null = null;

/** Does the newest of many wishes at the next frame: a mouse may report more often than a page is drawn. */
function onceAFrame(work: () => void): void {
  if (nextFrame === null) requestAnimationFrame(flushFrame);
  nextFrame = work;
}

function flushFrame(): void {
  const work = nextFrame;
  nextFrame = null;
  work?.();
}

let lastNudge = { thing: '', time: 0, gesture: '' };

/** Makes its drawing selectable, draggable and movable by arrow keys. */
function Movable({ kind, set, fit, thing, name, children, setDragging }: MovableProps) {
  const dispatch = useBenchDispatch();
  const selected = useBench((bench) => sameThing(bench.selected, thing));
  const start = useRef<{ position: Vector; gesture: string } | null>(null);
  const position = positionOf(set, thing);

  const bind = useDrag(
    ({ first, last, movement: [mx, my], event }) => {
      event.stopPropagation();
      if (first) {
        dispatch(benchActions.selected(thing));
        const from = positionOf(set, thing);
        start.current = from ? { position: from, gesture: `drag ${++gestureCount}` } : null;
        setDragging(true);
      }
      if (start.current && (mx !== 0 || my !== 0)) {
        const { position, gesture } = start.current;
        const moved = rounded(shift(kind, position, mx / fit.scale, my / fit.scale));
        onceAFrame(() => dispatch(edit(moveThing(thing, moved), gesture)));
      }
      if (last) {
        flushFrame();
        start.current = null;
        setDragging(false);
      }
    },
    { filterTaps: true, pointer: { keys: false } },
  );

  function nudge(event: KeyboardEvent) {
    const directions: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const direction = directions[event.key];
    if (event.key === 'Enter' || event.key === ' ') dispatch(benchActions.selected(thing));
    if (!direction || !position) return;
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? 0.1 : event.altKey ? 0.001 : 0.01;
    const now = performance.now();
    const key = `${kind} ${thing.kind} ${thing.key}`;
    const goesOn = lastNudge.thing === key && now - lastNudge.time < 1000;
    lastNudge = { thing: key, time: now, gesture: goesOn ? lastNudge.gesture : `nudge ${++gestureCount}` };
    dispatch(benchActions.selected(thing));
    const moved = shift(kind, position, direction[0] * step, direction[1] * step);
    dispatch(edit(moveThing(thing, rounded(moved)), lastNudge.gesture));
  }

  return (
    <g
      {...bind()}
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={`${name}${position ? `, ${placeInWords(position)}` : ''}. Arrow keys move it 1 cm, with Shift 10 cm, with Alt 1 mm`}
      data-thing={`${thing.kind}:${thing.key}`}
      onKeyDown={nudge}
      onFocus={() => dispatch(benchActions.selected(thing))}
      style={{ cursor: 'grab', outline: 'none' }}
    >
      {children}
    </g>
  );
}

/** To a tenth of a millimetre: finer is noise of the mouse. */
const rounded = (point: Vector): Vector => point.map((value) => Math.round(value * 1e4) / 1e4) as Vector;

function placeInWords(position: Vector): string {
  const { bearingDeg, distanceM, heightM } = toStand(position);
  return `${formatBearing(bearingDeg)}, ${formatLength(distanceM)} from the mark, ${formatLength(heightM)} high`;
}

function TaggedPlace({ tag, place, thing }: { tag: string; place: Flat; thing: ThingRef }) {
  const selected = useBench((bench) => sameThing(bench.selected, thing));
  return (
    <TagMark x={place[0]} y={place[1]} selected={selected}>
      {tag}
    </TagMark>
  );
}

function CameraMark({ place: [x, y] }: { place: Flat }) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect x={-11} y={-8} width={22} height={16} fill="#d6d6d6" stroke="#222" />
      <circle r={4.5} fill="#333" stroke="#eee" />
    </g>
  );
}

/** Rings of distance and rays of bearing, room, bench, backdrop and the camera's cone. */
function Surroundings({
  kind,
  set,
  fit,
  at,
  path,
  size,
}: Shared & { size: { width: number; height: number } }) {
  const [x, y] = at([0, 0, 0]);
  const reach = Math.hypot(size.width, size.height) / fit.scale;
  const ringM = fit.scale > 260 ? 0.1 : fit.scale > 110 ? 0.25 : 0.5;
  const rings = Array.from({ length: Math.min(12, Math.floor(reach / ringM)) }, (_, i) => (i + 1) * ringM);
  return (
    <g pointerEvents="none">
      {kind === 'above' ? (
        <>
          {rings.map((radius) => (
            <g key={radius}>
              <circle cx={x} cy={y} r={radius * fit.scale} fill="none" stroke={surround.line} />
              <RulerText x={x + 3} y={y - radius * fit.scale - 2} value={radius} />
            </g>
          ))}
          {Array.from({ length: 24 }, (_, i) => i * 15).map((bearing) => {
            const a = (bearing * Math.PI) / 180;
            const near = bearing % 45 === 0 ? 0.06 : 0.96;
            const far = (rings.at(-1) ?? 1) * fit.scale;
            return (
              <path
                key={bearing}
                d={`M${x + near * far * Math.sin(a)} ${y + near * far * Math.cos(a)} L${x + far * Math.sin(a)} ${y + far * Math.cos(a)}`}
                stroke={surround.line}
                strokeWidth={0.8}
              />
            );
          })}
        </>
      ) : (
        [0, ...rings].map((height) => (
          <g key={height}>
            <path
              d={`M0 ${y - height * fit.scale} H${size.width}`}
              stroke={surround.line}
              strokeWidth={height === 0 ? 1.4 : 0.7}
            />
            <RulerText x={size.width - 30} y={y - height * fit.scale - 3} value={height} />
          </g>
        ))
      )}
      <path d={path(coneOfView(kind, set, 6))} fill={surround.accent} fillOpacity={0.1} />
      <Backdrop kind={kind} set={set} path={path} />
    </g>
  );
}

function RulerText({ x, y, value }: { x: number; y: number; value: number }) {
  return (
    <text x={x} y={y} fontSize={10} fill={surround.quiet} fontFamily='"JetBrains Mono Variable", monospace'>
      {Math.round(value * 100)}
    </text>
  );
}

function Backdrop({ kind, set, path }: Pick<Shared, 'kind' | 'set' | 'path'>) {
  const { bench, backdrop } = set;
  const line = { fill: 'none', stroke: '#e8e8e8', strokeWidth: 3 };
  return (
    <>
      {bench && (
        <path
          d={path(
            kind === 'above'
              ? corners(bench.centreM[0], -bench.centreM[1], bench.widthM, bench.depthM)
              : corners(bench.centreM[1], bench.thicknessM / 2, bench.depthM, bench.thicknessM),
          )}
          fill={kind === 'above' ? 'none' : '#6b6258'}
          stroke="#9a9a9a"
        />
      )}
      {backdrop?.kind === 'sweep' &&
        (kind === 'above' ? (
          <>
            <path
              d={path(
                corners(
                  0,
                  -(backdrop.frontM + backdrop.backM) / 2,
                  backdrop.widthM,
                  backdrop.backM - backdrop.frontM,
                ),
              )}
              fill="none"
              stroke="#bdbdbd"
              strokeDasharray="4 4"
            />
            <path
              d={path(
                [
                  [-backdrop.widthM / 2, -backdrop.backM],
                  [backdrop.widthM / 2, -backdrop.backM],
                ],
                false,
              )}
              {...line}
            />
          </>
        ) : (
          <path d={path(sweepProfile(backdrop), false)} {...line} />
        ))}
      {backdrop?.kind === 'panel' && (
        <path
          d={path(
            kind === 'above'
              ? [
                  [backdrop.centreM[0] - backdrop.widthM / 2, -backdrop.centreM[1]],
                  [backdrop.centreM[0] + backdrop.widthM / 2, -backdrop.centreM[1]],
                ]
              : [
                  [backdrop.centreM[1], -backdrop.centreM[2] - backdrop.heightM / 2],
                  [backdrop.centreM[1], -backdrop.centreM[2] + backdrop.heightM / 2],
                ],
            false,
          )}
          {...line}
        />
      )}
    </>
  );
}

const corners = (x: number, y: number, w: number, h: number): Flat[] => [
  [x - w / 2, y - h / 2],
  [x + w / 2, y - h / 2],
  [x + w / 2, y + h / 2],
  [x - w / 2, y + h / 2],
];

function sweepProfile({
  frontM,
  backM,
  radiusM,
  heightM,
}: {
  frontM: number;
  backM: number;
  radiusM: number;
  heightM: number;
}): Flat[] {
  const bend = Array.from({ length: 13 }, (_, i): Flat => {
    const angle = (i / 12) * (Math.PI / 2);
    return [backM - radiusM + radiusM * Math.sin(angle), -(radiusM - radiusM * Math.cos(angle))];
  });
  return [[frontM, 0], ...bend, [backM, -heightM]];
}

/** From the lens to the spot pointed at, and on to what it mirrors. */
function PickRay({ set, at }: Shared) {
  const pick = useBench((bench) => bench.pick);
  if (!pick) return null;
  const points = [
    set.camera.positionM,
    pick.pointM,
    ...(pick.mirroredPointM ? [pick.mirroredPointM] : []),
  ].map(at);
  return (
    <g pointerEvents="none">
      <path
        d={points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(' ')}
        fill="none"
        stroke={surround.caution}
        strokeWidth={1.4}
        strokeDasharray="5 3"
      />
      {points.slice(1).map(([x, y], i) => (
        <circle key={i === 0 ? 'seen' : 'mirrored'} cx={x} cy={y} r={3} fill={surround.caution} />
      ))}
    </g>
  );
}
