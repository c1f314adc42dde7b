import type { RemoteSession } from '../picture/remoteSession';
import { benchActions } from '../state/benchSlice';
import { pinSpot } from '../state/edits';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';

/** Points at a place of the frame: its light is read, and it is pinned or its thing is selected. */
export function usePointAt(session: RemoteSession | null) {
  const dispatch = useBenchDispatch();
  const pinning = useBench((bench) => bench.pinning);
  const spots = useSetPart((set) => set.spots);
  return async (across: number, down: number) => {
    const found = await session?.ask({ kind: 'pick', across, down });
    if (!found) return;
    dispatch(benchActions.picked({ pick: found, at: [across, down] }));
    const { kind, key } = found.thing;
    if (pinning) {
      const { pointM, normal } = found;
      dispatch(edit(pinSpot({ name: freeSpotName(spots.map(({ name }) => name)), pointM, normal })));
      dispatch(benchActions.pinningChanged(false));
    } else if (kind === 'light' || kind === 'sheet' || kind === 'product' || kind === 'person') {
      dispatch(benchActions.selected({ kind, key }));
    } else if (kind === 'camera') dispatch(benchActions.selected({ kind, key: '' }));
  };
}

function freeSpotName(taken: readonly string[]): string {
  for (let i = 1; ; i++) if (!taken.includes(`spot ${i}`)) return `spot ${i}`;
}
