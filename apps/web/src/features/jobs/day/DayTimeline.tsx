import { clockOf, type DayTime, type JobDay, timesOf } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { isLocked, movedAlong, ticksOf } from './timeline';

/** A press that moves less than this is no drag, px. */
const STILL_PX = 4;
const LANE_PX = 44;
/** The band is longer than the day by this: an order that is tried may last longer. */
const SPARE = 1.06;

interface Drag {
  picture: number;
  fromX: number;
  /** Minutes it is away from where it was taken up. */
  byMin: number;
  order: number[];
}

/**
 * The day as a band with its clock: pictures with what is set up before each. A picture is dragged to where it is to come, or
 * moved by the arrow keys; locked, it keeps its time. Below it, thin, the best order.
 * @param start of the day, minutes from midnight  @param best order, where the shown one is another
 */
export function DayTimeline({
  day,
  times,
  start,
  best,
  onOrder,
  onLock,
}: {
  day: JobDay;
  times: readonly DayTime[];
  start: number;
  best: readonly number[] | null;
  onOrder(order: readonly number[]): void;
  /** Locks a picture to its time, or lets it go. */
  onLock(picture: number, time: DayTime | null): void;
}) {
  const band = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const order = times.map(({ picture }) => picture);
  const bestTimes = best ? timesOf(day.plan, best) : [];
  const { pause } = day.plan;
  const ends = SPARE * Math.max(...[...times, ...bestTimes].map(({ endsAt }) => endsAt), 1);
  const part = (minutes: number) => `${(100 * minutes) / ends}%`;
  const shown = drag ? timesOf(day.plan, drag.order) : times;
  const chosenTime = times.find(({ picture }) => picture === chosen);

  const dragged = (picture: number, from: number, { clientX }: PointerEvent): Drag => {
    const width = band.current?.clientWidth ?? 1;
    const byMin = ((clientX - from) / width) * ends;
    return { picture, fromX: from, byMin, order: movedAlong(times, picture, byMin) };
  };
  const drop = () => {
    if (drag && drag.order.join() !== order.join()) onOrder(drag.order);
    setDrag(null);
  };
  const step = (picture: number, by: 1 | -1) => {
    const at = order.indexOf(picture);
    const next = order.filter((own) => own !== picture);
    next.splice(Math.max(0, at + by), 0, picture);
    onOrder(next);
  };
  const lock = (picture: number) => {
    const time = times.find((own) => own.picture === picture) ?? null;
    const shot = day.shots[picture];
    onLock(picture, shot && time && isLocked(shot, time, start) ? null : time);
  };
  const press = (picture: number) => (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'Escape') setDrag(null);
    else if (event.key === 'ArrowLeft') step(picture, -1);
    else if (event.key === 'ArrowRight') step(picture, 1);
    else if (event.key.toLowerCase() === 'l') lock(picture);
    else return;
    event.preventDefault();
  };

  return (
    <Box sx={{ mb: 2, '@media print': { display: 'none' } }} data-testid="timeline">
      <Box sx={{ position: 'relative', height: 18, fontSize: '0.6875rem', color: 'text.secondary' }}>
        {ticksOf(start, ends).map((tick) => (
          <Box key={tick} className="number" sx={{ position: 'absolute', left: part(tick - start) }}>
            {clockOf(tick)}
          </Box>
        ))}
      </Box>
      <Box
        ref={band}
        sx={{ position: 'relative', height: LANE_PX, bgcolor: 'action.hover', overflowX: 'clip' }}
      >
        {ticksOf(start, ends).map((tick) => (
          <Box
            key={tick}
            sx={{
              position: 'absolute',
              left: part(tick - start),
              top: 0,
              bottom: 0,
              borderLeft: 1,
              borderColor: 'divider',
            }}
          />
        ))}
        {pause && pause.from < ends && (
          <Box
            sx={{
              position: 'absolute',
              left: part(Math.max(0, pause.from)),
              width: part(pause.minutes),
              top: 0,
              bottom: 0,
              display: 'grid',
              placeItems: 'center',
              fontSize: '0.6875rem',
              color: 'text.secondary',
            }}
          >
            lunch
          </Box>
        )}
        {/* In the order before the drag: a block that changed its place in the page would lose the pointer. */}
        {times.map((before) => {
          const { picture } = before;
          const shot = day.shots[picture];
          const time = shown.find((own) => own.picture === picture);
          if (!shot || !time) return null;
          const { changeFrom, startsAt, endsAt } = time;
          const own = drag?.picture === picture ? drag : null;
          const at = own ? before.startsAt + own.byMin : startsAt;
          const locked = isLocked(shot, time, start);
          const clock = `${clockOf(start + startsAt)} to ${clockOf(start + endsAt)}`;
          return (
            <div key={shot.id}>
              {!own && startsAt > changeFrom && (
                <Box
                  title={`Set up before “${shot.name}”`}
                  sx={{
                    position: 'absolute',
                    left: part(changeFrom),
                    width: part(startsAt - changeFrom),
                    top: LANE_PX / 2 - 2,
                    height: 4,
                    bgcolor: 'text.disabled',
                  }}
                />
              )}
              <Button
                variant={chosen === picture ? 'contained' : 'outlined'}
                color={time.late > 0 ? 'error' : 'primary'}
                aria-label={`${shot.name}, ${clock}${locked ? ', locked' : ''}: arrow keys move it, L locks it`}
                title={`${shot.name}, ${clock}`}
                onKeyDown={press(picture)}
                onPointerDown={(event) => {
                  event.currentTarget.setPointerCapture(event.pointerId);
                  setDrag(dragged(picture, event.clientX, event));
                }}
                onPointerMove={(event) => drag && setDrag(dragged(picture, drag.fromX, event))}
                onPointerUp={({ clientX }) => {
                  if (drag && Math.abs(clientX - drag.fromX) < STILL_PX)
                    setChosen(chosen === picture ? null : picture);
                  drop();
                }}
                onPointerCancel={() => setDrag(null)}
                sx={{
                  position: 'absolute',
                  left: part(at),
                  width: part(endsAt - startsAt),
                  top: 3,
                  height: LANE_PX - 6,
                  minWidth: 0,
                  px: 0.5,
                  justifyContent: 'start',
                  whiteSpace: 'nowrap',
                  overflow: 'hidden',
                  fontSize: '0.75rem',
                  touchAction: 'none',
                  cursor: own ? 'grabbing' : 'grab',
                  zIndex: own ? 2 : 1,
                  bgcolor: chosen === picture ? undefined : 'background.paper',
                  borderStyle: locked ? 'double' : 'solid',
                  borderWidth: locked ? 3 : 1,
                  transition: drag ? 'none' : 'left 120ms',
                }}
              >
                {own ? clockOf(start + startsAt) : shot.name}
              </Button>
            </div>
          );
        })}
      </Box>
      {bestTimes.length > 0 && (
        <Box
          role="img"
          aria-label={`Best order: ${bestTimes.map(({ picture }) => day.shots[picture]?.name).join(', ')}`}
          sx={{ position: 'relative', height: 16, mt: 0.5, fontSize: '0.6875rem', color: 'text.secondary' }}
        >
          {bestTimes.map(({ picture, startsAt, endsAt }) => (
            <Box
              key={picture}
              sx={{
                position: 'absolute',
                left: part(startsAt),
                width: part(endsAt - startsAt),
                borderTop: 2,
                overflow: 'hidden',
                whiteSpace: 'nowrap',
              }}
            >
              best: {day.shots[picture]?.name}
            </Box>
          ))}
        </Box>
      )}
      {chosenTime && (
        <Chosen day={day} time={chosenTime} start={start} onLock={() => lock(chosenTime.picture)} />
      )}
    </Box>
  );
}

function Chosen({ day, time, start, onLock }: { day: JobDay; time: DayTime; start: number; onLock(): void }) {
  const shot = day.shots[time.picture];
  if (!shot) return null;
  return (
    <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 0.75 }}>
      <strong>{shot.name}</strong>
      <span className="number">
        {clockOf(start + time.startsAt)}–{clockOf(start + time.endsAt)}
      </span>
      <Button size="small" onClick={onLock}>
        {isLocked(shot, time, start) ? 'Let it go' : 'Lock it to this time'}
      </Button>
    </Box>
  );
}
