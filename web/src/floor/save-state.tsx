/** Whether all is saved: quiet while it is; says what waits, what could not be written down, and what the server would not take. */
import { useQueryClient } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useSyncExternalStore } from 'react';

import { sessionKeys } from '../api/keys';
import { say } from '../words/say';
import { TROUBLE_WORDS } from '../words/trouble';
import { exportOf, isAgreed, queueState, sendRefusedAgain, subscribeQueue } from './tap-queue';

export function SaveState({ sessionId, awake = true }: { sessionId: string; awake?: boolean }) {
  const { waiting, unwritten, refused, why, trouble } = useSyncExternalStore(subscribeQueue, queueState);
  const queries = useQueryClient();
  const save = async () => {
    const address = URL.createObjectURL(await exportOf(sessionId));
    const link = document.createElement('a');
    link.href = address;
    link.download = `waxwing-session-${sessionId}.json`;
    link.click();
    URL.revokeObjectURL(address);
  };
  if (unwritten > 0)
    return (
      <p role="alert" className="text-error ml-auto flex items-center gap-2 font-bold">
        {say.floor.onlyInMemoryThisDevice(unwritten)}
        <button type="button" className="btn target" onClick={() => void save()}>
          <Download aria-hidden size={20} />
          {say.floor.saveAFile}
        </button>
      </p>
    );
  return (
    <p role="status" className={`not-[span+*]:ml-auto ${refused > 0 ? 'text-error font-bold' : 'quiet'}`}>
      {refused > 0 ? (
        <>
          {say.floor.keptHereNotTakenBy(refused)}
          {why}{' '}
          <button
            type="button"
            className="btn btn-sm"
            onClick={() =>
              void sendRefusedAgain().then(() => queries.invalidateQueries({ queryKey: sessionKeys.opened }))
            }
          >
            {say.floor.sendAgain}
          </button>
        </>
      ) : trouble ? (
        `${TROUBLE_WORDS[trouble]} · ${waiting > 0 ? say.floor.keptOnThisDevice(waiting) : say.floor.nothingWaitsHere}`
      ) : waiting > 0 ? (
        say.common.saving
      ) : isAgreed(sessionId) ? (
        <>
          {/* A phone has no room to say that nothing is wrong. */}
          <span className="max-sm:sr-only">{say.floor.allSaved}</span>
        </>
      ) : (
        say.floor.checking
      )}
      {!awake && <span className="max-xl:sr-only">{say.floor.screenMaySleep}</span>}
    </p>
  );
}
