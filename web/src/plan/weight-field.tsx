/** The weight of a line: a step lighter or heavier by a press, or any that the kit can make. */
import type { Load } from '@waxwing/core/dosage';
import { Minus, Plus } from 'lucide-react';

import { say } from '../words/say';

/** More weights than this are a long list. */
const MANY = 8;

interface Props {
  /** The movement and whom it is for, in words. */
  of: string;
  load: Load | null;
  /** All that is open, the lightest first. */
  loads: readonly Load[];
  /** Those near what was used. */
  near: readonly Load[];
  onChange: (load: Load | null) => void;
}

export function WeightField({ of, load, loads, near, onChange }: Props) {
  const at = loads.findIndex(({ label, kg }) => label === load?.label && kg === load.kg);
  const option = (one: Load) => (
    <option key={`${one.label} ${one.kg}`} value={loads.indexOf(one)}>
      {one.label}
      {one.setting ? ` (${one.setting})` : ''}
    </option>
  );
  const many = loads.length > MANY;
  const step = (way: 1 | -1) => nextLoad(loads, load, way);
  const button = (way: 1 | -1) => {
    const next = step(way);
    return (
      <button
        type="button"
        className="btn btn-sm h-9 px-2"
        aria-label={`${way > 0 ? say.common.heavier : say.plan.lighter}: ${of}`}
        title={next === undefined ? '' : (next?.label ?? say.common.noWeight)}
        disabled={next === undefined}
        onClick={() => next !== undefined && onChange(next)}
      >
        {way > 0 ? <Plus aria-hidden size={16} /> : <Minus aria-hidden size={16} />}
      </button>
    );
  };
  return (
    <span className="flex items-center">
      {button(-1)}
      <select
        className="select h-9 w-32"
        aria-label={say.plan.weightOf(of)}
        value={at < 0 ? '' : String(at)}
        onChange={({ target }) => onChange(target.value === '' ? null : (loads[Number(target.value)] ?? null))}
      >
        <option value="">{load && at < 0 ? say.plan.weightNotHere(load.label) : say.common.noWeight}</option>
        {many && <optgroup label={say.common.near}>{near.map(option)}</optgroup>}
        {many ? <optgroup label={say.common.all}>{loads.map(option)}</optgroup> : loads.map(option)}
      </select>
      {button(1)}
    </span>
  );
}

const kgOf = (load: Load | null): number => load?.kg ?? 0;

/** The next weight that differs; null for none at all, undefined where there is no further one. */
export function nextLoad(loads: readonly Load[], load: Load | null, way: 1 | -1): Load | null | undefined {
  const sorted = loads.toSorted((a, b) => kgOf(a) - kgOf(b));
  const now = kgOf(load);
  if (way > 0) return sorted.find((one) => kgOf(one) > now);
  const lighter = sorted.findLast((one) => kgOf(one) < now);
  return lighter ?? (load === null ? undefined : null);
}
