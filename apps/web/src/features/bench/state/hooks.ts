import type { SetDocument } from '@fendrix/contract';
import { channelsOf, type SpotReading, type SpotTrace, spotReading } from '@fendrix/core';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { createSelector } from '@reduxjs/toolkit';
import { useMemo } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { useUnchanged } from '../../../shared/useUnchanged';
import { useFigure } from '../figures/figureStore';
import { type BenchState, benchSet, type WithBench } from './benchSlice';

export const useBenchDispatch = () => useDispatch<ThunkDispatch<WithBench, unknown, UnknownAction>>();

export const useBench = <T>(select: (bench: BenchState) => T): T =>
  useSelector((state: WithBench) => select(state.bench));

/** A part of the open set; the view is drawn anew when that part changes. Only used while a set is open. */
export function useSetPart<T>(select: (set: SetDocument) => T): T {
  return useSelector((state: WithBench) => {
    const set = benchSet.documentOf(state);
    if (!set) throw new Error('no set is open');
    return select(set);
  });
}

/** The whole open set. */
export const useSet = (): SetDocument => useSetPart((set) => set);

/** The set as it is looked at: with one light alone, or with all that are on. Nothing is traced for it. */
export const selectLit: (state: WithBench) => SetDocument | null = createSelector(
  benchSet.documentOf,
  (state: WithBench) => state.bench.alone,
  (set, alone): SetDocument | null => {
    if (!set || alone === null || !set.lights.some(({ tag }) => tag === alone)) return set;
    return { ...set, lights: set.lights.map((light) => ({ ...light, on: light.tag === alone })) };
  },
);

const NO_TRACES: readonly SpotTrace[] = [];

/** Readings of sets, with the traces they are of: each row of a list asks for the same. */
const known = new WeakMap<SetDocument, { traces: readonly SpotTrace[]; readings: SpotReading[] }>();

/** What traced spots read with the powers and settings of a set. */
export function readingsOf(set: SetDocument | null, traces: readonly SpotTrace[]): SpotReading[] {
  if (!set) return [];
  const kept = known.get(set);
  if (kept?.traces === traces) return kept.readings;
  const readings = readAll(set, traces);
  known.set(set, { traces, readings });
  return readings;
}

function readAll(set: SetDocument, traces: readonly SpotTrace[]): SpotReading[] {
  // Those of a set with other films are from before the newest change.
  const films = channelsOf(set).length;
  const fits = traces.filter(({ illuminance }) => illuminance.length === films);
  return set.spots.flatMap((spot) => {
    const trace = fits.find(({ name }) => name === spot.name);
    return trace ? [spotReading(set, trace)] : [];
  });
}

/** What the pinned spots read with the powers and settings of now. */
export function useReadings(): SpotReading[] {
  const set = useSelector(selectLit);
  const traces = useFigure('spots')?.traces ?? NO_TRACES;
  // What stands elsewhere has not been traced there yet: the panels need not be drawn anew for it.
  return useUnchanged(useMemo(() => readingsOf(set, traces), [set, traces]));
}
