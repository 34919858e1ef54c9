/** Sound, speech and light of the floor, for this device. */
import { Dialog } from '../shell/dialog';
import { chooseTheme, type Theme, THEMES, useTheme } from '../shell/theme';
import { say } from '../words/say';
import { setSound, useSound } from './sound';

export function SoundSheet({ awake, onClose }: { awake: boolean; onClose: () => void }) {
  const { volume, muted, speech } = useSound();
  const theme = useTheme();
  return (
    <Dialog title={say.floor.soundAndLight} onClose={onClose}>
      <div className="space-y-5">
        <label className="flex items-center gap-4">
          <span className="w-32 font-bold">{say.floor.volume}</span>
          <input
            type="range"
            className="range flex-1"
            min={0}
            max={100}
            step={5}
            value={Math.round(volume * 100)}
            disabled={muted}
            onChange={({ target }) => setSound({ volume: target.valueAsNumber / 100 })}
          />
        </label>
        <Switch name="Mute" on={muted} onTurn={(on) => setSound({ muted: on })}>
          {say.floor.noSoundAtAll}
        </Switch>
        <Switch name="Speech" on={speech} onTurn={(on) => setSound({ speech: on })}>
          {say.floor.sayTheNextCueAnd}
        </Switch>
        <div role="group" aria-label={say.common.light} className="flex flex-wrap items-center gap-2">
          <span className="w-32 font-bold">{say.common.light}</span>
          {(Object.entries(THEMES) as [Theme, string][]).map(([value, name]) => (
            <button
              key={value}
              type="button"
              aria-pressed={theme === value}
              className={`btn target ${theme === value ? 'btn-primary' : ''}`}
              onClick={() => chooseTheme(value)}
            >
              {name}
            </button>
          ))}
        </div>
        <p className="quiet">{awake ? say.floor.theScreenStaysAwakeWhile : say.floor.thisBrowserCannotKeepThe}</p>
      </div>
    </Dialog>
  );
}

function Switch({
  name,
  on,
  onTurn,
  children,
}: {
  name: string;
  on: boolean;
  onTurn: (on: boolean) => void;
  children: string;
}) {
  return (
    <label className="target flex cursor-pointer items-center gap-4">
      <span className="w-32 font-bold">{name}</span>
      <input
        type="checkbox"
        className="toggle toggle-lg"
        checked={on}
        onChange={({ target }) => onTurn(target.checked)}
      />
      <span>{children}</span>
    </label>
  );
}
