import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';

/** A label and what belongs to it; by plain classes of the theme, as many of them follow a drag. */
export function Row({
  label,
  hint,
  htmlFor,
  labelId,
  children,
}: {
  label: ReactNode;
  /** What it means, where that is not plain. */
  hint?: string | undefined;
  /** The field that it names. */
  htmlFor?: string;
  /** Id of the label, for what is named by it and by more. */
  labelId?: string;
  children: ReactNode;
}) {
  const words = htmlFor ? (
    <label htmlFor={htmlFor} className="row-label">
      {label}
    </label>
  ) : (
    <span className="row-label" id={labelId}>
      {label}
    </span>
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
