import type { Light } from '@fendrix/contract';
import {
  type FieldTrace,
  fieldByLight,
  formatStops,
  groundLight,
  onDial,
  PAPER_WHITE_STOPS,
  traceKey,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { useStore } from 'react-redux';
import { useEquipment } from '../../../kit';
import { useSession } from '../../picture/useSession';
import { benchSet, type WithBench } from '../../state/benchSlice';
import { freeTag } from '../../state/edits';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { GOODS, GROUND, readFrame } from './readGround';

/** A white ground is aimed this far over the white of the goods, and never below paper white. */
const OVER_STOPS = 0.7;
/** A light is the ground's own where it gives a good part of the ground and far less of the goods. */
const OWN_PART = 0.15;
const LITTLE = 0.6;

interface GroundCuresProps {
  field: FieldTrace;
  level: number;
  white: number;
}

/** What lights the ground, and buttons that make it white with the least change. */
export function GroundCures({ field, level, white }: GroundCuresProps) {
  const set = useSet();
  const { session } = useSession();
  const dispatch = useBenchDispatch();
  const store = useStore<WithBench>();
  const { enqueueSnackbar } = useSnackbar();
  const [busy, setBusy] = useState(false);
  const kitLights = useEquipment()?.lights ?? [];
  const ground = fieldByLight(set, field, GROUND);
  const goods = fieldByLight(set, field, GOODS);
  const [groundSum, goodsSum] = [sumOf(ground), sumOf(goods)];
  const rows = set.lights
    .map((light, i) => ({
      light,
      ofGround: groundSum > 0 ? (ground[i] ?? 0) / groundSum : 0,
      ofGoods: goodsSum > 0 ? (goods[i] ?? 0) / goodsSum : 0,
      value: ground[i] ?? 0,
    }))
    .filter(({ ofGround, light }) => light.on && ofGround >= 0.02);
  const own = rows.filter(({ ofGround, ofGoods }) => ofGround > OWN_PART && ofGoods < LITTLE * ofGround);
  const ownValue = sumOf(own.map(({ value }) => value));
  const wanted = Math.max(PAPER_WHITE_STOPS + 0.1, white + OVER_STOPS);
  const away = wanted - level;

  /** Raises or lowers one light until the ground is where it is wanted; the others keep their part. */
  function power(value: number): number | null {
    const rest = groundSum - value;
    const needed = 2 ** wanted - rest;
    return needed > 0 && value > 0 ? Math.log2(needed / value) : null;
  }

  /** A strip at either side of the backdrop, where the room has place for it, at the power that makes it white. */
  async function addOwn() {
    const added: Light[] = [];
    for (const side of [-1, 1] as const) {
      const tag = freeTag({ ...set, lights: [...set.lights, ...added] }, 'light');
      const light = tag && groundLight(set, tag, side, kitLights);
      if (light) added.push(light);
    }
    if (added.length === 0 || !session) {
      enqueueSnackbar('There is no place for a light before the backdrop.', { variant: 'warning' });
      return;
    }
    setBusy(true);
    const tried = { ...set, takes: [], lights: [...set.lights, ...added] };
    const read = await readFrame(session, tried).catch(() => null);
    setBusy(false);
    const present = benchSet.documentOf(store.getState());
    if (!read || !present) return;
    if (traceKey(present) !== traceKey(set)) {
      enqueueSnackbar('The set has moved meanwhile: ask for the lights again.', { variant: 'warning' });
      return;
    }
    // With the powers and settings of now: they may have been changed while it was traced.
    const byLight = fieldByLight({ ...present, lights: [...present.lights, ...added] }, read, GROUND);
    const given = sumOf(byLight.slice(-added.length));
    const needed = 2 ** wanted - (sumOf(byLight) - given);
    if (!(given > 0)) return;
    const raise = Math.log2(Math.max(1e-6, needed) / given);
    const lights = added.map(
      (light) => ({ ...light, powerStops: onDial(light, light.powerStops + raise) }) as Light,
    );
    dispatch(edit((old) => ({ ...old, lights: [...old.lights, ...lights] })));
  }

  const change = own.length > 0 ? power(ownValue) : null;
  return (
    <Box sx={{ fontSize: '0.8125rem', mb: 1 }} data-testid="ground-lights">
      {rows.map(({ light, ofGround, ofGoods }) => (
        <div key={light.tag}>
          {light.tag} gives {Math.round(100 * ofGround)} % of the ground and {Math.round(100 * ofGoods)} % of
          the goods.
        </div>
      ))}
      {change !== null && Math.abs(away) > 0.05 && (
        <Button
          size="small"
          variant="outlined"
          onClick={() =>
            dispatch(
              edit((old) => ({
                ...old,
                lights: old.lights.map((light) =>
                  own.some((row) => row.light.tag === light.tag)
                    ? { ...light, powerStops: onDial(light, light.powerStops + change) }
                    : light,
                ),
              })),
            )
          }
        >
          Make it white: {own.map(({ light }) => light.tag).join(' and ')} {formatStops(change)}
        </Button>
      )}
      {own.length === 0 && set.backdrop && (
        <Button size="small" variant="outlined" disabled={busy} onClick={() => void addOwn()}>
          Give the ground lights of its own
        </Button>
      )}
    </Box>
  );
}

const sumOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0);
