/** Where one can go from every screen. */
import { BookOpen, CalendarDays, ClipboardCheck, Dumbbell, House, type LucideIcon, Ruler, Users } from 'lucide-react';

import { say } from '../words/say';

export const PLACES: readonly { to: string; name: string; Icon: LucideIcon }[] = [
  { to: '/', name: say.common.today, Icon: CalendarDays },
  { to: '/library', name: say.common.library, Icon: BookOpen },
  { to: '/people', name: say.common.people, Icon: Users },
  { to: '/plan', name: say.common.plan, Icon: Ruler },
  { to: '/floor', name: say.common.floor, Icon: Dumbbell },
  { to: '/review', name: say.common.review, Icon: ClipboardCheck },
  { to: '/studio', name: say.common.studio, Icon: House },
];
