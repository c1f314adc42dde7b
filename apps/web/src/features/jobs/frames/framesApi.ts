import type {
  Devices,
  Frame,
  FrameAgainstPlan,
  FrameChange,
  FrameList,
  MeterReading,
  StandInCamera,
  TakenFrames,
} from '@fendrix/contract';
import { serverApi } from '../../../shared/api';
import type { FramePage } from './useFrames';

export interface TakeFrames {
  job: string;
  shot: string;
  plate?: string;
  bracketStops: number[];
}

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
    /** @param of what it is a frame of: moved to another, it is read anew */
    readAgainstPlan: build.query<FrameAgainstPlan, { id: string; of: string }>({
      query: ({ id }) => `frames/${id}/against-plan`,
      keepUnusedDataFor: 0,
    }),
    readDevices: build.query<Devices, void>({ query: () => 'devices', providesTags: ['Devices'] }),
    setCamera: build.mutation<Devices, StandInCamera>({
      query: (body) => ({ url: 'devices/camera', method: 'PUT', body }),
      invalidatesTags: ['Devices'],
    }),
    readMeter: build.mutation<MeterReading, { job: string; shot: string; spot: string }>({
      query: (body) => ({ url: 'devices/meter/readings', method: 'POST', body }),
    }),
    takeFrames: build.mutation<TakenFrames, TakeFrames>({
      query: (body) => ({ url: 'devices/camera/frames', method: 'POST', body }),
      invalidatesTags: ['Devices', 'Frames'],
    }),
  }),
});

/** Where the picture of a frame is read from. */
export const frameUrl = (id: string, size: 'small' | 'large'): string => `/api/frames/${id}/${size}`;
