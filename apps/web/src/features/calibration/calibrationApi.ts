import type {
  Calibration,
  CalibrationHour,
  CardOfFrame,
  CardReading,
  PrintedWedge,
  StandInCard,
} from '@fendrix/contract';
import { serverApi } from '../../shared/api';

/** What readings of a card say, and where they come from. */
export const calibrationApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    fitHour: build.query<Calibration, CalibrationHour>({
      query: (body) => ({ url: 'calibration/fits', method: 'POST', body }),
    }),
    readNewestCard: build.mutation<CardOfFrame, { place: CardReading['place'] }>({
      query: (body) => ({ url: 'calibration/newest', method: 'POST', body }),
    }),
    readStandInWedge: build.mutation<PrintedWedge, { cardReflectance: number }>({
      query: (body) => ({ url: 'calibration/stand-in-wedge', method: 'POST', body }),
    }),
    readStandInCard: build.mutation<Pick<CardReading, 'rgb' | 'luxSeconds' | 'frame'>, StandInCard>({
      query: (body) => ({ url: 'calibration/stand-in', method: 'POST', body }),
    }),
  }),
});
