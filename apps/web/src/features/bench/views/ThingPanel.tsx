import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import {
  apparentAngleRad,
  cameraFigures,
  degrees,
  formatBearing,
  formatLength,
  formatPower,
  fromStand,
  lightLuminance,
  parseBearingDeg,
  parseLengthM,
  parseStops,
  toStand,
  vector,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, type ReactNode } from 'react';
import { Explained } from '../../../shared/Explained';
import { QuantityField } from '../../../shared/QuantityField';
import { Tag } from '../../../shared/Tag';
import { benchActions } from '../state/benchSlice';
import {
  changeCamera,
  changeLight,
  changeSheet,
  moveThing,
  positionOf,
  removeThing,
  type ThingRef,
  turnProduct,
} from '../state/edits';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { type BenchThunk, edit } from '../state/thunks';

/** The selected thing's numbers, typed with units. */
export const ThingPanel = memo(function ThingPanel() {
  const set = useSet();
  const selected = useBench((bench) => bench.selected);
  if (!selected) {
    return (
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        Nothing is selected. Point at a light, card, product or the camera in a plan, or at the picture to
        learn what that spot mirrors.
      </Box>
    );
  }
  switch (selected.kind) {
    case 'light':
      return <LightPanel set={set} thing={selected} />;
    case 'sheet':
      return <SheetPanel set={set} thing={selected} />;
    case 'product':
      return <ProductPanel set={set} thing={selected} />;
    case 'camera':
      return <CameraPanel set={set} thing={selected} />;
  }
});

interface PanelProps {
  set: SetDocument;
  thing: ThingRef;
}

function LightPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const light = set.lights.find(({ tag }) => tag === thing.key);
  if (!light) return null;
  const change = (changes: Partial<Light>) =>
    dispatch(edit(changeLight(light.tag, (old) => ({ ...old, ...changes }) as Light)));
  return (
    <>
      <Title tag={light.tag} name={light.name} kind={kindInWords(light)} />
      {light.kind !== 'surround' && <StandFields set={set} thing={thing} />}
      {light.kind === 'softbox' && (
        <>
          <AimField aimM={light.aimM} onCommit={(aimM) => change({ aimM })} />
          <SizeFields size={light} onCommit={change} />
          <ApparentSize positionM={light.positionM} sizeM={Math.max(light.widthM, light.heightM)} />
        </>
      )}
      <QuantityField
        label="power"
        shown={formatPower(light.powerStops)}
        parse={(text) => parsePower(text)}
        example="1/4 or −2"
        onCommit={(powerStops) => change({ powerStops })}
      />
      <Luminance light={light} />
      <RemoveButton thing={thing} />
    </>
  );
}

function SheetPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const sheet = set.sheets.find(({ tag }) => tag === thing.key);
  if (!sheet) return null;
  const change = (changes: object) =>
    dispatch(edit(changeSheet(sheet.tag, (old) => ({ ...old, ...changes }) as Sheet)));
  return (
    <>
      <Title
        tag={sheet.tag}
        name={sheet.name}
        kind={sheet.kind === 'card' ? 'bounces light' : 'cuts light'}
      />
      <StandFields set={set} thing={thing} />
      <AimField aimM={sheet.aimM} onCommit={(aimM) => change({ aimM })} />
      {'widthM' in sheet && (
        <>
          <SizeFields size={sheet} onCommit={change} />
          <ApparentSize positionM={sheet.positionM} sizeM={Math.max(sheet.widthM, sheet.heightM)} />
        </>
      )}
      <RemoveButton thing={thing} />
    </>
  );
}

function ProductPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const product = set.products.find(({ id }) => id === thing.key);
  if (!product) return null;
  return (
    <>
      <Title name={product.name} kind={product.kind === 'box' ? 'box' : 'turned'} />
      <StandFields set={set} thing={thing} heightLabel="lifted by" />
      <QuantityField
        label="turned"
        shown={formatBearing(product.turnDeg)}
        parse={parseBearingDeg}
        example="15 right"
        onCommit={(turn) => dispatch(edit(turnProduct(product.id, turn)))}
      />
      <RemoveButton thing={thing} />
    </>
  );
}

function CameraPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const { camera } = set;
  const figures = cameraFigures(camera);
  return (
    <>
      <Title name="Camera" kind={`${camera.body.name}; ${camera.lens.name}`} />
      <StandFields set={set} thing={thing} />
      <AimField aimM={camera.aimM} onCommit={(aimM) => dispatch(edit(changeCamera({ aimM })))} />
      <QuantityField
        label="focal length"
        shown={`${Number((camera.lens.focalLengthM * 1000).toFixed(1))} mm`}
        parse={(text) => parseLengthM(text, 'mm')}
        example="85 mm"
        onCommit={(focalLengthM) => dispatch(edit(changeCamera({ lens: { ...camera.lens, focalLengthM } })))}
      />
      <QuantityField
        label="in focus at"
        shown={formatLength(camera.focusM)}
        parse={(text) => parseLengthM(text)}
        example="1m20"
        onCommit={(focusM) => dispatch(edit(changeCamera({ focusM })))}
      />
      <Explained
        label="sharp from – to"
        value={`${formatLength(figures.depthOfFieldM.near)} – ${figures.depthOfFieldM.far === null ? 'far' : formatLength(figures.depthOfFieldM.far)}`}
      >
        Sharp means a blur disc below {(figures.circleOfConfusionM * 1e6).toFixed(1)} µm on the sensor (
        {figures.circleOfConfusionBasis}). H = f²/(N c) + f; near s(H−f)/(H+s−2f), far s(H−f)/(H−s). A smaller
        f-stop or more distance deepens it.
      </Explained>
      <Explained label="close-focus loss" value={`${figures.bellowsStops.toFixed(2)} stop`}>
        2 log₂(1 + m/p) with m = {figures.magnification.toFixed(3)}: the lens is racked out, so less light
        arrives. It is in the picture and the spot readings; a hand meter does not see it.
      </Explained>
      <Explained label="view" value={`${figures.angleOfViewDeg.width.toFixed(1)}° wide`}>
        2 atan(w / 2f′) with f′ = f (1 + m/p), w = {Number((camera.body.sensorWidthM * 1000).toFixed(1))} mm.
      </Explained>
    </>
  );
}

function Title({ tag, name, kind }: { tag?: string; name: string; kind: string }) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', mb: 0.75 }}>
      {tag && <Tag>{tag}</Tag>}
      <Box sx={{ minWidth: 0 }}>
        <Box component="h2" sx={{ m: 0, fontSize: '0.9375rem', fontWeight: 650 }}>
          {name}
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>{kind}</Box>
      </Box>
    </Box>
  );
}

const KIND_WORDS: Record<Light['kind'], string> = {
  softbox: 'softbox',
  octa: 'octa',
  ring: 'ring light',
  dish: 'dish',
  tube: 'tube',
  umbrella: 'umbrella',
  snoot: 'snoot',
  projector: 'projecting spot',
  panel: 'panel',
  'table-lamp': 'table lamp',
  window: 'window',
  ies: 'measured light',
  'bare-lamp': 'bare lamp',
  surround: 'even surround',
};

function kindInWords(light: Light): string {
  const { time } = lightLuminance(light);
  const kind = KIND_WORDS[light.kind];
  const grid = light.kind === 'softbox' && light.grid ? `, grid ${light.grid.cutoffDeg}°` : '';
  return `${kind}${grid}, ${time === 'flash' ? 'flash' : 'continuous'}`;
}

function StandFields({ set, thing, heightLabel }: PanelProps & { heightLabel?: string }) {
  const dispatch = useBenchDispatch();
  const position = positionOf(set, thing);
  if (!position) return null;
  const stand = toStand(position);
  const put = (changes: Partial<typeof stand>): BenchThunk<boolean> =>
    edit(moveThing(thing, fromStand({ ...stand, ...changes })));
  return (
    <>
      <QuantityField
        label="stands"
        shown={formatBearing(stand.bearingDeg)}
        parse={parseBearingDeg}
        example="72 left"
        onCommit={(bearingDeg) => dispatch(put({ bearingDeg }))}
      />
      <QuantityField
        label="from the mark"
        shown={formatLength(stand.distanceM)}
        parse={(text) => nonNegative(parseLengthM(text))}
        example="78 cm or 18 in"
        onCommit={(distanceM) => dispatch(put({ distanceM }))}
      />
      <QuantityField
        label={heightLabel ?? 'above the bench'}
        shown={formatLength(stand.heightM)}
        parse={(text) => parseLengthM(text)}
        example="46 cm"
        onCommit={(heightM) => dispatch(put({ heightM }))}
      />
    </>
  );
}

const nonNegative = (value: number | null) => (value !== null && value >= 0 ? value : null);

function AimField({ aimM, onCommit }: { aimM: Vector; onCommit(aim: Vector): void }) {
  return (
    <QuantityField
      label="aims at height"
      shown={formatLength(aimM[2])}
      parse={(text) => parseLengthM(text)}
      example="9 cm"
      onCommit={(height) => onCommit([aimM[0], aimM[1], height])}
    />
  );
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
      <QuantityField
        label="width"
        shown={formatLength(size.widthM)}
        parse={(text) => parseLengthM(text)}
        example="60 cm"
        onCommit={(widthM) => onCommit({ widthM })}
      />
      <QuantityField
        label="height"
        shown={formatLength(size.heightM)}
        parse={(text) => parseLengthM(text)}
        example="90 cm"
        onCommit={(heightM) => onCommit({ heightM })}
      />
    </>
  );
}

function ApparentSize({ positionM, sizeM }: { positionM: Vector; sizeM: number }) {
  const away = vector.length(positionM);
  if (!(away > 1e-6)) return null;
  const angle = degrees(apparentAngleRad(sizeM, away));
  return (
    <Explained label="looks from the mark" value={`${angle.toFixed(0)}° wide`}>
      2 atan(size / 2d) with its longer side {formatLength(sizeM)} and d = {formatLength(away)}. The wider it
      looks, the softer its shadows and the broader its mirror image. Further away it looks smaller: harder,
      not because of the fall-off.
    </Explained>
  );
}

function Luminance({ light }: { light: Light }) {
  const { time, luminance } = lightLuminance(light);
  const unit = time === 'flash' ? 'cd s/m²' : 'cd/m²';
  return (
    <Explained label="luminance of its face" value={`${Number(luminance.toPrecision(3))} ${unit}`}>
      {outputInWords(light)} At {formatPower(light.powerStops)} that is 2^{light.powerStops.toFixed(2)} of
      full. A clear mirror shows exactly this times its reflectance, from any distance.
    </Explained>
  );
}

function outputInWords(light: Light): string {
  const { output } = light;
  switch (output.kind) {
    case 'flash-energy':
      return `${output.energyJ} J × ${output.efficacyLmSPerJ} lm s/J × ${output.modifierEfficiency} leaves the face; over π times its area this is its luminance.`;
    case 'guide-number':
      return `Guide number ${output.guideNumberM} m gives 2.5 GN² cd s on the axis; over the face's area this is its luminance.`;
    case 'flash-exposure':
      return `Set so that a meter 1 m in front reads ${output.luxSecondsAt1M} lx s.`;
    case 'lumens':
      return `${output.lumens} lm × ${output.modifierEfficiency} leaves the face; over π times its area this is its luminance.`;
    case 'illuminance':
      return `Set so that a meter 1 m in front reads ${output.luxAt1M} lx.`;
    case 'luminance':
      return `Given directly: ${output.luminanceCdM2} cd/m².`;
  }
}

/** "1/4" as on the head, or stops from full. */
function parsePower(text: string): number | null {
  const fraction = /^1\/(\d+(?:\.\d+)?)$/.exec(text.trim());
  const stops = fraction ? -Math.log2(Number(fraction[1])) : parseStops(text);
  return stops !== null && stops <= 0 && stops >= -20 ? stops : null;
}

function RemoveButton({ thing }: { thing: ThingRef }): ReactNode {
  const dispatch = useBenchDispatch();
  return (
    <Button
      size="small"
      color="inherit"
      sx={{ mt: 0.5, px: 0 }}
      onClick={() => {
        dispatch(edit(removeThing(thing)));
        dispatch(benchActions.selected(null));
      }}
    >
      Take off the set
    </Button>
  );
}
