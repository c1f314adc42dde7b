import { applyChange, lightShape, productShape, sheetShape } from '@fendrix/core';
import { useMemo } from 'react';
import { setMarks, surround } from '../../../shared/theme';
import { useBench, useSet } from '../state/hooks';
import type { Plan } from './plan';

/** What a change that is only shown would add, move or resize, as dashed outlines. */
export function ProposedMarks({ plan }: { plan: Plan }) {
  const set = useSet();
  const against = useBench((bench) => bench.compare?.against ?? null);
  const change = against?.kind === 'change' ? against.change : null;
  const shapes = useMemo(() => {
    const after = change && applyChange(set, change);
    if (!after) return [];
    const isNew = <T,>(own: T, before: readonly T[]) => !before.includes(own);
    return [
      ...after.lights.filter((light) => isNew(light, set.lights)).map(lightShape),
      ...after.sheets.filter((sheet) => isNew(sheet, set.sheets)).map(sheetShape),
      ...after.products.filter((product) => isNew(product, set.products)).map(productShape),
    ];
  }, [set, change]);
  return (
    <g data-testid={`proposed-${plan.kind}`} fill="none" strokeLinejoin="round" pointerEvents="none">
      {shapes.map((shape) => {
        const d = shape.map((piece) => plan.outline(piece)).join(' ');
        return (
          <g key={d}>
            <path d={d} stroke={setMarks.dark} strokeWidth={4} />
            <path d={d} stroke={surround.accent} strokeWidth={2} strokeDasharray="5 4" />
          </g>
        );
      })}
    </g>
  );
}
