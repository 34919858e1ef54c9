/** Severity by shape as well as by colour: a barred block for stop, a full diamond for fix, an open ring for polish. */
import { type Severity, SEVERITY_WORDS } from '@waxwing/core/movement';

export function SeverityMark({ severity, size = 20 }: { severity: Severity; size?: number }) {
  const shape = {
    stop: (
      <>
        <rect x="1" y="1" width="18" height="18" fill="currentColor" />
        <rect x="4" y="8" width="12" height="4" fill="var(--color-base-100)" />
      </>
    ),
    fix: <path d="M10 0 L20 10 L10 20 L0 10 Z" fill="currentColor" />,
    polish: <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" strokeWidth="3" />,
  }[severity];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      role="img"
      aria-label={SEVERITY_WORDS[severity]}
      className={`shrink-0 ${severity === 'polish' ? 'quiet' : 'text-error'}`}
    >
      {shape}
    </svg>
  );
}
