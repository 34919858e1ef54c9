/** Filming with this device: a picture to stand by, a countdown, and a clip that is kept nowhere but in this page. */
import { useEffect, useEffectEvent, useRef, useState } from 'react';

import { useWakeLock } from '../floor/use-wake-lock';
import { say } from '../words/say';
import { useCamera } from './use-camera';

const COUNTDOWN = 5;
const MOST_SECONDS = 120;

type Phase = { at: 'ready' } | { at: 'counting'; left: number } | { at: 'filming'; gone: number };

export function CameraTake({ onTaken, onClose }: { onTaken: (file: File) => void; onClose: () => void }) {
  const [facing, setFacing] = useState<'environment' | 'user'>('environment');
  const { stream, trouble } = useCamera(facing);
  const [phase, setPhase] = useState<Phase>({ at: 'ready' });
  const view = useRef<HTMLVideoElement>(null);
  const recorder = useRef<MediaRecorder | null>(null);
  useWakeLock();

  useEffect(() => {
    if (view.current && stream) view.current.srcObject = stream;
  }, [stream]);
  const film = useEffectEvent(() => {
    if (!stream) return;
    const parts: Blob[] = [];
    const running = new MediaRecorder(stream);
    running.ondataavailable = ({ data }) => void parts.push(data);
    running.onstop = () => onTaken(new File(parts, 'clip', { type: running.mimeType }));
    recorder.current = running;
    running.start(1000);
    setPhase({ at: 'filming', gone: 0 });
  });
  useEffect(() => {
    if (phase.at === 'ready') return undefined;
    const timer = setTimeout(() => {
      if (phase.at === 'counting') {
        if (phase.left > 1) setPhase({ at: 'counting', left: phase.left - 1 });
        else film();
      } else if (phase.gone + 1 >= MOST_SECONDS) recorder.current?.stop();
      else setPhase({ at: 'filming', gone: phase.gone + 1 });
    }, 1000);
    return () => clearTimeout(timer);
  });
  useEffect(
    () => () => {
      const running = recorder.current;
      if (running && running.state !== 'inactive') {
        running.onstop = null;
        running.stop();
      }
    },
    [],
  );

  if (trouble)
    return (
      <div role="alert" className="max-w-2xl space-y-3">
        <p className="text-lg">{trouble}</p>
        <button type="button" className="btn" onClick={onClose}>
          {say.common.back}
        </button>
      </div>
    );
  return (
    <section aria-label={say.sight.camera} className="space-y-3">
      <div className="bg-neutral relative inline-block max-w-full">
        <video ref={view} autoPlay muted playsInline className="block max-h-[56vh] max-w-full" />
        {/* The body should stand between these lines. */}
        <div
          aria-hidden
          className="pointer-events-none absolute inset-x-[18%] inset-y-[6%] border-2 border-dashed border-white/80"
        />
        {phase.at === 'counting' && (
          <p role="status" className="absolute inset-0 grid place-content-center text-[9rem] font-bold text-white">
            {phase.left}
          </p>
        )}
      </div>
      <p className="quiet max-w-2xl">{say.sight.standTheDeviceStillAt}</p>
      <div className="flex flex-wrap gap-3">
        {phase.at === 'filming' ? (
          <button type="button" className="btn btn-primary target" onClick={() => recorder.current?.stop()}>
            {say.sight.stopAfterSAndRead(phase.gone)}
          </button>
        ) : (
          <button
            type="button"
            className="btn btn-primary target"
            disabled={!stream || phase.at === 'counting'}
            onClick={() => setPhase({ at: 'counting', left: COUNTDOWN })}
          >
            {say.sight.filmInS(COUNTDOWN)}
          </button>
        )}
        {phase.at === 'ready' && (
          <button
            type="button"
            className="btn target"
            onClick={() => setFacing(facing === 'user' ? 'environment' : 'user')}
          >
            {say.common.otherCamera}
          </button>
        )}
        <button type="button" className="btn target" onClick={onClose}>
          {say.common.cancel}
        </button>
      </div>
    </section>
  );
}
