/** Where one can go from every screen. */
import { BookOpen, CalendarDays, ClipboardCheck, Dumbbell, House, Ruler, Users, type LucideIcon } from 'lucide-react';

export const PLACES: readonly { to: string; name: string; Icon: LucideIcon }[] = [
  { to: '/', name: 'Today', Icon: CalendarDays },
  { to: '/library', name: 'Library', Icon: BookOpen },
  { to: '/people', name: 'People', Icon: Users },
  { to: '/plan', name: 'Plan', Icon: Ruler },
  { to: '/floor', name: 'Floor', Icon: Dumbbell },
  { to: '/review', name: 'Review', Icon: ClipboardCheck },
  { to: '/studio', name: 'Studio', Icon: House },
];
