import type { Frame, FrameChange, FrameList } from '@fendrix/contract';
import { serverApi } from '../../../shared/api';

interface Page {
  job: string;
  limit: number;
  offset: number;
}

/** Frames that cameras write into the watched folder. */
export const framesApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listFrames: build.query<FrameList, Page>({
      query: (params) => ({ url: 'frames', params }),
      keepUnusedDataFor: 5,
      providesTags: ['Frames'],
    }),
    sendFramesTo: build.mutation<void, string | null>({
      query: (job) => ({ url: 'frames/to', method: 'PUT', body: { job } }),
      invalidatesTags: ['Frames'],
    }),
    changeFrame: build.mutation<Frame, { page: Page; id: string; change: FrameChange }>({
      query: ({ id, change }) => ({ url: `frames/${id}`, method: 'PATCH', body: change }),
      invalidatesTags: ['Frames'],
      // Seen at once; what the server refuses is shown as it was.
      async onQueryStarted({ page, id, change }, { dispatch, queryFulfilled }) {
        const shown = dispatch(
          framesApi.util.updateQueryData('listFrames', page, (list) => {
            const frame = list.frames.find((own) => own.id === id);
            if (frame) Object.assign(frame, change);
          }),
        );
        await queryFulfilled.catch(() => shown.undo());
      },
    }),
  }),
});

/** Where the picture of a frame is read from. */
export const frameUrl = (id: string, size: 'small' | 'large'): string => `/api/frames/${id}/${size}`;
