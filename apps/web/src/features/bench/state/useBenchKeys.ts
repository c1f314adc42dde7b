import { useHotkeys } from 'react-hotkeys-hook';
import { WHOLE_FRAME, zoomedAt } from '../picture/frameWindow';
import { benchActions, type Overlay } from './benchSlice';
import { changeLight, removeThing } from './edits';
import { useBench, useBenchDispatch, useSetPart } from './hooks';
import { freeTake, keepTake } from './takes';
import { edit } from './thunks';

/** Each overlay has its key. */
export const OVERLAY_KEYS: readonly { key: string; overlay: Exclude<Overlay, 'none'>; word: string }[] = [
  { key: 'M', overlay: 'mirrors', word: 'mirrors' },
  { key: 'T', overlay: 'through', word: 'through' },
  { key: 'S', overlay: 'stops', word: 'stops' },
  { key: 'X', overlay: 'clipping', word: 'clipping' },
  { key: 'F', overlay: 'focus', word: 'focus' },
];

/** Where the list of verdicts is. */
export const VERDICTS_ID = 'verdicts';

/** Keys of the bench; not while something is typed. */
export function useBenchKeys(): void {
  const dispatch = useBenchDispatch();
  const pinning = useBench((bench) => bench.pinning);
  const marking = useBench((bench) => bench.marking);
  const selected = useBench((bench) => bench.selected);
  const alone = useBench((bench) => bench.alone);
  const picked = useBench((bench) => bench.pick !== null);
  const window = useBench((bench) => bench.window);
  const zones = useBench((bench) => bench.zones);
  const compare = useBench((bench) => bench.compare);
  const cards = useBench((bench) => bench.cards);
  const plates = useBench((bench) => bench.plates);
  const takes = useSetPart((set) => set.takes);
  const mostZoom = useMostZoom();
  useHotkeys(
    OVERLAY_KEYS.map(({ key }) => key.toLowerCase()),
    (_event, { keys }) => {
      const found = OVERLAY_KEYS.find(({ key }) => key.toLowerCase() === keys?.join());
      if (found) dispatch(benchActions.overlayToggled(found.overlay));
    },
  );
  useHotkeys('c', () => void dispatch(benchActions.cropsToggled()));
  useHotkeys('w', () => void dispatch(benchActions.wholePathsToggled()));
  useHotkeys('p', () => void dispatch(benchActions.pinningChanged(!pinning)));
  useHotkeys('e', () => void dispatch(benchActions.markingChanged(!marking)));
  useHotkeys('z', () => void dispatch(benchActions.zonesChosen(zones === 'off' ? 'product' : 'off')));
  useHotkeys('o', () => {
    if (alone) dispatch(benchActions.aloneToggled(alone));
    else if (selected?.kind === 'light') dispatch(benchActions.aloneToggled(selected.key));
  });
  useHotkeys('u', () => {
    if (selected?.kind !== 'light') return;
    dispatch(edit(changeLight(selected.key, (light) => ({ ...light, on: !light.on }))));
  });
  useHotkeys('v', () => {
    dispatch(benchActions.verdictChosen(null));
    // The list is there once nothing is selected.
    setTimeout(() => document.getElementById(VERDICTS_ID)?.querySelector('button')?.focus());
  });
  useHotkeys('b', () => void dispatch(benchActions.cardsOpened({})));
  useHotkeys('l', () => void dispatch(benchActions.platesChanged({ shown: !plates.shown })));
  useHotkeys('k', () => void dispatch(edit(keepTake(freeTake(takes)))));
  const zoom = (factor: number) => {
    const middle: [number, number] = [window.left + 0.5 / window.zoom, window.top + 0.5 / window.zoom];
    dispatch(benchActions.windowChanged(zoomedAt(window, factor, middle, mostZoom)));
  };
  // By what the key writes: plus and minus lie elsewhere on other keyboards.
  useHotkeys('*', ({ key, ctrlKey, metaKey }) => {
    if (ctrlKey || metaKey) return;
    if (key === '+') zoom(2);
    else if (key === '-') zoom(0.5);
    else if (key === '0') dispatch(benchActions.windowChanged(WHOLE_FRAME));
  });
  // First what was begun is left, then what is selected; from a switch or a list as well, while fields keep it to themselves.
  useHotkeys(
    'escape',
    () => {
      if (plates.pointing) dispatch(benchActions.platesChanged({ pointing: null }));
      else if (cards?.pointing) dispatch(benchActions.cardsChanged({ pointing: null }));
      else if (cards && !compare) dispatch(benchActions.cardsClosed());
      else if (!(pinning || marking || picked || compare)) dispatch(benchActions.selected(null));
      dispatch(benchActions.pinningChanged(false));
      dispatch(benchActions.markingChanged(false));
      dispatch(benchActions.picked(null));
      if (compare) dispatch(benchActions.compared(null));
    },
    { enableOnFormTags: ['input', 'select'] },
  );
  useHotkeys('delete', () => {
    if (!selected || selected.kind === 'camera') return;
    dispatch(edit(removeThing(selected)));
    dispatch(benchActions.selected(null));
  });
}

/** Zoom at which a pixel of the sensor is a pixel of the screen. */
export function useMostZoom(): number {
  const pixelsWide = useSetPart((set) => set.camera.body.pixelsWide);
  const shownPx = useBench((bench) => bench.lensWidthPx);
  return Math.max(1, pixelsWide / Math.max(160, shownPx));
}
