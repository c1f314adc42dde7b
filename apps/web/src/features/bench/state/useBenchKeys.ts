import { useHotkeys } from 'react-hotkeys-hook';
import type { PictureSession } from '../picture/session';
import { benchActions } from './benchSlice';
import { removeThing } from './edits';
import { useBench, useBenchDispatch } from './hooks';
import { edit } from './thunks';

/** Keys of the bench; not while something is typed. */
export function useBenchKeys(session: PictureSession | null): void {
  const dispatch = useBenchDispatch();
  const showMirrors = useBench((bench) => bench.showMirrors);
  const pinning = useBench((bench) => bench.pinning);
  const selected = useBench((bench) => bench.selected);
  useHotkeys('m', () => {
    dispatch(benchActions.mirrorsToggled());
    session?.showMirrors(!showMirrors);
  });
  useHotkeys('p', () => void dispatch(benchActions.pinningChanged(!pinning)));
  useHotkeys('escape', () => {
    dispatch(benchActions.pinningChanged(false));
    dispatch(benchActions.picked(null));
  });
  useHotkeys('delete', () => {
    if (!selected || selected.kind === 'camera') return;
    dispatch(edit(removeThing(selected)));
    dispatch(benchActions.selected(null));
  });
}
