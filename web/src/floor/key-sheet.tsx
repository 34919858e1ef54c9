/** The keys of the floor. */
import { Sheet } from './sheet';

const KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['S', 'Set done, or side done'],
  ['1 2 3 4', 'Felt easy, medium, hard, failed'],
  ['Q W E R T Y Z X', 'Faults, in the order they are shown'],
  ['F B N', 'Fixed, better, no change'],
  ['← →', 'Cue before, next cue'],
  ['D', 'Demonstrate'],
  ['↓ ↑', 'Easier, harder'],
  ['A', 'Swap …'],
  ['M', 'Next movement …'],
  ['P', 'Pain …'],
  ['U', 'Undo the last tap'],
  ['?', 'This sheet'],
  ['Esc', 'Close a sheet'],
];

export const KeySheet = ({ onClose }: { onClose: () => void }) => (
  <Sheet title="Keys" onClose={onClose}>
    <dl className="ruled">
      {KEYS.map(([keys, does]) => (
        <div key={keys} className="grid grid-cols-[12rem_1fr] gap-4 py-2">
          <dt className="font-bold">{keys}</dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  </Sheet>
);
