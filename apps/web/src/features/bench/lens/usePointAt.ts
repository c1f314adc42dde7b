import { useStore } from 'react-redux';
import type { RemoteSession } from '../picture/remoteSession';
import { benchActions, type WithBench } from '../state/benchSlice';
import { pinSpot } from '../state/edits';
import { useBench, useBenchDispatch } from '../state/hooks';
import { isSurrounding } from '../state/surroundings';
import { tellFailure } from '../state/tellFailure';
import { edit } from '../state/thunks';
import { askPresent } from '../state/useAnswer';

/** Points at a place of the frame: its light is read, and it is pinned or its thing is selected. */
export function usePointAt(session: RemoteSession | null) {
  const dispatch = useBenchDispatch();
  const pinning = useBench((bench) => bench.pinning);
  const store = useStore<WithBench>();
  return async (across: number, down: number) => {
    const found = await askPresent(store, () => session?.ask({ kind: 'pick', across, down }) ?? null).catch(
      (error: unknown) => {
        tellFailure('The light of this spot', error);
        return null;
      },
    );
    if (!found) return;
    dispatch(benchActions.picked({ pick: found, at: [across, down] }));
    const { kind, key } = found.thing;
    if (pinning) {
      const { pointM, normal } = found;
      dispatch(
        edit((set) =>
          pinSpot({ name: freeSpotName(set.spots.map(({ name }) => name)), pointM, normal })(set),
        ),
      );
      dispatch(benchActions.pinningChanged(false));
    } else if (kind === 'camera' || isSurrounding(kind)) dispatch(benchActions.selected({ kind, key: '' }));
    else if (kind !== 'stand') dispatch(benchActions.selected({ kind, key }));
  };
}

function freeSpotName(taken: readonly string[]): string {
  for (let i = 1; ; i++) if (!taken.includes(`spot ${i}`)) return `spot ${i}`;
}
