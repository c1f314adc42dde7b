import { type RefObject, useEffect, useState } from 'react';

export interface Size {
  width: number;
  height: number;
}

/** Size of an element within its padding, CSS px, kept as it changes; what it starts from until it is laid out. */
export function useSize(element: RefObject<Element | null>, first: Size): Size {
  const [size, setSize] = useState(first);
  useEffect(() => {
    const { current } = element;
    if (!current) return;
    const observer = new ResizeObserver(([entry]) => {
      if (!entry || entry.contentRect.width === 0) return;
      setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(current);
    return () => observer.disconnect();
  }, [element]);
  return size;
}
