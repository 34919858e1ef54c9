/** The camera of this device for as long as something shows it. */
import { useEffect, useState } from 'react';

const WORDS: Readonly<Record<string, string>> = {
  NotAllowedError: 'The camera was refused. Allow it for this page in the browser, then try again.',
  NotFoundError: 'This device has no camera. Choose a clip instead.',
  NotReadableError: 'Another program uses the camera. Close it and try again.',
};
const UNPLUGGED = 'The camera went away. Plug it in, or choose a clip.';

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
      const trouble =
        WORDS[name] ??
        'The browser gives no camera to this page. Open Waxwing over a safe connection (https), or choose a clip.';
      setState({ stream: null, trouble });
    });
    return () => {
      gone = true;
      stop(own);
    };
  }, [facing]);
  return state;
}
