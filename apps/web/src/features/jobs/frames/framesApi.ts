import type {
  Frame,
  FrameAgainstPlan,
  FrameChange,
  FrameFigures,
  FrameList,
  FrameMoves,
  OfPlan,
  UnderWay,
} from '@fendrix/contract';
import { serverApi } from '../../../shared/api';
import type { FramePage } from './useFrames';

/** Frames that cameras write into the watched folder. */
export const framesApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listFrames: build.query<FrameList, FramePage>({
      query: (params) => ({ url: 'frames', params }),
      keepUnusedDataFor: 5,
      providesTags: ['Frames'],
    }),
    sendFramesTo: build.mutation<void, string | null>({
      query: (job) => ({ url: 'frames/to', method: 'PUT', body: { job } }),
      invalidatesTags: ['Frames'],
    }),
    changeFrame: build.mutation<Frame, { id: string; change: FrameChange }>({
      query: ({ id, change }) => ({ url: `frames/${id}`, method: 'PATCH', body: change }),
      invalidatesTags: ['Frames'],
    }),
    /** What it shows of its product; the file never changes, and its set is that of when it was kept. */
    readFigures: build.query<FrameFigures, string>({ query: (id) => `frames/${id}/figures` }),
    /** @param of what it is a frame of: moved to another, it is read anew */
    readAgainstPlan: build.query<OfPlan<FrameAgainstPlan>, { id: string; of: string }>({
      query: ({ id }) => `frames/${id}/against-plan`,
      keepUnusedDataFor: 0,
    }),
    /** While it is under way it has to be asked for again every few seconds, or it is given up. */
    readMoves: build.query<OfPlan<FrameMoves | UnderWay>, { id: string; of: string }>({
      query: ({ id }) => `frames/${id}/moves`,
      keepUnusedDataFor: 0,
    }),
  }),
});
