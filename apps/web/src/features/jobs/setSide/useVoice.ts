import { useEffect, useRef, useState } from 'react';

/** As far as it is used; browsers that have it call it by either name. */
interface Recognition extends EventTarget {
  continuous: boolean;
  lang: string;
  start(): void;
  abort(): void;
}

const FORWARD = /\b(next|done|taken)\b/i;
const BACK = /\bback\b/i;

/** Going on and back by voice; null where the browser hears nothing. Off until it is asked for. */
export function useVoice(forward: () => void, back: () => void): { listens: boolean; toggle(): void } | null {
  const [listens, setListens] = useState(false);
  const go = useRef({ forward, back });
  go.current = { forward, back };
  const Hears = recognition();
  useEffect(() => {
    if (!listens || !Hears) return;
    const ear = new Hears();
    ear.continuous = true;
    ear.lang = 'en';
    ear.addEventListener('result', (event) => {
      const { results } = event as Event & { results: ArrayLike<ArrayLike<{ transcript: string }>> };
      const heard = results[results.length - 1]?.[0]?.transcript ?? '';
      if (FORWARD.test(heard)) go.current.forward();
      else if (BACK.test(heard)) go.current.back();
    });
    // Refused, or nothing was said for a while.
    ear.addEventListener('end', () => setListens(false));
    ear.start();
    return () => ear.abort();
  }, [listens, Hears]);
  return Hears ? { listens, toggle: () => setListens(!listens) } : null;
}

function recognition(): (new () => Recognition) | null {
  const here = window as { SpeechRecognition?: unknown; webkitSpeechRecognition?: unknown };
  return (
    ((here.SpeechRecognition ?? here.webkitSpeechRecognition) as (new () => Recognition) | undefined) ?? null
  );
}
