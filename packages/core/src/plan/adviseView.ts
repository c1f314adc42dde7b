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

export interface ViewAdvice {
  view: ViewName;
  score: number;
  reasons: { points: number; text: string }[];
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
  const say = (points: number, text: string) => {
    if (points !== 0) reasons.push({ points, text });
  };
  const { detail, shine, heightM, widthM, blurGround, others, backdropFills } = question;
  say(...DETAIL[detail][view]);
  const tall = heightM / widthM;
  if (tall > 1.5) {
    if (view === 'eye-level') say(2, 'it stands tall: level keeps its sides parallel');
    if (view === 'three-quarter') say(-1, 'a tall thing seen from above narrows towards its foot');
    if (view === 'straight-down') say(-3, 'a tall thing from above is only its top');
  }
  if (tall < 0.4) {
    if (view === 'straight-down') say(2, 'it is flat: from above all of it lies in one plane of focus');
    if (view === 'eye-level') say(-3, 'it is flat: from the side it is a line');
  }
  if (blurGround) {
    if (view === 'eye-level') say(2, 'level looks past it to what is far behind, which blurs');
    if (view === 'straight-down') say(-2, 'the tabletop lies right under it and stays sharp');
  }
  if ((shine === 'gloss' || shine === 'mirror') && view === 'straight-down') {
    say(-1, 'a glossy top mirrors the camera and the ceiling over it');
  }
  const alike = others.filter((other) => other === view).length;
  if (alike > 0) say(1, `${alike} other ${alike === 1 ? 'picture' : 'pictures'} of the job use it`);
  if (backdropFills?.[view] === false) say(-1, 'the background does not fill the frame');
  return { view, reasons, score: reasons.reduce((sum, { points }) => sum + points, 0) };
}

const DETAIL: Record<JobProduct['detail'], Record<ViewName, [number, string]>> = {
  side: {
    'eye-level': [3, 'its detail is on the side'],
    between: [1, 'shows the side with a little of the top'],
    'three-quarter': [0, ''],
    'straight-down': [-3, 'the side, where its detail is, is not seen'],
  },
  top: {
    'eye-level': [-3, 'the top, where its detail is, is not seen'],
    between: [0, ''],
    'three-quarter': [2, 'shows the top, where its detail is'],
    'straight-down': [3, 'its detail is on top'],
  },
  both: {
    'eye-level': [0, ''],
    between: [2, 'shows the side and something of the top'],
    'three-quarter': [3, 'shows top and side alike'],
    'straight-down': [-1, 'the side is not seen'],
  },
};
