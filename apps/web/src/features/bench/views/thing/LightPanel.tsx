import type { Light, LightOf, SetDocument, StandingLight } from '@fendrix/contract';
import {
  formatLength,
  formatPower,
  formatStops,
  lightLuminance,
  METER_AGAIN_STOPS,
  minutesOfDrift,
  onDial,
  parsePower,
  parseStops,
  penumbra,
  powerWords,
  sunThrough,
} from '@fendrix/core';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { Explained } from '../../../../shared/Explained';
import { thingSchema } from '../../../../shared/form/schema';
import { QuantityField } from '../../../../shared/QuantityField';
import { type Parsed, within } from '../../../../shared/useTyped';
import { changedSince } from '../../state/edit';
import { changeLight } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { AimFields } from './AimFields';
import { CopyAcross } from './CopyAcross';
import { DaylightAt } from './DaylightAt';
import { InFrameNote } from './InFrameNote';
import { KeepInKit } from './KeepInKit';
import { AllFigures, ApparentSize, type PanelProps, RemoveButton, StandFields, Title } from './ThingFields';

/** Figures that have fields of their own. */
const SHOWN = new Set([
  'tag',
  'positionM',
  'aimM',
  'keepsDirection',
  'powerStops',
  'on',
  'driftStopsPerHour',
]);

export function LightPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const light = set.lights.find(({ tag }) => tag === thing.key);
  if (!light) return null;
  const change = (changes: object) =>
    dispatch(edit(changeLight(light.tag, (old) => ({ ...old, ...changes }) as Light)));
  const size = faceSizeM(light);
  return (
    <>
      <Title tag={light.tag} name={light.name} kind={kindInWords(light)} />
      <InFrameNote thing={thing} />
      {light.kind !== 'surround' && <StandFields set={set} thing={thing} />}
      <AimFields set={set} thing={thing} />
      {light.kind !== 'surround' && size > 0 && <ApparentSize positionM={light.positionM} sizeM={size} />}
      <QuantityField
        label="power"
        shown={formatPower(light.powerStops)}
        parse={(text) => powerOnDial(text, light)}
        hint={`Also ${spoken(light)}`}
        example="1/4, 100 Ws, 8.3 or −2"
        onCommit={(powerStops) => change({ powerStops })}
      />
      {light.kind === 'window' && (
        <FormControlLabel
          control={
            <Switch
              size="small"
              checked={light.sun !== undefined}
              onChange={(_, on) => change({ sun: on ? sunThrough(light) : undefined })}
            />
          }
          label="Sun through it"
          slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
        />
      )}
      {light.kind === 'window' && (
        <DaylightAt
          window={light}
          onChange={(lit) =>
            // Sun that does not come in any more goes with it.
            change({ sun: undefined, ...lit })
          }
        />
      )}
      {light.kind === 'window' && <Drift window={light} onChange={change} />}
      {light.kind !== 'surround' && <ShadowEdge set={set} light={light} />}
      <Luminance light={light} />
      <AllFigures
        schema={thingSchema('light')}
        value={light}
        hidden={SHOWN}
        onChange={(changed) =>
          dispatch(edit(changeLight(light.tag, (now) => changedSince(light, changed as Light, now))))
        }
      />
      <CopyAcross set={set} thing={thing} />
      <KeepInKit entry={{ what: 'light', thing: light }} />
      <RemoveButton thing={thing} />
    </>
  );
}

/** A power as typed, where its dial has it; what it has not is refused with the settings next to it. */
function powerOnDial(text: string, light: Light): Parsed<number> {
  const stops = parsePower(text, light);
  if (stops === null) return null;
  const least = light.dial?.leastStops ?? LOWEST;
  if (stops < least - 1e-6)
    return { refused: `Its dial goes from ${formatPower(least)} to ${formatPower(0)}.` };
  const set = onDial(light, stops);
  // As near as figures are said, a twentieth of a stop, it is that setting.
  if (!light.dial || Math.abs(set - stops) <= 0.05) return set;
  const { stepStops } = light.dial;
  const other = onDial(light, set + Math.sign(stops - set) * stepStops);
  return {
    refused: `Its dial has ${formatPower(Math.min(set, other))} and ${formatPower(Math.max(set, other))}, nothing between.`,
  };
}

/** Power of a light whose dial is not known, stops. */
const LOWEST = -20;

/** Longer side of what shines, m; 0 where there is none to speak of. */
function faceSizeM(light: Light): number {
  switch (light.kind) {
    case 'surround':
      return 0;
    case 'ring':
      return light.outerDiameterM;
    case 'tube':
      return light.lengthM;
    case 'projector':
      return light.lensDiameterM;
    case 'ies':
      return Math.max(light.openingWidthM, light.openingLengthM);
    case 'bare-lamp':
    case 'table-lamp':
      return 2 * light.radiusM;
    default:
      return 'diameterM' in light ? light.diameterM : Math.max(light.widthM, light.heightM);
  }
}

/** The power in the other ways that heads say it. */
function spoken(light: Light): string {
  const { wattSeconds, numbered } = powerWords(light, light.powerStops);
  return `${wattSeconds === null ? '' : `${Number(wattSeconds.toPrecision(3))} Ws, `}${numbered} on a dial to 10`;
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
  const grid = 'grid' in light && light.grid ? `, grid ${light.grid.cutoffDeg}°` : '';
  return `${kind}${grid}, ${time === 'flash' ? 'flash' : 'continuous'}`;
}

/** How soft the edge of the shadow is that the product throws by this light. */
function ShadowEdge({ set, light }: { set: SetDocument; light: StandingLight }) {
  const edge = penumbra(set, light);
  if (!edge) return null;
  const { on, sideM, endM, heightM, lightM, shadowM } = edge;
  return (
    <Explained label="soft edge of the shadow" value={formatLength(sideM)}>
      At the side of the product's shadow on the {on}, as it is thrown {formatLength(heightM)} up: from where
      the whole light is seen to where none of it is. Size of the light × {formatLength(shadowM)} from product
      to shadow over {formatLength(lightM)} from light to product.{' '}
      {endM === null ? 'At its end the shadow runs out.' : `At its end ${formatLength(endM)}.`} A larger or
      nearer light softens it; where the product touches the table it is always sharp.
    </Explained>
  );
}

/** How daylight changes while one works, and by when it is to be metered again. */
function Drift({ window, onChange }: { window: LightOf<'window'>; onChange(changes: object): void }) {
  const minutes = minutesOfDrift(window.driftStopsPerHour, METER_AGAIN_STOPS);
  return (
    <>
      <QuantityField
        label="daylight changes by"
        shown={`${formatStops(window.driftStopsPerHour)} stops an hour`}
        parse={within(parseStops, (stops) => `${stops} stops`, { from: -10, to: 10 })}
        example="-0.5 towards evening"
        onCommit={(driftStopsPerHour) => onChange({ driftStopsPerHour })}
      />
      {minutes !== null && (
        <Explained label="meter again after" value={`${Math.round(minutes)} min`}>
          By then it has changed by a third of a stop, which is seen between two pictures of a series: 60 min
          × 1/3 over {formatStops(Math.abs(window.driftStopsPerHour))} stops an hour. In half an hour it is{' '}
          {formatStops(window.driftStopsPerHour / 2)} stops.
        </Explained>
      )}
    </>
  );
}

function Luminance({ light }: { light: Light }) {
  const { time, luminance } = lightLuminance(light);
  const unit = time === 'flash' ? 'cd s/m²' : 'cd/m²';
  return (
    <Explained label="face brightness" value={`${Number(luminance.toPrecision(3))} ${unit}`}>
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
