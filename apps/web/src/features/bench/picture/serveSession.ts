import { messageOf } from '@fendrix/workers';
import type { PictureSession, SessionEvents } from './session';
import type { FromSession, SessionEvent, ToSession } from './sessionProtocol';

type Post = (message: FromSession, transfer: ArrayBuffer[]) => void;

/**
 * The worker's side of a picture session.
 * @param post arrays in `transfer` are given away, not copied
 * @returns what takes the messages of the page
 */
export function serveSession(
  post: Post,
  open: (events: SessionEvents) => PictureSession,
): (message: ToSession) => void {
  const session = open(eventsInto(post));
  const asked = new Map<number, AbortController>();
  return (message) => {
    switch (message.type) {
      case 'update':
        session.update(message.set);
        break;
      case 'resize':
        session.resize(message.width);
        break;
      case 'lookAt':
        session.lookAt(message.window);
        break;
      case 'show':
        session.show(message.shown);
        break;
      case 'showPlates':
        session.showPlates(message.shown);
        break;
      case 'ask': {
        const { id, task, set } = message;
        const controller = new AbortController();
        asked.set(id, controller);
        session
          .ask(task, set, controller.signal)
          .then(
            (result) => post({ type: 'answer', id, result }, []),
            (error) => post({ type: 'refused', id, reason: messageOf(error) }, []),
          )
          .finally(() => asked.delete(id));
        break;
      }
      case 'askNoLonger':
        asked.get(message.id)?.abort(new Error('asked no longer'));
        break;
      case 'file':
        session.sendFile(message.format, message.port);
        break;
      case 'plateFiles':
        session.sendPlateFiles(message.list, message.port);
        break;
      case 'ping':
        post({ type: 'pong' }, []);
    }
  };
}

function eventsInto(post: Post): SessionEvents {
  const tell =
    <Name extends keyof SessionEvents>(name: Name) =>
    (...values: Parameters<SessionEvents[Name]>) =>
      post({ type: 'event', name, values } as SessionEvent, []);
  return {
    picture: (picture) => {
      const { pixels, tones, mask } = picture;
      const arrays = [pixels, tones?.pixels, mask].filter((array) => !!array);
      const transfer = arrays.map(({ buffer }) => buffer);
      post({ type: 'event', name: 'picture', values: [picture] }, transfer);
    },
    figure: tell('figure'),
    status: tell('status'),
    crash: tell('crash'),
    failure: tell('failure'),
  };
}
