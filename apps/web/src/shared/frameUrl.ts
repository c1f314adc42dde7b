/** Where the picture of a frame is read from. */
export const frameUrl = (id: string, size: 'small' | 'large'): string => `/api/frames/${id}/${size}`;
