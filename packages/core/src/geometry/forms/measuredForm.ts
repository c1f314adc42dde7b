/** What a form is measured by, m. */
export type Measure =
  | 'width'
  | 'depth'
  | 'height'
  | 'wall'
  | 'neck'
  | 'neckHeight'
  | 'fill'
  | 'thickness'
  | 'inner'
  | 'length';

/** What each measure is called where it is typed. */
export const MEASURE_WORDS: Record<Measure, string> = {
  width: 'width',
  depth: 'front to back',
  height: 'height',
  wall: 'wall',
  neck: 'neck across',
  neckHeight: 'neck height',
  fill: 'filled to',
  thickness: 'thickness',
  inner: 'inside across',
  length: 'length',
};

export type Measures = Partial<Record<Measure, number>>;

/** A usual form of products, made from a few measures. */
export interface MeasuredForm {
  id: string;
  name: string;
  /** Measures with the ones it starts from. */
  usual: Measures;
  make(m: Required<Measures>): object;
}

/** A sharp and a rounded point of an outline, m. */
export const corner = (radiusM: number, heightM: number) => ({ radiusM, heightM });
export const bend = (radiusM: number, heightM: number) => ({ radiusM, heightM, smooth: true });
