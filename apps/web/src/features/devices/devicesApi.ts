import type {
  Devices,
  MeterReading,
  ReadMeter,
  StandInCamera,
  StandInRail,
  StandInTrigger,
  StandInTurntable,
  TakeFrames,
  TakenFrames,
} from '@fendrix/contract';
import { serverApi } from '../../shared/api';
import type { WorkedFrame } from './frame';

/** Stand-ins for outside devices: their state, as the server tells it unasked, and what they do. */
export const devicesApi = serverApi.injectEndpoints({
  endpoints: (build) => {
    const settable = <T>(device: string) =>
      build.mutation<Devices, T>({
        query: (body) => ({ url: `devices/${device}`, method: 'PUT', body: body as object }),
        invalidatesTags: ['Devices'],
      });
    return {
      readDevices: build.query<Devices, void>({
        query: () => 'devices',
        providesTags: ['Devices'],
        async onCacheEntryAdded(_none, { cacheDataLoaded, cacheEntryRemoved, updateCachedData }) {
          // A browser without it sees what it has done itself.
          if (typeof EventSource === 'undefined') return;
          await cacheDataLoaded.catch(() => undefined);
          const events = new EventSource('/api/devices/events');
          events.addEventListener('devices', ({ data }: MessageEvent<string>) =>
            updateCachedData(() => JSON.parse(data) as Devices),
          );
          await cacheEntryRemoved;
          events.close();
        },
      }),
      setCamera: settable<StandInCamera>('camera'),
      setTrigger: settable<StandInTrigger>('trigger'),
      setTurntable: settable<StandInTurntable>('turntable'),
      setRail: settable<StandInRail>('rail'),
      readMeter: build.mutation<MeterReading, ReadMeter>({
        query: (body) => ({ url: 'devices/meter/readings', method: 'POST', body }),
      }),
      takeFrames: build.mutation<TakenFrames, TakeFrames>({
        query: (body) => ({ url: 'devices/camera/frames', method: 'POST', body }),
        invalidatesTags: ['Devices', 'Frames'],
      }),
    };
  },
});

/** Where the live view is read from. */
export const liveUrl = (frame: WorkedFrame): string =>
  `/api/devices/camera/live?${new URLSearchParams({ ...frame })}`;
