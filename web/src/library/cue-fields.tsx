/** The cues of the movement in the form: phase, words, focus, how they are given, what they answer, and whose school they are. */
import { useQuery } from '@tanstack/react-query';
import { CHANNELS, FOCUSES } from '@waxwing/core/movement';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';

import { houseRulesQuery } from '../api/queries';
import { FieldError } from '../people/field-error';
import { say } from '../words/say';
import { Chips, Options, RemoveButton } from './form-parts';
import { type Fields, freshId } from './movement-fields';
import { SortableRows } from './sortable-rows';

export function CueFields() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove, move } = useFieldArray({ control, name: 'cues', keyName: 'key' });
  const phases = useWatch({ control, name: 'phases' });
  const faults = useWatch({ control, name: 'faults' });
  const kit = useWatch({ control, name: 'kit' });
  // A cue can be for a part of the kit only where there is a choice of it.
  const options = [...new Set(kit.flatMap(({ needs }) => needs.map(({ item }) => item)))];
  return (
    <>
      <SortableRows ids={fields.map((field) => field.key)} name="cue" onMove={move}>
        {(i) => (
          <div className="grid grid-cols-[1fr_1fr_1fr_auto] gap-2 md:grid-cols-[8rem_1fr_8rem_7rem_auto]">
            <select
              className="select w-full"
              aria-label={say.library.phaseOfCue(i + 1)}
              {...register(`cues.${i}.phase`)}
            >
              <Options values={phases} />
            </select>
            <span className="order-1 col-span-4 md:order-none md:col-span-1">
              <input
                className="input w-full"
                maxLength={60}
                aria-label={say.library.wordsOfCue(i + 1)}
                {...register(`cues.${i}.text`)}
              />
              <FieldError path={`cues.${i}.text`} />
              <FieldError path={`cues.${i}.phase`} />
            </span>
            <select
              className="select w-full"
              aria-label={say.library.focusOfCue(i + 1)}
              {...register(`cues.${i}.focus`)}
            >
              <Options values={FOCUSES} />
            </select>
            <select
              className="select w-full"
              aria-label={say.library.channelOfCue(i + 1)}
              {...register(`cues.${i}.channel`)}
            >
              <Options values={CHANNELS} />
            </select>
            <RemoveButton what={say.library.cue(i + 1)} onClick={() => remove(i)} />
            <details className="order-2 col-span-4 md:order-none md:col-span-5">
              <summary className="quiet cursor-pointer text-sm">{say.library.answersAndSchool}</summary>
              <div className="mt-1 grid gap-2 md:grid-cols-2">
                <Chips
                  title={say.library.answersTheseFaults}
                  name={`cues.${i}.addresses`}
                  path={`cues.${i}.addresses`}
                  values={faults.map((fault) => fault.id)}
                  words={(id) => faults.find((fault) => fault.id === id)?.name ?? id}
                />
                <RuleField name={`cues.${i}.houseRule`} />
                {options.length > 1 && (
                  <Chips
                    title={say.library.onlyWithThisInHand}
                    name={`cues.${i}.for.kit`}
                    path={`cues.${i}.for.kit`}
                    values={options}
                  />
                )}
              </div>
            </details>
          </div>
        )}
      </SortableRows>
      <button
        type="button"
        className="btn mt-2"
        onClick={() =>
          append({
            id: freshId('cue'),
            phase: phases[0] ?? 'set-up',
            text: '',
            focus: 'outward',
            channel: 'say',
            addresses: [],
          })
        }
      >
        {say.library.addACue}
      </button>
    </>
  );
}

/** Which option of a house rule a cue or fault belongs to, if any. */
export function RuleField({ name }: { name: `cues.${number}.houseRule` | `faults.${number}.houseRule` }) {
  const { register } = useFormContext<Fields>();
  const rules = useQuery(houseRulesQuery).data ?? [];
  return (
    <label className="block">
      <span className="mb-1 block text-sm font-bold">{say.library.belongsToASchool}</span>
      <select className="select select-sm w-full" {...register(name)}>
        <option value="">{say.library.allSchools}</option>
        {rules.map((rule) => (
          <optgroup key={rule.id} label={rule.matter}>
            {rule.options.map((option) => (
              <option key={option.id} value={`${rule.id}/${option.id}`}>
                {option.name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
      <FieldError path={name} />
    </label>
  );
}
