import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';

/** A label and what belongs to it; by plain classes of the theme, as many of them follow a drag. */
export function Row({
  label,
  hint,
  htmlFor,
  children,
}: {
  label: ReactNode;
  /** What it means, where that is not plain. */
  hint?: string | undefined;
  /** The field that it names. */
  htmlFor?: string;
  children: ReactNode;
}) {
  const words = htmlFor ? (
    <label htmlFor={htmlFor} className="row-label">
      {label}
    </label>
  ) : (
    <span className="row-label">{label}</span>
  );
  return (
    <div className="row">
      {hint ? (
        <Tooltip describeChild title={hint} placement="left">
          {words}
        </Tooltip>
      ) : (
        words
      )}
      {children}
    </div>
  );
}
