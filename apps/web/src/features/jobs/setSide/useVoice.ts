import SpeechRecognition, { useSpeechRecognition } from 'react-speech-recognition';

const FORWARD = ['next', 'done', 'taken'];

/** Going on and back by voice; null where the browser hears nothing. Off until it is asked for. */
export function useVoice(forward: () => void, back: () => void): { listens: boolean; toggle(): void } | null {
  const { browserSupportsSpeechRecognition, listening } = useSpeechRecognition({
    commands: [
      { command: FORWARD, callback: forward },
      { command: 'back', callback: back },
    ],
  });
  const toggle = () =>
    void (listening
      ? SpeechRecognition.stopListening()
      : SpeechRecognition.startListening({ continuous: true, language: 'en' }));
  return browserSupportsSpeechRecognition ? { listens: listening, toggle } : null;
}
