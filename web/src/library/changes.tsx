/** Differences in words: what was there struck out, what is there now. */
import type { Change } from '@waxwing/core/movement';

export const Changes = ({ changes }: { changes: readonly Change[] }) => (
  <ul className="mt-1 space-y-1">
    {changes.map((change) => (
      <li key={`${change.kind} ${change.where}`}>
        <span className="font-semibold">{change.where}</span> <span className="quiet">{change.kind}</span>
        {change.kind === 'changed' && (
          <span className="block">
            <del className="quiet">{change.before}</del> → <ins className="no-underline">{change.after}</ins>
          </span>
        )}
      </li>
    ))}
  </ul>
);
