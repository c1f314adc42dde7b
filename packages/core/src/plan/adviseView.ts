import type { JobProduct, Shot } from '@fendrix/contract';

export type ViewName = Shot['view'];

/** Camera tilt of each view, degrees down from level. */
export const VIEW_TILT_DEG: Record<ViewName, number> = {
  'eye-level': 0,
  between: 25,
  'three-quarter': 45,
  'straight-down': 90,
};

export interface ViewQuestion {
  detail: JobProduct['detail'];
  shine: JobProduct['shine'];
  heightM: number;
  /** Larger of width and depth, m. */
  widthM: number;
  blurGround: boolean;
  /** Views already chosen for other pictures of the same job. */
  others: readonly ViewName[];
  /** Whether the backdrop fills the frame at each view, where that was worked out. */
  backdropFills?: Partial<Record<ViewName, boolean>>;
}

/** What speaks for a view or against it. */
export type ViewCode =
  | 'tall-parallel'
  | 'tall-narrows'
  | 'tall-only-top'
  | 'flat-in-focus'
  | 'flat-line'
  | 'ground-blurs'
  | 'table-sharp'
  | 'top-mirrors'
  | 'background-short'
  | 'detail-side'
  | 'side-some-top'
  | 'side-detail-hidden'
  | 'top-detail-hidden'
  | 'top-detail-shown'
  | 'detail-top'
  | 'side-and-top'
  | 'top-and-side'
  | 'side-hidden';

export type ViewReason = { points: number } & (
  | { code: ViewCode }
  /** Other pictures of the job that have this view. */
  | { code: 'others-use-it'; pictures: number }
);

export interface ViewAdvice {
  view: ViewName;
  score: number;
  reasons: ViewReason[];
}

/**
 * Scores the usual views of a product, best first. Points are weights of practice, not measured: where its detail is
 * counts most, then shape, then background, gloss, the series.
 */
export function adviseView(question: ViewQuestion): ViewAdvice[] {
  const views: ViewName[] = ['eye-level', 'between', 'three-quarter', 'straight-down'];
  return views.map((view) => judge(view, question)).sort((a, b) => b.score - a.score);
}

function judge(view: ViewName, question: ViewQuestion): ViewAdvice {
  const reasons: ViewAdvice['reasons'] = [];
  const say = (points: number, code: ViewCode | '') => {
    if (points !== 0 && code !== '') reasons.push({ points, code });
  };
  const { detail, shine, heightM, widthM, blurGround, others, backdropFills } = question;
  say(...DETAIL[detail][view]);
  const tall = heightM / widthM;
  if (tall > 1.5) {
    if (view === 'eye-level') say(2, 'tall-parallel');
    if (view === 'three-quarter') say(-1, 'tall-narrows');
    if (view === 'straight-down') say(-3, 'tall-only-top');
  }
  if (tall < 0.4) {
    if (view === 'straight-down') say(2, 'flat-in-focus');
    if (view === 'eye-level') say(-3, 'flat-line');
  }
  if (blurGround) {
    if (view === 'eye-level') say(2, 'ground-blurs');
    if (view === 'straight-down') say(-2, 'table-sharp');
  }
  if ((shine === 'gloss' || shine === 'mirror') && view === 'straight-down') {
    say(-1, 'top-mirrors');
  }
  const alike = others.filter((other) => other === view).length;
  if (alike > 0) reasons.push({ points: 1, code: 'others-use-it', pictures: alike });
  if (backdropFills?.[view] === false) say(-1, 'background-short');
  return { view, reasons, score: reasons.reduce((sum, { points }) => sum + points, 0) };
}

const DETAIL: Record<JobProduct['detail'], Record<ViewName, [number, ViewCode | '']>> = {
  side: {
    'eye-level': [3, 'detail-side'],
    between: [1, 'side-some-top'],
    'three-quarter': [0, ''],
    'straight-down': [-3, 'side-detail-hidden'],
  },
  top: {
    'eye-level': [-3, 'top-detail-hidden'],
    between: [0, ''],
    'three-quarter': [2, 'top-detail-shown'],
    'straight-down': [3, 'detail-top'],
  },
  both: {
    'eye-level': [0, ''],
    between: [2, 'side-and-top'],
    'three-quarter': [3, 'top-and-side'],
    'straight-down': [-1, 'side-hidden'],
  },
};
