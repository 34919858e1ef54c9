/** The keys of the floor. */
import { Dialog } from '../shell/dialog';

const KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['S', 'Set done, or side done'],
  ['C', 'Count a rep'],
  ['G', 'Start, pause or go on with the timer or the tempo'],
  ['1 2 3 4', 'Felt easy, medium, hard, failed'],
  ['J', 'Take the next dose'],
  ['5 6 7 8', 'Bring a client forward'],
  ['Q W E R T Y Z X', 'Faults, in the order they are shown'],
  ['/', 'Search for a fault'],
  ['F B N', 'Fixed, better, no change'],
  ['← →', 'Cue before, next cue'],
  ['D', 'Demonstrate'],
  ['↓ ↑', 'Easier, harder'],
  ['A', 'Swap …'],
  ['V', 'Three levels …'],
  ['M', 'Next movement …'],
  ['K', 'Skip this set'],
  ['O', 'Order of the session …'],
  ['I', 'Clock of the circuit: start, hold, log'],
  ['P', 'Pain …'],
  ['H', 'Emergency …'],
  ['U', 'Undo the last tap'],
  ['L', 'Log …'],
  ['?', 'This sheet'],
  ['Esc', 'Close a sheet'],
];

export const KeySheet = ({ onClose }: { onClose: () => void }) => (
  <Dialog title="Keys" onClose={onClose}>
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
