import type { ViewCode, ViewReason } from '@fendrix/core';

/** A reason for a view or against it. */
export function viewReasonWords(reason: ViewReason): string {
  if (reason.code !== 'others-use-it') return REASONS[reason.code];
  const { pictures } = reason;
  return `${pictures} other ${pictures === 1 ? 'picture' : 'pictures'} of the job ${pictures === 1 ? 'uses' : 'use'} it`;
}

const REASONS: Record<ViewCode, string> = {
  'tall-parallel': 'it stands tall: level keeps its sides parallel',
  'tall-narrows': 'a tall thing seen from above narrows towards its foot',
  'tall-only-top': 'a tall thing from above is only its top',
  'flat-in-focus': 'it is flat: from above all of it lies in one plane of focus',
  'flat-line': 'it is flat: from the side it is a line',
  'ground-blurs': 'level looks past it to what is far behind, which blurs',
  'table-sharp': 'the tabletop lies right under it and stays sharp',
  'top-mirrors': 'a glossy top mirrors the camera and the ceiling over it',
  'background-short': 'the background does not fill the frame',
  'detail-side': 'its detail is on the side',
  'side-some-top': 'shows the side with a little of the top',
  'side-detail-hidden': 'the side, where its detail is, is not seen',
  'top-detail-hidden': 'the top, where its detail is, is not seen',
  'top-detail-shown': 'shows the top, where its detail is',
  'detail-top': 'its detail is on top',
  'side-and-top': 'shows the side and something of the top',
  'top-and-side': 'shows top and side alike',
  'side-hidden': 'the side is not seen',
};
