import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** The frame that devices are at work on. */
export interface WorkedFrame {
  job: string;
  shot: string;
  plate?: string;
}

interface WithWorkedFrame {
  workedFrame: WorkedFrame | null;
}

/** What was chosen to be taken: the same on the day and among the frames, so that going from one to the other changes nothing. */
const slice = createSlice({
  name: 'workedFrame',
  initialState: null as WorkedFrame | null,
  reducers: { chosen: (_, { payload }: PayloadAction<WorkedFrame>) => payload },
});

export const workedFrameReducer = slice.reducer;
export const chooseFrame = slice.actions.chosen;

/** The frame that was chosen in a job; null where none was. */
export const chosenFrame =
  (job: string) =>
  ({ workedFrame }: WithWorkedFrame): WorkedFrame | null =>
    workedFrame?.job === job ? workedFrame : null;
