/** The way to the other screens while the rail is folded away; the session goes on meanwhile. */
import { NavLink } from 'react-router';

import { Dialog } from '../shell/dialog';
import { PLACES } from '../shell/places';
import { say } from '../words/say';

interface Props {
  onLog: () => void;
  onSound: () => void;
  onClose: () => void;
}

export function MenuSheet({ onLog, onSound, onClose }: Props) {
  return (
    <Dialog title={say.floor.otherScreens} onClose={onClose}>
      {/* What has no room in the head of a phone or a tablet held upright. */}
      <div className="mb-4 grid grid-cols-2 gap-2">
        <button type="button" className="btn target" onClick={onLog}>
          {say.floor.logTitle}
        </button>
        <button type="button" className="btn target" onClick={onSound}>
          {say.floor.sound}
        </button>
      </div>
      <p className="quiet mb-3">{say.floor.theSessionGoesOnMeanwhile}</p>
      <nav aria-label={say.common.main} className="grid grid-cols-2 gap-2">
        {PLACES.map(({ to, name, Icon }) => (
          <NavLink key={to} to={to} className="btn target justify-start" onClick={onClose}>
            <Icon aria-hidden size={22} /> {name}
          </NavLink>
        ))}
      </nav>
    </Dialog>
  );
}
