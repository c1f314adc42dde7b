import type { MirrorBand } from '@fendrix/core';
import { useSnackbar } from 'notistack';
import { createContext, useContext, useEffect, useState } from 'react';
import { useDispatch, useStore } from 'react-redux';
import { holdSmallPictures } from '../../../shared/render/smallRender';
import { FigureStore } from '../figures/figureStore';
import type { FigureValues } from '../figures/liveFigures';
import { selectPlatesShown, selectShown } from '../figures/selectShown';
import { benchActions, type WithBench } from '../state/benchSlice';
import { selectLit } from '../state/hooks';
import { RemoteSession } from './remoteSession';

export const SessionContext = createContext<RemoteSession | null>(null);

/** The session of the open set; null until it has been started. */
export const useSession = (): RemoteSession | null => useContext(SessionContext);

const NO_BANDS: readonly MirrorBand[] = [];

/** Starts a session for as long as the bench is open and keeps it in step with the store. */
export function useOwnSession(): { session: RemoteSession | null; figures: FigureStore } {
  const store = useStore<WithBench>();
  const dispatch = useDispatch();
  const { enqueueSnackbar } = useSnackbar();
  const [session, setSession] = useState<RemoteSession | null>(null);
  const [figures] = useState(() => new FigureStore());

  useEffect(() => {
    const own = new RemoteSession({
      picture: (picture) => figures.set('picture', picture),
      figure: (name, value) => {
        // What is pointed at is a choice of the user's, and small.
        if (name === 'pick') dispatch(benchActions.pickRead(value as FigureValues['pick']));
        else figures.set(name, value);
      },
      status: (changes) => {
        if (changes.phase === 'following') figures.unsettle();
        dispatch(benchActions.pictureChanged(changes));
      },
      failure(reason) {
        dispatch(benchActions.pictureChanged({ awaited: false }));
        enqueueSnackbar(`There is no picture: ${reason}.`, {
          variant: 'error',
          preventDuplicate: true,
          key: reason,
        });
      },
      crash: (reason) =>
        enqueueSnackbar(`A picture worker stopped (${reason}). It is started again.`, { variant: 'warning' }),
    });
    setSession(own);
    let seen: unknown = null;
    let shown: unknown = null;
    let plates: unknown = null;
    const keepUp = () => {
      const state = store.getState();
      const set = selectLit(state);
      if (set && set !== seen) {
        seen = set;
        own.update(set);
      }
      own.lookAt(state.bench.window);
      // Those of a comparison are what is looked at.
      holdSmallPictures(state.bench.picture.awaited && state.bench.compare === null);
      const laid = selectPlatesShown(state);
      if (laid !== plates) {
        plates = laid;
        own.showPlates(laid);
      }
      const now = selectShown(state, figures.get('bands') ?? NO_BANDS);
      if (now === shown) return;
      shown = now;
      own.show(now);
    };
    keepUp();
    const leave = [store.subscribe(keepUp), figures.subscribe('bands', keepUp)];
    return () => {
      for (const one of leave) one();
      own.close();
      holdSmallPictures(false);
    };
  }, [store, dispatch, enqueueSnackbar, figures]);

  return { session, figures };
}
