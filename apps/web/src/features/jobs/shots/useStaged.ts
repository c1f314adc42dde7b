import {
  type CameraBody,
  type CameraLens,
  type Framing,
  type Job,
  type Light,
  type Shot,
  type Studio,
  startWishes,
} from '@fendrix/contract';
import { checkPlace, DomainError, forPurpose, type StagedShot, stageSet } from '@fendrix/core';
import { useMemo } from 'react';
import { type NamedEquipment, useEquipment } from '../../kit';

/** The body of the kit as a camera takes it. */
export const bodyOf = (body: NamedEquipment<'body'>): CameraBody => ({
  name: body.name,
  sensorWidthM: body.sensorWidthM,
  sensorHeightM: body.sensorHeightM,
  pixelsWide: body.pixelsWide,
  pixelsHigh: body.pixelsHigh,
  syncSpeedS: body.syncSpeedS,
  ...(body.response ? { response: body.response } : {}),
});

/** A lens of the kit at one of its focal lengths. */
export const lensOf = (lens: NamedEquipment<'lens'>, focalLengthM = lens.longestM): CameraLens => ({
  name: lens.name,
  focalLengthM: Math.min(lens.longestM, Math.max(lens.shortestM, focalLengthM)),
  pupilRatio: lens.pupilRatio,
  closestFocusM: lens.closestFocusM,
  ...(lens.losses ? { losses: lens.losses } : {}),
  widestFNumber: lens.widestFNumber,
  smallestFNumber: lens.smallestFNumber,
});

/**
 * The framing of a picture; where none is chosen yet, the first body and the longest lens of the kit that lets the
 * camera stand within the room. Null while the kit is read.
 */
export function useFraming(job: Job, shot: Shot | null): Framing | null {
  const equipment = useEquipment();
  return useMemo(() => {
    if (shot?.framing) return shot.framing;
    const [body] = equipment?.bodies ?? [];
    if (!body || !equipment) return null;
    const framings = equipment.lenses
      .flatMap((lens) => [lensOf(lens, lens.longestM), lensOf(lens, lens.shortestM)])
      .sort((a, b) => b.focalLengthM - a.focalLengthM)
      .map((lens) => ({ ...USUAL, body: bodyOf(body), lens }));
    const [first] = framings;
    if (!shot || !first) return first ?? null;
    // Where none does, the shortest shows most of what is wanted.
    return (
      framings.find((framing) => standsWell(job, shot, framing, equipment.studio)) ?? framings.at(-1) ?? first
    );
  }, [job, shot, equipment]);
}

const USUAL = { fillPart: 0.6, fNumber: 11, mostNearFarRatio: 1.15, personM: 0.6 };

/** Whether room and lens let the camera stand where the framing wants it. */
function standsWell(job: Job, shot: Shot, framing: Framing, studio: Studio): boolean {
  const result = stage(job, shot, framing, studio);
  if (!result.ok) return false;
  const { room, benchHeightM } = studio;
  const checks = checkPlace(result.staged.placed, { ...framing, room, benchHeightM });
  return checks.every(({ what, met }) => met || what === 'flatness' || what === 'verticals');
}

export type Staged = { ok: true; staged: StagedShot } | { ok: false; why: string };

/** The picture staged with its products, or why it cannot be. */
export function stage(
  job: Job,
  shot: Shot,
  framing: Framing,
  studio: Studio | undefined,
  kitLights: readonly Light[] = [],
): Staged {
  try {
    const staged = stageSet(job, shot, framing, studio, kitLights);
    const { set } = staged;
    const wishes = startWishes(set, set.wishes.mood);
    const wished = { ...set, wishes: forPurpose({ ...set, wishes }, shot.purpose) };
    return { ok: true, staged: { ...staged, set: wished } };
  } catch (error) {
    if (error instanceof DomainError) return { ok: false, why: error.message };
    throw error;
  }
}
