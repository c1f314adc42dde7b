import type { Backdrop, Bench, Light, Product, Room, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { cameraShape, liesOnTable, lightShape, personShape, sheetShape, standShape } from '@fendrix/core';
import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import { BoxGeometry, type BufferGeometry, CanvasTexture, DoubleSide, EdgesGeometry } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { setMarks, surround } from '../../../shared/theme';
import { sameThing, type ThingRef } from '../state/edits';
import { useBench, useSet } from '../state/hooks';
import { AimBall } from './AimBall';
import { Grabbed, HoldContext, Pressed } from './Grabbed';
import { backdropGeometry, productGeometries, shapeGeometries } from './shapes';
import { placeOf, type Viewpoint } from './viewpoints';

const BENCH: ThingRef = { kind: 'bench', key: '' };
const BACKDROP: ThingRef = { kind: 'backdrop', key: '' };

export function SetInSpace({ viewpoint }: { viewpoint: { name: Viewpoint; asked: number } }) {
  const set = useSet();
  const invalidate = useThree((state) => state.invalidate);
  const hold = useWalk(viewpoint, set);
  // Drawn on demand: each change of the set asks for one frame.
  useEffect(() => invalidate(), [set, invalidate]);
  return (
    <HoldContext.Provider value={hold}>
      <color attach="background" args={[surround.section]} />
      <hemisphereLight args={[setMarks.sky, setMarks.ground, 1.6]} position={[0, 0, 1]} />
      <directionalLight position={[1.5, -2, 3]} intensity={1.2} />
      {set.room && <RoomEdges room={set.room} markHeightM={set.mark.heightAboveFloorM} />}
      {set.bench && (
        <Pressed thing={BENCH}>
          <BenchBox bench={set.bench} sunk={liesOnTable(set.backdrop)} />
        </Pressed>
      )}
      {set.backdrop && (
        <Pressed thing={BACKDROP}>
          <BackdropSheet backdrop={set.backdrop} />
        </Pressed>
      )}
      {set.products.map((product) => (
        <ProductBody key={product.id} product={product} />
      ))}
      {set.lights.map((light) => (
        <LightBody key={light.tag} light={light} set={set} />
      ))}
      {set.sheets.map((sheet) => (
        <SheetBody key={sheet.tag} sheet={sheet} set={set} />
      ))}
      {set.people.map((person) => (
        <Grabbed key={person.name} thing={{ kind: 'person', key: person.name }}>
          <Pieces geometries={shapeGeometries(personShape(person, set))} colour={setMarks.person} />
        </Grabbed>
      ))}
      <CameraBody set={set} />
      <AimBall />
    </HoldContext.Provider>
  );
}

/** Walking round by mouse and finger, and going to a viewpoint. */
function useWalk(
  { name, asked }: { name: Viewpoint; asked: number },
  set: SetDocument,
): (still: boolean) => void {
  const { camera, gl, invalidate } = useThree();
  const controls = useRef<OrbitControls | null>(null);
  const latest = useRef(set);
  latest.current = set;
  useEffect(() => {
    const own = new OrbitControls(camera, gl.domElement);
    own.addEventListener('change', () => invalidate());
    controls.current = own;
    return () => own.dispose();
  }, [camera, gl, invalidate]);
  useEffect(() => {
    const { eye, target } = placeOf(name, latest.current);
    camera.position.set(...eye);
    controls.current?.target.set(...target);
    controls.current?.update();
    invalidate();
  }, [name, asked, camera, invalidate]);
  // Told once it is drawn.
  useFrame(() => {
    gl.domElement.dataset.viewpoint = name;
  });
  return useMemo(
    () => (still: boolean) => {
      if (controls.current) controls.current.enabled = !still;
    },
    [],
  );
}

interface PiecesProps {
  geometries: BufferGeometry[];
  colour: string;
  opacity?: number;
  glow?: boolean;
}

function Pieces({ geometries, colour, opacity = 1, glow = false }: PiecesProps) {
  useEffect(() => () => geometries.forEach((geometry) => void geometry.dispose()), [geometries]);
  return geometries.map((geometry) => (
    <mesh key={geometry.uuid} geometry={geometry}>
      {glow ? (
        <meshBasicMaterial color={colour} side={DoubleSide} transparent={opacity < 1} opacity={opacity} />
      ) : (
        <meshStandardMaterial
          color={colour}
          side={DoubleSide}
          roughness={0.7}
          transparent={opacity < 1}
          opacity={opacity}
          depthWrite={opacity >= 1}
        />
      )}
    </mesh>
  ));
}

function useSelected(thing: ThingRef): boolean {
  return useBench((bench) => sameThing(bench.selected, thing));
}

function LightBody({ light, set }: { light: Light; set: SetDocument }) {
  const thing: ThingRef = { kind: 'light', key: light.tag };
  const selected = useSelected(thing);
  const geometries = useMemo(() => shapeGeometries(lightShape(light)), [light]);
  const { mark, bench } = set;
  const stand = useMemo(() => shapeGeometries(standShape(light, { mark, bench })), [light, mark, bench]);
  if (light.kind === 'surround') return null;
  return (
    <Grabbed thing={thing}>
      <Pieces
        geometries={geometries}
        colour={selected ? surround.accent : light.on ? setMarks.lit : setMarks.ground}
        glow
      />
      <Pieces geometries={stand} colour={surround.ink} />
      <TagSign tag={light.tag} at={light.positionM} />
    </Grabbed>
  );
}

function SheetBody({ sheet, set }: { sheet: Sheet; set: SetDocument }) {
  const thing: ThingRef = { kind: 'sheet', key: sheet.tag };
  const selected = useSelected(thing);
  const geometries = useMemo(() => shapeGeometries(sheetShape(sheet)), [sheet]);
  const { mark, bench } = set;
  const stand = useMemo(() => shapeGeometries(standShape(sheet, { mark, bench })), [sheet, mark, bench]);
  const through = sheet.front.kind === 'translucent' || sheet.front.kind === 'net';
  const dark = 'reflectance' in sheet.front && toneOf(sheet.front.reflectance) < 0.15;
  return (
    <Grabbed thing={thing}>
      <Pieces
        geometries={geometries}
        colour={selected ? surround.accent : dark ? setMarks.blackSheet : setMarks.whiteSheet}
        opacity={through ? 0.35 : sheet.kind === 'tent' || sheet.kind === 'cone' ? 0.3 : 1}
      />
      <Pieces geometries={stand} colour={surround.ink} />
      <TagSign tag={sheet.tag} at={sheet.positionM} />
    </Grabbed>
  );
}

const toneOf = (reflectance: number | [number, number, number]) =>
  typeof reflectance === 'number' ? reflectance : reflectance[1];

function ProductBody({ product }: { product: Product }) {
  const thing: ThingRef = { kind: 'product', key: product.id };
  const selected = useSelected(thing);
  const { geometries, own } = useMemo(() => productGeometries(product), [product]);
  return (
    <Grabbed thing={thing}>
      <group position={own ? product.positionM : [0, 0, 0]}>
        <Pieces geometries={geometries} colour={selected ? surround.accent : setMarks.productInSpace} />
      </group>
    </Grabbed>
  );
}

function CameraBody({ set }: { set: SetDocument }) {
  const thing: ThingRef = { kind: 'camera', key: '' };
  const selected = useSelected(thing);
  const { camera, mark, bench } = set;
  const geometries = useMemo(() => {
    const counted = camera.rig ?? {
      bodyWidthM: 0.14,
      bodyHeightM: 0.1,
      lensDiameterM: 0.08,
      lensLengthM: 0.12,
      tripod: false,
    };
    return shapeGeometries(cameraShape({ camera: { ...camera, rig: counted }, mark, bench }));
  }, [camera, mark, bench]);
  return (
    <Grabbed thing={thing}>
      <Pieces geometries={geometries} colour={selected ? surround.accent : surround.seam} />
    </Grabbed>
  );
}

function BenchBox({ bench, sunk }: { bench: Bench; sunk: boolean }) {
  const selected = useSelected(BENCH);
  const { widthM, depthM, thicknessM, centreM } = bench;
  const top = sunk ? -5e-4 : 0;
  return (
    <mesh position={[centreM[0], centreM[1], top - thicknessM / 2]}>
      <boxGeometry args={[widthM, depthM, thicknessM]} />
      <meshStandardMaterial color={selected ? surround.accent : setMarks.tableInSpace} roughness={0.9} />
    </mesh>
  );
}

function BackdropSheet({ backdrop }: { backdrop: Backdrop }) {
  const selected = useSelected(BACKDROP);
  const geometry = useMemo(() => backdropGeometry(backdrop), [backdrop]);
  return (
    <mesh geometry={geometry}>
      <meshStandardMaterial
        color={selected ? surround.accent : setMarks.backdropInSpace}
        side={DoubleSide}
        roughness={0.95}
      />
    </mesh>
  );
}

function RoomEdges({ room, markHeightM }: { room: Room; markHeightM: number }) {
  const { widthM, depthM, heightM, markFromLeftM, markFromFrontM } = room;
  const edges = useMemo(
    () => new EdgesGeometry(new BoxGeometry(widthM, depthM, heightM)),
    [widthM, depthM, heightM],
  );
  return (
    <lineSegments
      geometry={edges}
      position={[widthM / 2 - markFromLeftM, depthM / 2 - markFromFrontM, heightM / 2 - markHeightM]}
    >
      <lineBasicMaterial color={setMarks.room} />
    </lineSegments>
  );
}

const SIGN_PX = 64;

/** A tag that always faces the viewer. */
function TagSign({ tag, at }: { tag: string; at: Vector }) {
  const texture = useMemo(() => {
    const canvas = document.createElement('canvas');
    canvas.width = SIGN_PX;
    canvas.height = SIGN_PX / 2;
    const context = canvas.getContext('2d');
    if (context) {
      context.fillStyle = /[A-Z]/.test(tag) ? surround.lamp : surround.paper;
      context.fillRect(0, 0, canvas.width, canvas.height);
      context.fillStyle = surround.ink;
      context.font = 'bold 26px "JetBrains Mono Variable", monospace';
      context.textAlign = 'center';
      context.fillText(tag, SIGN_PX / 2, SIGN_PX / 2 - 7);
    }
    return new CanvasTexture(canvas);
  }, [tag]);
  useEffect(() => () => texture.dispose(), [texture]);
  return (
    <sprite position={at} scale={[0.07, 0.035, 1]}>
      <spriteMaterial map={texture} depthTest={false} />
    </sprite>
  );
}
