import { benchActions } from '../state/benchSlice';
import { useBench, useBenchDispatch } from '../state/hooks';

/**
 * Something typed or chosen on a desk, that stays while another desk is open.
 * @param name one of its own among all desks
 */
export function useDeskFigure<T>(name: string, initial: T): [T, (figure: T) => void] {
  const kept = useBench(({ deskFigures }) => deskFigures[name]) as T | undefined;
  const dispatch = useBenchDispatch();
  return [
    kept === undefined ? initial : kept,
    (figure) => dispatch(benchActions.deskFigureSet({ name, figure })),
  ];
}
