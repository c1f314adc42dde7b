/** Lowest power on a slider of a light whose dial is not known, stops. */
export const LOWEST_ON_SLIDER = -8;
