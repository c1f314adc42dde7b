import { type JudgedBy, limitsWith } from '@fendrix/core';
import { useMemo } from 'react';
import { kitApi } from './api';

/** What the studio judges by: its own limits and its kit; the usual ones until the kit is read. */
export function useJudgedBy(): JudgedBy {
  const { data } = kitApi.useReadKitQuery();
  const kit = data?.document;
  return useMemo(() => {
    if (!kit) return { limits: limitsWith({}), kit: null };
    // Products and materials of the kit are large, and no judge asks for them.
    const entries = kit.entries.filter(({ what }) => what === 'light' || what === 'sheet');
    return { limits: limitsWith(kit.verdicts), kit: { entries, studio: kit.studio, printer: kit.printer } };
  }, [kit]);
}
