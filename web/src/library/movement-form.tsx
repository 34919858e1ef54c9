/** Making and changing a movement. What is not saved yet is kept on this device, and leaving warns of it. */
import type { MovementPage } from '@waxwing/core/formats';
import {
  checkMovement,
  DEMANDS,
  demandWords,
  DIRECTIONS,
  DOSE_MODES,
  EFFORTS,
  KIT_ITEMS,
  label,
  LEVERS,
  MUSCLES,
  PATTERNS,
  PHASES,
  PLANES,
  POSITIONS,
  PURPOSES,
  ROLES,
  SIDES,
  slugOf,
  SPACES,
} from '@waxwing/core/movement';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { FormProvider, useFieldArray, useForm, useFormContext, useWatch } from 'react-hook-form';
import { Link, useBlocker, useNavigate } from 'react-router';
import { call, ProblemError } from '../api/http';
import { movementQuery, movementsQuery } from '../api/queries';
import { FieldError, showProblems } from '../people/field-error';
import { CueFields } from './cue-fields';
import { FaultFields } from './fault-fields';
import { Chips, Choice, Field, FormSection, Options, RemoveButton } from './form-parts';
import { documentOf, type Fields } from './movement-fields';
import { readDraft, useDraft } from './use-draft';

interface Props {
  title: string;
  start: Fields;
  /** Undefined for a movement that does not exist yet. */
  saved: MovementPage | undefined;
  /** Under which name unsaved changes are kept on this device. */
  draftKey: string;
  /** Field path of the movement to begin at. */
  at: string;
}

export function MovementForm({ title, start, saved, draftKey: key, at }: Props) {
  const [draft] = useState(() => readDraft(key, saved?.version));
  const [restored, setRestored] = useState(draft !== null);
  const form = useForm<Fields>({ defaultValues: start });
  const { isDirty } = form.formState;
  const [problem, setProblem] = useState<string | null>(null);
  const [saving, setSaving] = useState(false);
  const left = useRef(false);
  const forget = useDraft(key, saved?.version, form);
  const movements = useQuery(movementsQuery).data ?? [];
  const queries = useQueryClient();
  const navigate = useNavigate();

  // The draft comes in over the saved state, so that the form knows it as unsaved.
  useEffect(() => {
    if (draft) form.reset(draft, { keepDefaultValues: true });
  }, [draft, form]);
  useEffect(() => {
    const part = at.split(/[[.]/)[0];
    if (part) document.getElementById(`part-${part}`)?.scrollIntoView();
  }, [at]);

  const blocker = useBlocker(() => isDirty && !left.current);
  useEffect(() => {
    if (!isDirty) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [isDirty]);

  const save = async () => {
    const fields = form.getValues();
    const id = saved?.movement.id ?? slugOf(fields.name);
    const timed = (row: Fields['links'][number]) =>
      row.direction === 'easier'
        ? movements.find((movement) => movement.id === row.to)?.dose.mode === 'time'
        : fields.mode === 'time';
    const document = documentOf(fields, id, timed);
    form.clearErrors();
    setProblem(null);
    setSaving(true);
    try {
      const checked = checkMovement(document);
      if (!checked.ok) throw new ProblemError(422, 'Some fields need attention.', checked.problems);
      const { id: _, ...parts } = document;
      const page = saved
        ? await call<MovementPage>('PATCH', `/movements/${id}`, { ...parts, version: saved.version })
        : await call<MovementPage>('POST', '/movements', document);
      left.current = true;
      forget();
      await queries.invalidateQueries({ queryKey: ['library'] });
      queries.setQueryData(movementQuery(id).queryKey, page);
      await navigate(`/library/${id}`);
    } catch (error) {
      showProblems(form, error);
      setProblem(
        error instanceof ProblemError && error.errors.length > 0
          ? error.errors.map(({ path, message }) => `${path} ${message}`).join('\n')
          : error instanceof Error
            ? error.message
            : String(error),
      );
    } finally {
      setSaving(false);
    }
  };

  const opened = /^faults\[(\d+)\]/.exec(at)?.[1];
  return (
    <FormProvider {...form}>
      <form
        className="mx-auto max-w-5xl space-y-8 p-4 sm:p-6"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <header className="bg-base-100 border-base-300 sticky top-0 z-20 -mx-2 flex flex-wrap items-center justify-between gap-3 border-b px-2 py-3">
          <h1>{title}</h1>
          <div className="flex items-center gap-2">
            <span role="status" className="quiet">
              {isDirty ? 'Not saved yet; kept on this device' : ''}
            </span>
            <Link className="btn btn-ghost" to={saved ? `/library/${saved.movement.id}` : '/library'}>
              Cancel
            </Link>
            <button type="submit" className="btn btn-primary" disabled={saving}>
              Save
            </button>
          </div>
        </header>
        {restored && (
          <p role="status" className="border-base-content flex items-center justify-between gap-3 border-2 p-3">
            Your unsaved changes are back.
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => {
                forget();
                form.reset(start);
                setRestored(false);
              }}
            >
              Discard them
            </button>
          </p>
        )}
        {blocker.state === 'blocked' && (
          <div role="alertdialog" aria-label="Unsaved changes" className="border-error border-2 p-3">
            <p className="mb-2 font-semibold">These changes are not saved.</p>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn btn-primary" autoFocus onClick={() => blocker.reset()}>
                Stay and save
              </button>
              <button type="button" className="btn" onClick={() => blocker.proceed()}>
                Leave; keep them on this device
              </button>
              <button
                type="button"
                className="btn"
                onClick={() => {
                  forget();
                  blocker.proceed();
                }}
              >
                Leave and discard
              </button>
            </div>
          </div>
        )}
        {problem && (
          <p role="alert" className="text-error font-semibold whitespace-pre-line">
            {problem}
          </p>
        )}
        <Basics isNew={!saved} />
        <FormSection title="Cues" id="cues">
          <CueFields />
        </FormSection>
        <FormSection title="Faults" id="faults">
          <FaultFields opened={opened === undefined ? null : Number(opened)} />
        </FormSection>
        <FormSection title="Links" id="links">
          <LinkFields self={saved?.movement.id ?? ''} />
        </FormSection>
        <FormSection title="What it takes" id="dose">
          <DoseFields />
        </FormSection>
        <FormSection title="Asks for" id="demands">
          <DemandFields />
        </FormSection>
        <FormSection title="Kit" id="kit">
          <KitOptions />
        </FormSection>
        <FormSection title="Cautions" id="cautions">
          <CautionFields />
        </FormSection>
      </form>
    </FormProvider>
  );
}

function Basics({ isNew }: { isNew: boolean }) {
  const { register } = useFormContext<Fields>();
  return (
    <FormSection title="The movement" id="name">
      <div className="grid gap-3 sm:grid-cols-2">
        <Field title="Name" path="name">
          {(id) => (
            <>
              <input id={id} className="input w-full" {...register('name')} />
              {isNew && <FieldError path="id" />}
            </>
          )}
        </Field>
        <Field title="Also called (commas between)" path="aliases">
          {(id) => <input id={id} className="input w-full" {...register('aliases')} />}
        </Field>
        <Field title="Families (commas between)" path="families">
          {(id) => <input id={id} className="input w-full" {...register('families')} />}
        </Field>
        <Field title="Breath" path="breath">
          {(id) => <input id={id} className="input w-full" {...register('breath')} />}
        </Field>
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3 md:grid-cols-5">
        <Choice title="Pattern" name="pattern" values={PATTERNS} />
        <Choice title="Role" name="role" values={ROLES} />
        <Choice title="Position" name="position" values={POSITIONS} />
        <Choice title="Sides" name="sides" values={SIDES} />
        <Choice title="Room" name="space" values={SPACES} />
      </div>
      <div className="mt-3 grid gap-3 md:grid-cols-2">
        <Chips title="Works" name="prime" path="muscles.prime" values={MUSCLES} />
        <Chips title="Helped by" name="assist" path="muscles.assist" values={MUSCLES} />
        <Chips title="Phases, in order" name="phases" path="phases" values={PHASES} />
        <Chips title="Planes" name="planes" path="planes" values={PLANES} />
      </div>
    </FormSection>
  );
}

function LinkFields({ self }: { self: string }) {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'links', keyName: 'key' });
  const movements = (useQuery(movementsQuery).data ?? []).filter(({ id }) => id !== self);
  return (
    <>
      <ul className="space-y-2">
        {fields.map((field, i) => (
          <li
            key={field.key}
            className="grid grid-cols-2 gap-2 sm:grid-cols-4 lg:grid-cols-[7rem_1fr_9rem_5rem_4rem_7rem_4rem_auto]"
          >
            <select
              className="select w-full"
              aria-label={`Direction of link ${i + 1}`}
              {...register(`links.${i}.direction`)}
            >
              <Options values={DIRECTIONS} />
            </select>
            <span>
              <select className="select w-full" aria-label={`Movement of link ${i + 1}`} {...register(`links.${i}.to`)}>
                {movements.map((movement) => (
                  <option key={movement.id} value={movement.id}>
                    {movement.name}
                  </option>
                ))}
              </select>
              <FieldError path={`links.${i}.to`} />
            </span>
            <select className="select w-full" aria-label={`Lever of link ${i + 1}`} {...register(`links.${i}.lever`)}>
              <Options values={LEVERS} />
            </select>
            <input
              type="number"
              min={0}
              className="input w-full"
              title="Ready at this many reps or seconds; 0 for no sign"
              aria-label={`Ready at, link ${i + 1}`}
              {...register(`links.${i}.readyAmount`, { valueAsNumber: true })}
            />
            <input
              type="number"
              min={1}
              className="input w-full"
              title="in this many sets"
              aria-label={`Ready sets, link ${i + 1}`}
              {...register(`links.${i}.readySets`, { valueAsNumber: true })}
            />
            <select
              className="select w-full"
              aria-label={`Ready effort, link ${i + 1}`}
              {...register(`links.${i}.readyEffort`)}
            >
              <Options values={EFFORTS} />
            </select>
            <input
              type="number"
              min={1}
              className="input w-full"
              title="in this many sessions running"
              aria-label={`Ready sessions, link ${i + 1}`}
              {...register(`links.${i}.readySessions`, { valueAsNumber: true })}
            />
            <RemoveButton what={`link ${i + 1}`} onClick={() => remove(i)} />
            <span className="col-span-2 sm:col-span-4 lg:col-span-8">
              <FieldError path={`links.${i}.readyWhen`} />
              <FieldError path={`links.${i}.readyWhen.reps`} />
            </span>
          </li>
        ))}
      </ul>
      <FieldError path="links" />
      <p className="quiet mt-1 text-sm">
        After the lever: ready at how many reps or seconds (0 for no sign), in how many sets, at most which effort, in
        how many sessions running.
      </p>
      <button
        type="button"
        className="btn mt-2"
        onClick={() =>
          append({
            to: movements[0]?.id ?? '',
            direction: 'harder',
            lever: 'load',
            readyAmount: 0,
            readySets: 2,
            readyEffort: 'medium',
            readySessions: 2,
            backWhen: undefined,
          })
        }
      >
        Add a link
      </button>
    </>
  );
}

function DoseFields() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'windows', keyName: 'key' });
  const rows = useWatch({ control, name: 'windows' });
  const unused = PURPOSES.filter((purpose) => !rows.some((row) => row.purpose === purpose));
  const number = (name: `windows.${number}.${'low' | 'high' | 'fewest' | 'most' | 'rest'}`, title: string) => (
    <input
      type="number"
      min={0}
      className="input w-full"
      aria-label={title}
      {...register(name, { valueAsNumber: true })}
    />
  );
  return (
    <>
      <div className="mb-3 grid grid-cols-2 gap-3 md:grid-cols-4">
        <Field title="Counted in" path="dose.mode">
          {(id) => (
            <select id={id} className="select w-full" {...register('mode')}>
              <Options values={DOSE_MODES} />
            </select>
          )}
        </Field>
        <Field title="Tempo: lower-pause-rise-pause" path="dose.tempo">
          {(id) => <input id={id} className="input w-full" {...register('tempo')} />}
        </Field>
      </div>
      <table className="w-full text-left">
        <thead className="quiet text-sm">
          <tr>
            {['for', 'from', 'to', 'sets from', 'sets to', 'rest, s', ''].map((head) => (
              <th key={head} className="font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {fields.map((field, i) => {
            const purpose = rows[i]?.purpose ?? field.purpose;
            return (
              <tr key={field.key} className="[&_td]:pr-2 [&_td]:pb-2">
                <td>
                  <select
                    className="select w-full"
                    aria-label={`Purpose ${i + 1}`}
                    {...register(`windows.${i}.purpose`)}
                  >
                    <Options values={[purpose, ...unused]} />
                  </select>
                  {['low', 'high', 'sets', 'rest', 'sets.0', 'sets.1'].map((part) => (
                    <FieldError key={part} path={`dose.windows.${purpose}.${part}`} />
                  ))}
                </td>
                <td>{number(`windows.${i}.low`, `From, ${label(purpose)}`)}</td>
                <td>{number(`windows.${i}.high`, `To, ${label(purpose)}`)}</td>
                <td>{number(`windows.${i}.fewest`, `Fewest sets, ${label(purpose)}`)}</td>
                <td>{number(`windows.${i}.most`, `Most sets, ${label(purpose)}`)}</td>
                <td>{number(`windows.${i}.rest`, `Rest, ${label(purpose)}`)}</td>
                <td>
                  <RemoveButton what={`the dose for ${label(purpose)}`} onClick={() => remove(i)} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <FieldError path="dose.windows" />
      {unused[0] && (
        <button
          type="button"
          className="btn mt-1"
          onClick={() => append({ purpose: unused[0] ?? 'learn', low: 8, high: 12, fewest: 2, most: 3, rest: 60 })}
        >
          Add a dose
        </button>
      )}
    </>
  );
}

const AMOUNTS = ['not', 'a little', 'clearly', 'strongly'];

function DemandFields() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'demands', keyName: 'key' });
  const unused = DEMANDS.filter((demand) => !fields.some((field) => field.demand === demand));
  return (
    <div className="flex flex-wrap items-center gap-2">
      {fields.map((field, i) => (
        <span key={field.key} className="bg-base-200 flex items-center gap-1 py-1 pr-1 pl-3">
          <label className="flex items-center gap-2">
            {label(demandWords(field.demand))}
            <select className="select select-sm w-auto" {...register(`demands.${i}.amount`, { valueAsNumber: true })}>
              {AMOUNTS.map((words, amount) => (
                <option key={words} value={amount}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <RemoveButton what={demandWords(field.demand)} onClick={() => remove(i)} />
        </span>
      ))}
      <select
        className="select w-auto"
        aria-label="Add a demand"
        value=""
        onChange={(event) => append({ demand: event.target.value as (typeof DEMANDS)[number], amount: 1 })}
      >
        <option value="">add a demand …</option>
        {unused.map((demand) => (
          <option key={demand} value={demand}>
            {label(demandWords(demand))}
          </option>
        ))}
      </select>
    </div>
  );
}

function KitOptions() {
  const { control } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'kit', keyName: 'key' });
  return (
    <>
      <p className="quiet mb-2 text-sm">Any one of these will do. None at all: it needs nothing.</p>
      <ul className="space-y-2">
        {fields.map((field, i) => (
          <li key={field.key} className="flex flex-wrap items-center gap-2">
            <span className="quiet">{i === 0 ? 'either' : 'or'}</span>
            <KitNeeds i={i} />
            <button type="button" className="btn btn-sm btn-ghost" onClick={() => remove(i)}>
              Remove this option
            </button>
            <FieldError path={`kit.${i}`} />
          </li>
        ))}
      </ul>
      <button type="button" className="btn mt-2" onClick={() => append({ needs: [{ item: 'dumbbell', count: 1 }] })}>
        Add an option
      </button>
    </>
  );
}

function KitNeeds({ i }: { i: number }) {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: `kit.${i}.needs`, keyName: 'key' });
  return (
    <>
      {fields.map((field, j) => (
        <span key={field.key} className="flex items-center gap-1">
          {j > 0 && <span className="quiet">and</span>}
          <input
            type="number"
            min={1}
            max={10}
            className="input input-sm w-16"
            aria-label={`How many, option ${i + 1}, need ${j + 1}`}
            {...register(`kit.${i}.needs.${j}.count`, { valueAsNumber: true })}
          />
          <select
            className="select select-sm w-auto"
            aria-label={`What, option ${i + 1}, need ${j + 1}`}
            {...register(`kit.${i}.needs.${j}.item`)}
          >
            <Options values={KIT_ITEMS} />
          </select>
          <RemoveButton what={`need ${j + 1} of option ${i + 1}`} onClick={() => remove(j)} />
        </span>
      ))}
      <button type="button" className="btn btn-sm" onClick={() => append({ item: 'mat', count: 1 })}>
        and …
      </button>
    </>
  );
}

function CautionFields() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'cautions', keyName: 'key' });
  return (
    <>
      <ul className="space-y-2">
        {fields.map((field, i) => (
          <li key={field.key} className="flex items-start gap-2">
            <span className="flex-1">
              <input className="input w-full" aria-label={`Caution ${i + 1}`} {...register(`cautions.${i}.text`)} />
              <FieldError path={`cautions.${i}`} />
            </span>
            <RemoveButton what={`caution ${i + 1}`} onClick={() => remove(i)} />
          </li>
        ))}
      </ul>
      <button type="button" className="btn mt-2" onClick={() => append({ text: '' })}>
        Add a caution
      </button>
    </>
  );
}
