import { useEffect } from 'react';

const FORWARD = new Set(['ArrowRight', 'PageDown']);
const BACK = new Set(['ArrowLeft', 'PageUp']);

/** Arrows go on and back, and so do foot switches and remotes, which press the page keys. */
export function useKeys(forward: () => void, back: () => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const go = FORWARD.has(event.key) ? forward : BACK.has(event.key) ? back : null;
      if (!go || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      go();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
