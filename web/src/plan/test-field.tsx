/** Making a line a test: one that is known for the movement, or one of one's own with its name, unit and end. */
import { BENCHMARK_UNITS, type KnownTest, type Test, testSchema } from '@waxwing/core/client';
import { useState } from 'react';

import { say } from '../words/say';

interface Props {
  of: string;
  test: Test | undefined;
  /** Tests of this movement that are offered or were done before. */
  known: readonly KnownTest[];
  onChange: (test: Test | undefined) => void;
}

const UNIT_NAMES: Readonly<Record<Test['unit'], string>> = say.plan.unitNames;

const testOf = ({ name, unit, seconds, clean }: KnownTest): Test => ({ name, unit, seconds, clean });

export function TestField({ of, test, known, onChange }: Props) {
  const isKnown = test === undefined || known.some(({ name }) => name === test.name);
  const [own, setOwn] = useState(!isKnown);
  return (
    <div className="min-w-72">
      <label>
        <span className="quiet block text-sm">{say.plan.test}</span>
        <select
          className="select w-56"
          aria-label={say.plan.testOf(of)}
          value={own ? 'own' : (test?.name ?? '')}
          onChange={({ target }) => {
            setOwn(target.value === 'own');
            if (target.value === '') onChange(undefined);
            const chosen = known.find(({ name }) => name === target.value);
            if (chosen) onChange(testOf(chosen));
          }}
        >
          <option value="">{say.common.no}</option>
          {known.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
          <option value="own">{say.plan.aTestOfYourOwn}</option>
        </select>
      </label>
      {own ? (
        <OwnTest of={of} test={test} onChange={onChange} />
      ) : (
        test && <p className="quiet mt-1 max-w-prose text-sm">{test.clean}</p>
      )}
    </div>
  );
}

const NEW: Test = { name: '', unit: 'reps', seconds: null, clean: '' };

/** It counts as soon as it can be kept; until then it says what is missing. */
function OwnTest({ of, test, onChange }: Pick<Props, 'of' | 'test' | 'onChange'>) {
  const [draft, setDraft] = useState<Test>(test ?? NEW);
  const [typed, type] = useState(test?.seconds?.toString() ?? '');
  const checked = testSchema.safeParse(draft);
  const problem = (field: keyof Test) => checked.error?.issues.find(({ path }) => path[0] === field)?.message;
  const change = (part: Partial<Test>) => {
    const next = { ...draft, ...part };
    setDraft(next);
    const right = testSchema.safeParse(next);
    if (right.success) onChange(right.data);
  };
  return (
    <div className="mt-2 flex flex-wrap items-start gap-3">
      <Field title={say.common.name} problem={draft.name === '' ? undefined : problem('name')}>
        <input
          className="input w-48"
          aria-label={say.plan.nameOfTheTest(of)}
          maxLength={60}
          value={draft.name}
          onChange={({ target }) => change({ name: target.value })}
        />
      </Field>
      <Field title={say.plan.whatIsMeasured} problem={problem('unit')}>
        <select
          className="select w-44"
          aria-label={say.plan.unitOfTheTest(of)}
          value={draft.unit}
          onChange={({ target }) => change({ unit: target.value as Test['unit'] })}
        >
          {BENCHMARK_UNITS.map((unit) => (
            <option key={unit} value={unit}>
              {UNIT_NAMES[unit]}
            </option>
          ))}
        </select>
      </Field>
      <Field title={say.plan.endsAfterSEmptyAt} problem={problem('seconds')}>
        <input
          className="input w-24"
          aria-label={say.plan.secondsOfTheTest(of)}
          inputMode="numeric"
          value={typed}
          onChange={({ target }) => {
            type(target.value);
            change({ seconds: target.value.trim() === '' ? null : Number(target.value) });
          }}
        />
      </Field>
      <Field title={say.plan.whatCountsAsClean} problem={problem('clean')}>
        <input
          className="input w-72"
          aria-label={say.plan.whatCountsAsCleanOf(of)}
          maxLength={200}
          value={draft.clean}
          onChange={({ target }) => change({ clean: target.value })}
        />
      </Field>
      {draft.name === '' && <p className="quiet w-full text-sm">{say.plan.itIsKeptWhenIt}</p>}
    </div>
  );
}

function Field({
  title,
  problem,
  children,
}: {
  title: string;
  problem: string | undefined;
  children: React.ReactNode;
}) {
  return (
    <label>
      <span className="quiet block text-sm">{title}</span>
      {children}
      {problem && (
        <span role="alert" className="text-error block max-w-48 text-sm">
          {problem}
        </span>
      )}
    </label>
  );
}
