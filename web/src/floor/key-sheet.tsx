/** The keys of the floor. */
import { Dialog } from '../shell/dialog';
import { say } from '../words/say';

const KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['S', say.floor.setDoneOrSideDone],
  ['C', say.floor.countARep],
  ['G', say.floor.startPauseOrGoOn],
  ['1 2 3 4', say.floor.feltEasyMediumHardFailed],
  ['J', say.floor.takeTheNextDose],
  ['5 6 7 8', say.floor.bringAClientForward],
  ['Q W E R T Y Z X', say.floor.faultsInTheOrderThey],
  ['/', say.floor.searchForAFault],
  ['F B N', say.floor.fixedBetterNoChange],
  ['← →', say.floor.cueBeforeNextCue],
  ['D', say.floor.demonstrate],
  ['↓ ↑', say.floor.easierHarder],
  ['A', say.floor.swapMore],
  ['V', say.floor.levelsMore],
  ['M', say.floor.nextMovementMore],
  ['K', say.floor.skipThisSet],
  ['O', say.floor.orderOfTheSession],
  ['I', say.floor.clockOfTheCircuitStart],
  ['P', say.floor.painMore],
  ['H', say.floor.emergencyMore],
  ['U', say.floor.undoTheLastTap],
  ['L', say.floor.logMore],
  ['?', say.common.thisSheet],
  ['Esc', say.floor.closeASheet],
];

export const KeySheet = ({ onClose }: { onClose: () => void }) => (
  <Dialog title={say.floor.keys} onClose={onClose}>
    <dl className="grid gap-x-8 sm:grid-cols-2">
      {KEYS.map(([keys, does]) => (
        <div key={keys} className="border-base-300 grid grid-cols-[6.5rem_1fr] gap-3 border-t py-1.5">
          <dt className="font-bold">{keys}</dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  </Dialog>
);
