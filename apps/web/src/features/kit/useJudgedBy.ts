import { type JudgedBy, judgedBy, USUAL } from '@fendrix/core';
import { useMemo } from 'react';
import { kitApi } from './api';

/** What the studio judges by: its own limits and its kit; the usual ones until the kit is read. */
export function useJudgedBy(): JudgedBy {
  const { data } = kitApi.useReadKitQuery();
  const kit = data?.document;
  return useMemo(() => (kit ? judgedBy(kit) : USUAL), [kit]);
}
