import type { MaskArea } from '@fendrix/contract';
import { partAt } from '@fendrix/core';
import { useRef } from 'react';
import { useStore } from 'react-redux';
import type { RemoteSession } from '../picture/remoteSession';
import { BRUSH_RADIUS, benchActions, type PlatePointing, type WithBench } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { addPiece, paintOver } from '../state/plates';
import { tellFailure } from '../state/tellFailure';
import { edit } from '../state/thunks';
import { askPresent } from '../state/useAnswer';

/** Places are kept to a ten-thousandth of the frame: finer than a pixel of a usual sensor's picture on a screen. */
const fine = (value: number) => Math.round(value * 1e4) / 1e4;
const placed = ([across, down]: FramePlace) => ({ across: fine(across), down: fine(down) });

type FramePlace = readonly [across: number, down: number];

/** What is done in the picture for the mask of the chosen plate. */
export interface PlatePointer {
  by: PlatePointing['by'];
  press(...place: FramePlace): void;
  /** A gradient from one place to another in one go. */
  drag(from: FramePlace, to: FramePlace): void;
  /** The stroke of the brush is done. */
  ended(): void;
}

/** Null while nothing is pointed out for a mask. */
export function usePlatePointing(session: RemoteSession | null): PlatePointer | null {
  const dispatch = useBenchDispatch();
  const store = useStore<WithBench>();
  const { pointing, chosen } = useBench((bench) => bench.plates);
  const products = useSetPart((set) => set.products);
  // All dabs of one stroke are undone together.
  const stroke = useRef(0);
  if (!pointing || chosen === null) return null;
  const { by, leaveOut, from } = pointing;
  const add = (area: MaskArea) => {
    dispatch(edit(addPiece(chosen, area, leaveOut)));
    dispatch(benchActions.platesChanged({ pointing: null }));
  };

  async function pointAt(across: number, down: number) {
    const found = await askPresent(store, () => session?.ask({ kind: 'pick', across, down }) ?? null).catch(
      (error: unknown) => {
        tellFailure('What is seen there', error);
        return null;
      },
    );
    if (!found) return;
    const { kind, key } = found.thing;
    const product = kind === 'product' ? products.find(({ id }) => id === key) : undefined;
    if (by !== 'part' || !product) return add({ by: 'thing', kind, key });
    const part = partAt(product, found.pointM);
    add({ by: 'part', product: key, part: part.liquid ? 'liquid' : part.kind, index: part.index });
  }

  return {
    by,
    press(across, down) {
      const place = placed([across, down]);
      if (by === 'brush') {
        const dab = { ...place, radius: BRUSH_RADIUS };
        dispatch(edit(paintOver(chosen, dab, leaveOut), `paint ${chosen} ${stroke.current}`));
      } else if (by !== 'gradient') void pointAt(across, down);
      else if (from) add({ by: 'gradient', fromPoint: from, toPoint: place });
      else dispatch(benchActions.platesChanged({ pointing: { by, leaveOut, from: place } }));
    },
    drag(start, end) {
      add({ by: 'gradient', fromPoint: placed(start), toPoint: placed(end) });
    },
    ended() {
      stroke.current++;
    },
  };
}
