import type { CameraBody, CameraLens, Framing, Job, Shot, Studio } from '@fendrix/contract';
import { DomainError, type StagedShot, stageSet } from '@fendrix/core';
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
});

/** A lens of the kit at one of its focal lengths. */
export const lensOf = (lens: NamedEquipment<'lens'>, focalLengthM = lens.longestM): CameraLens => ({
  name: lens.name,
  focalLengthM: Math.min(lens.longestM, Math.max(lens.shortestM, focalLengthM)),
  pupilRatio: lens.pupilRatio,
  closestFocusM: lens.closestFocusM,
});

/** The framing of a picture, or what the kit starts with. Null while the kit is read. */
export function useFraming(shot: Shot): Framing | null {
  const equipment = useEquipment();
  return useMemo(() => {
    if (shot.framing) return shot.framing;
    const [body] = equipment?.bodies ?? [];
    const [lens] = equipment?.lenses ?? [];
    if (!body || !lens) return null;
    return {
      body: bodyOf(body),
      lens: lensOf(lens),
      fillPart: 0.6,
      fNumber: 11,
      mostNearFarRatio: 1.15,
      personM: 0.6,
    };
  }, [shot.framing, equipment]);
}

export type Staged = { ok: true; staged: StagedShot } | { ok: false; why: string };

/** The picture staged with its products, or why it cannot be. */
export function stage(job: Job, shot: Shot, framing: Framing, studio: Studio | undefined): Staged {
  try {
    return { ok: true, staged: stageSet(job, shot, framing, studio) };
  } catch (error) {
    if (error instanceof DomainError) return { ok: false, why: error.message };
    throw error;
  }
}
