/** The camera of this device for as long as something shows it. */
import { useEffect, useState } from 'react';

import { say } from '../words/say';

const WORDS: Readonly<Record<string, string>> = say.sight.words;
const UNPLUGGED = say.sight.theCameraWentAwayPlug;

export interface Camera {
  stream: MediaStream | null;
  /** What is wrong, in words. */
  trouble: string | null;
}

export function useCamera(facing: 'environment' | 'user'): Camera {
  const [state, setState] = useState<Camera>({ stream: null, trouble: null });
  useEffect(() => {
    let [gone, own]: [boolean, MediaStream | null] = [false, null];
    const stop = (stream: MediaStream | null): void => stream?.getTracks().forEach((track) => track.stop());
    const open = async (): Promise<void> => {
      // Only a page that came over a safe connection is given one.
      const media = navigator.mediaDevices as MediaDevices | undefined;
      if (!media) throw new DOMException('', 'InsecureError');
      const stream = await media.getUserMedia({ audio: false, video: { facingMode: facing, height: { ideal: 720 } } });
      if (gone) return stop(stream);
      own = stream;
      stream.getVideoTracks()[0]?.addEventListener('ended', () => setState({ stream: null, trouble: UNPLUGGED }));
      setState({ stream, trouble: null });
    };
    open().catch((error: unknown) => {
      if (gone) return;
      const name = error instanceof DOMException ? error.name : '';
      const trouble = WORDS[name] ?? say.sight.theBrowserGivesNoCamera;
      setState({ stream: null, trouble });
    });
    return () => {
      gone = true;
      stop(own);
    };
  }, [facing]);
  return state;
}
