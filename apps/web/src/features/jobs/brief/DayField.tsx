import IconButton from '@mui/material/IconButton';
import SvgIcon from '@mui/material/SvgIcon';
import { useId, useRef } from 'react';
import { Refusal } from '../../../shared/Refusal';
import { Row } from '../../../shared/Row';
import { useTyped } from '../../../shared/useTyped';
import { dayWords, parseDay } from '../days';

/** A day, typed as it is said or taken from the calendar; emptied, there is none. */
export function DayField({
  label,
  value,
  onCommit,
}: {
  label: string;
  value: string | undefined;
  onCommit(day: string | null): void;
}) {
  const shown = value ? dayWords(value) : '';
  const { input, wrong } = useTyped(shown, parseDay, onCommit, '11 Dec, 2026-12-11 or in 10 days', () =>
    onCommit(null),
  );
  const calendar = useRef<HTMLInputElement>(null);
  const id = useId();
  return (
    <>
      <Row label={label} htmlFor={id}>
        <input id={id} className="number" {...input} aria-describedby={wrong ? `${id}-wrong` : undefined} />
        <span style={{ position: 'relative', marginLeft: 4 }}>
          <IconButton
            size="small"
            aria-label={`Calendar for ${label}`}
            onClick={() => calendar.current?.showPicker()}
          >
            <SvgIcon sx={{ fontSize: 16 }}>
              <path
                d="M4 5h16v15H4zM4 10h16M8 3v4M16 3v4"
                fill="none"
                stroke="currentColor"
                strokeWidth="2"
              />
            </SvgIcon>
          </IconButton>
          {/* The browser's own calendar opens here; what is shown and typed is in the field beside it. */}
          <input
            ref={calendar}
            type="date"
            tabIndex={-1}
            aria-hidden
            value={value ?? ''}
            onChange={({ target }) => onCommit(target.value || null)}
            style={{ position: 'absolute', inset: 0, opacity: 0, pointerEvents: 'none', width: '100%' }}
          />
        </span>
      </Row>
      <Refusal id={`${id}-wrong`} words={wrong} />
    </>
  );
}
