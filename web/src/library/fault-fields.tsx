/** The faults of the movement in the form, each with where it shows, why it happens, and its corrections in order. */
import { useQuery } from '@tanstack/react-query';
import {
  CAUSE_KINDS,
  causeWords,
  CORRECTION_KINDS,
  type FaultKind,
  label,
  SEVERITIES,
  SEVERITY_WORDS,
  VIEWS,
  viewWords,
} from '@waxwing/core/movement';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';

import { causesQuery, faultKindsQuery, movementsQuery } from '../api/queries';
import { FieldError } from '../people/field-error';
import { asStrong, Marked } from '../words/marked';
import { say } from '../words/say';
import { RuleField } from './cue-fields';
import { Chips, Field, Options, RemoveButton } from './form-parts';
import { type Fields, freshId, listed } from './movement-fields';
import { SortableRows } from './sortable-rows';

export function FaultFields({ opened }: { opened: number | null }) {
  const { control } = useFormContext<Fields>();
  const { fields, append, remove, move } = useFieldArray({ control, name: 'faults', keyName: 'key' });
  const phases = useWatch({ control, name: 'phases' });
  return (
    <>
      <SortableRows ids={fields.map((field) => field.key)} name="fault" onMove={move}>
        {(i) => <OneFault i={i} open={opened === i || fields[i]?.name === ''} onRemove={() => remove(i)} />}
      </SortableRows>
      <button
        type="button"
        className="btn mt-2"
        onClick={() =>
          append({
            id: freshId('fault'),
            name: '',
            looksLike: '',
            phase: phases[0] ?? 'set-up',
            severity: 'fix',
            views: { front: 0, side: 0.8, back: 0, oblique: 0 },
            causes: '',
            corrections: [{ id: freshId('correction'), kind: 'say', say: '', causes: [] }],
          })
        }
      >
        {say.library.addAFault}
      </button>
    </>
  );
}

function OneFault({ i, open, onRemove }: { i: number; open: boolean; onRemove: () => void }) {
  const { control, register, formState } = useFormContext<Fields>();
  const name = useWatch({ control, name: `faults.${i}.name` });
  const phases = useWatch({ control, name: 'phases' });
  const { data: kinds } = useQuery(faultKindsQuery);
  const chosen = useWatch({ control, name: `faults.${i}.kind` });
  const kind = kinds?.find(({ id }) => id === chosen);
  const wrong = formState.errors.faults?.[i] !== undefined;
  return (
    <details className="border-base-300 border-b pb-2" open={open || wrong}>
      <summary className="cursor-pointer py-1.5 text-lg font-semibold">
        {name || say.library.newFault}
        {wrong && <span className="text-error ml-2 text-sm">{say.library.needsAttention}</span>}
      </summary>
      <div className="space-y-3 py-2">
        <div className="grid gap-3 md:grid-cols-[2fr_3fr_1.5fr]">
          <Field title={say.library.nameOfTheFault} path={`faults.${i}.name`}>
            {(id) => <input id={id} className="input w-full" {...register(`faults.${i}.name`)} />}
          </Field>
          <Field title={say.library.whatItLooksLike} path={`faults.${i}.looksLike`}>
            {(id) => <input id={id} className="input w-full" {...register(`faults.${i}.looksLike`)} />}
          </Field>
          <Field title={say.library.kind} path={`faults.${i}.kind`}>
            {(id) => (
              // Drawn anew once the kinds are here, so that it shows the one that is chosen.
              <select key={kinds?.length} id={id} className="select w-full" {...register(`faults.${i}.kind`)}>
                <option value="">{say.library.byItsName}</option>
                {kinds?.map((kind) => (
                  <option key={kind.id} value={kind.id}>
                    {kind.name}
                  </option>
                ))}
              </select>
            )}
          </Field>
        </div>
        <div className="grid grid-cols-2 gap-3 md:grid-cols-6">
          <Field title={say.library.phase} path={`faults.${i}.phase`}>
            {(id) => (
              <select id={id} className="select w-full" {...register(`faults.${i}.phase`)}>
                <Options values={phases} />
              </select>
            )}
          </Field>
          <Field title={say.library.howSerious} path={`faults.${i}.severity`}>
            {(id) => (
              <select id={id} className="select w-full" {...register(`faults.${i}.severity`)}>
                {SEVERITIES.map((severity) => (
                  <option key={severity} value={severity}>
                    {SEVERITY_WORDS[severity]}
                  </option>
                ))}
              </select>
            )}
          </Field>
          {VIEWS.map((view) => (
            <Field
              key={view}
              title={say.library.shows(viewWords(view).toLowerCase())}
              path={`faults.${i}.views.${view}`}
            >
              {(id) => (
                <input
                  id={id}
                  type="number"
                  min={0}
                  max={1}
                  step={0.05}
                  className="input w-full"
                  {...register(`faults.${i}.views.${view}`, { valueAsNumber: true })}
                />
              )}
            </Field>
          ))}
        </div>
        <FieldError path={`faults.${i}.views`} />
        {kind && <UsualOf kind={kind} />}
        <div className="grid gap-3 md:grid-cols-2">
          <Causes i={i} usual={kind?.causes ?? []} />
          <RuleField name={`faults.${i}.houseRule`} />
        </div>
        <Corrections i={i} />
        <button type="button" className="btn btn-sm" onClick={onRemove}>
          {say.library.removeThisFault}
        </button>
      </div>
    </details>
  );
}

/** What is known of a kind, as a help to fill in the rest. */
const UsualOf = ({ kind }: { kind: FaultKind }) => (
  <p className="bg-base-200 max-w-[75ch] p-3">
    <Marked
      words={say.library.usually(
        kind.means,
        SEVERITY_WORDS[kind.severity].toLowerCase(),
        VIEWS.filter((view) => kind.views[view] > 0)
          .map((view) => viewWords(view).toLowerCase())
          .join(', '),
        kind.helps.join(', '),
      )}
      as={asStrong}
    />
  </p>
);

/** Causes are picked from the vocabulary, those usual for the kind first; one of the studio's own can be typed. */
function Causes({ i, usual }: { i: number; usual: readonly string[] }) {
  const { control, register, setValue } = useFormContext<Fields>();
  const path = `faults.${i}.causes` as const;
  const chosen = listed(useWatch({ control, name: path }));
  const { data: causes = [] } = useQuery(causesQuery);
  const add = (cause: string) => setValue(path, [...chosen, cause].join(', '), { shouldDirty: true });
  return (
    <Field title={say.library.causesAsKindWords} path={path}>
      {(id) => (
        <>
          <input id={id} className="input w-full" {...register(path)} />
          <select
            className="select mt-1 w-full"
            aria-label={say.library.addACause}
            value=""
            onChange={(event) => add(event.target.value)}
          >
            <option value="">{say.library.addACauseMore}</option>
            {usual.length > 0 && (
              <CauseGroup title={say.library.usual} causes={usual.filter((cause) => !chosen.includes(cause))} />
            )}
            {CAUSE_KINDS.map((kind) => (
              <CauseGroup
                key={kind}
                title={label(kind)}
                causes={causes.filter((cause) => cause.startsWith(`${kind}/`) && !chosen.includes(cause))}
              />
            ))}
          </select>
          {chosen.map((_, j) => (
            <FieldError key={j} path={`${path}.${j}`} />
          ))}
        </>
      )}
    </Field>
  );
}

const CauseGroup = ({ title, causes }: { title: string; causes: readonly string[] }) => (
  <optgroup label={title}>
    {causes.map((cause) => (
      <option key={cause} value={cause}>
        {causeWords(cause)}
      </option>
    ))}
  </optgroup>
);

function Corrections({ i }: { i: number }) {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove, move } = useFieldArray({ control, name: `faults.${i}.corrections`, keyName: 'key' });
  const cues = useWatch({ control, name: 'cues' });
  const causes = useWatch({ control, name: `faults.${i}.causes` });
  const rows = useWatch({ control, name: `faults.${i}.corrections` });
  const movements = useQuery(movementsQuery).data ?? [];
  const causeList = listed(causes);
  const at = (j: number) => `faults.${i}.corrections.${j}` as const;
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-bold">{say.library.correctionsFromLeastToMost}</legend>
      <SortableRows ids={fields.map((field) => field.key)} name="correction" onMove={move}>
        {(j) => (
          <div className="grid grid-cols-[7rem_1fr_auto] gap-2 md:grid-cols-[7rem_1fr_14rem_auto]">
            <select
              className="select w-full"
              aria-label={say.library.kindOfCorrection(j + 1)}
              {...register(`${at(j)}.kind`)}
            >
              <Options values={CORRECTION_KINDS} />
            </select>
            <span className="order-1 col-span-3 space-y-1 md:order-none md:col-span-1">
              <input
                className="input w-full"
                placeholder={say.library.toSayToTheClient}
                aria-label={say.library.toSayCorrection(j + 1)}
                {...register(`${at(j)}.say`)}
              />
              <input
                className="input w-full"
                placeholder={say.library.forYouToDo}
                aria-label={say.library.toDoCorrection(j + 1)}
                {...register(`${at(j)}.do`)}
              />
              <FieldError path={`${at(j)}.say`} />
              <FieldError path={`${at(j)}.do`} />
              <FieldError path={`${at(j)}.kind`} />
            </span>
            {rows[j]?.kind === 'swap' ? (
              <span>
                <select
                  className="select w-full"
                  aria-label={say.library.movementOfCorrection(j + 1)}
                  {...register(`${at(j)}.swapTo`)}
                >
                  <option value="">{say.library.swapTo}</option>
                  {movements.map((movement) => (
                    <option key={movement.id} value={movement.id}>
                      {movement.name}
                    </option>
                  ))}
                </select>
                <FieldError path={`${at(j)}.swapTo`} />
              </span>
            ) : (
              <select
                className="select w-full"
                aria-label={say.library.cueOfCorrection(j + 1)}
                {...register(`${at(j)}.cueId`)}
              >
                <option value="">{say.library.noCue}</option>
                {cues.map((cue) => (
                  <option key={cue.id} value={cue.id}>
                    {cue.text}
                  </option>
                ))}
              </select>
            )}
            <RemoveButton what={say.library.correction(j + 1)} onClick={() => remove(j)} />
            <div className="order-2 col-span-3 md:order-none md:col-span-4">
              <Chips
                title={say.library.forTheseCauses}
                name={`${at(j)}.causes`}
                path={`${at(j)}.causes`}
                values={causeList}
                words={causeWords}
              />
            </div>
          </div>
        )}
      </SortableRows>
      <FieldError path={`faults.${i}.corrections`} />
      <button
        type="button"
        className="btn btn-sm mt-2"
        onClick={() => append({ id: freshId('correction'), kind: 'show', do: '', causes: [] })}
      >
        {say.library.addACorrection}
      </button>
    </fieldset>
  );
}
