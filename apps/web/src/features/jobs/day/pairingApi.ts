import type { Pairing } from '@fendrix/contract';
import { serverApi } from '../../../shared/api';

/** Phones and tablets that may see the day of a job. */
export const pairingApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    readPairing: build.query<Pairing, string>({
      query: (job) => ({ url: 'pairing', params: { job } }),
      keepUnusedDataFor: 0,
      providesTags: ['Pairing'],
    }),
    openPairing: build.mutation<Pairing, string>({
      query: (job) => ({ url: 'pairing', method: 'POST', body: { job } }),
      invalidatesTags: ['Pairing'],
    }),
    closePairing: build.mutation<void, void>({
      query: () => ({ url: 'pairing', method: 'DELETE' }),
      invalidatesTags: ['Pairing'],
    }),
    throwOut: build.mutation<void, string>({
      query: (device) => ({ url: `pairing/devices/${device}`, method: 'DELETE' }),
      invalidatesTags: ['Pairing'],
    }),
  }),
});
