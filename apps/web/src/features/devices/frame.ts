import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** A frame of a picture of a job. */
export interface FrameOfShot {
  job: string;
  shot: string;
  plate?: string;
}

/** A frame of a set by itself, from its bench. */
export interface FrameOfSet {
  set: string;
  plate?: string;
}

/** The frame that devices are at work on. */
export type WorkedFrame = FrameOfShot | FrameOfSet;

interface WithWorkedFrame {
  workedFrame: FrameOfShot | null;
}

/** What was chosen to be taken: the same on the day and among the frames, so that going from one to the other changes nothing. */
const slice = createSlice({
  name: 'workedFrame',
  initialState: null as FrameOfShot | null,
  reducers: { chosen: (_, { payload }: PayloadAction<FrameOfShot>) => payload },
});

export const workedFrameReducer = slice.reducer;
export const chooseFrame = slice.actions.chosen;

/** The frame that was chosen in a job; null where none was. */
export const chosenFrame =
  (job: string) =>
  ({ workedFrame }: WithWorkedFrame): FrameOfShot | null =>
    workedFrame?.job === job ? workedFrame : null;
