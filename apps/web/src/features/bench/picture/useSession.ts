import { useSnackbar } from 'notistack';
import { createContext, useContext, useEffect, useMemo, useState } from 'react';
import { useDispatch, useStore } from 'react-redux';
import { benchActions, type WithBench } from '../state/benchSlice';
import { selectLit } from '../state/hooks';
import { selectWants } from '../state/wants';
import type { FromDeveloper } from './developProtocol';
import type { DepthOverlay, MirrorOverlay } from './figures';
import { RemoteSession } from './remoteSession';

/** The session of the open set, with the newest picture and overlay, which live outside of the store. */
export interface SessionView {
  session: RemoteSession | null;
  picture: FromDeveloper | null;
  mirrors: MirrorOverlay | null;
  depth: DepthOverlay | null;
}

export const SessionContext = createContext<SessionView>({
  session: null,
  picture: null,
  mirrors: null,
  depth: null,
});

export const useSession = (): SessionView => useContext(SessionContext);

/** Starts a session for as long as the bench is open and keeps it in step with the store. */
export function useOwnSession(): SessionView {
  const store = useStore<WithBench>();
  const dispatch = useDispatch();
  const { enqueueSnackbar } = useSnackbar();
  const [session, setSession] = useState<RemoteSession | null>(null);
  const [picture, setPicture] = useState<FromDeveloper | null>(null);
  const [mirrors, setMirrors] = useState<MirrorOverlay | null>(null);
  const [depth, setDepth] = useState<DepthOverlay | null>(null);

  useEffect(() => {
    const own = new RemoteSession({
      picture: setPicture,
      pick: (pick) => dispatch(benchActions.pickRead(pick)),
      mirrors: setMirrors,
      depth: setDepth,
      profile: (profile) => dispatch(benchActions.profileRead(profile)),
      zones: (zones) => dispatch(benchActions.zonesFound(zones)),
      status: (changes) => {
        dispatch(benchActions.pictureChanged(changes));
      },
      bands: (bands) => dispatch(benchActions.bandsRead(bands)),
      spots: (traces, settled) => dispatch(benchActions.spotsTraced({ traces, settled })),
      failure: (reason) =>
        enqueueSnackbar(`There is no picture: ${reason}.`, {
          variant: 'error',
          preventDuplicate: true,
          key: reason,
        }),
      crash: (reason) =>
        enqueueSnackbar(`A picture worker stopped (${reason}). It is started again.`, { variant: 'warning' }),
    });
    setSession(own);
    let seen: unknown = null;
    let wanted: unknown = null;
    const keepUp = () => {
      const state = store.getState();
      const set = selectLit(state);
      if (set && set !== seen) {
        seen = set;
        own.update(set);
      }
      own.lookAt(state.bench.window);
      const wants = selectWants(state);
      if (wants === wanted) return;
      wanted = wants;
      own.want(wants);
    };
    keepUp();
    const unsubscribe = store.subscribe(keepUp);
    return () => {
      unsubscribe();
      own.close();
    };
  }, [store, dispatch, enqueueSnackbar]);

  return useMemo(() => ({ session, picture, mirrors, depth }), [session, picture, mirrors, depth]);
}
