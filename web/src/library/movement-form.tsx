/** Making and changing a movement. What is not saved yet is kept on this device, and leaving warns of it. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { MovementPage } from '@waxwing/core/ladder';
import { type Change, difference, movementSchema, slugOf } from '@waxwing/core/movement';
import { useEffect, useRef, useState } from 'react';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import { Link, useBlocker, useNavigate } from 'react-router';

import { checked } from '../api/checked';
import { call, ProblemError } from '../api/http';
import { libraryKeys } from '../api/keys';
import { movementQuery, movementsQuery } from '../api/queries';
import { showProblems } from '../people/field-error';
import { say } from '../words/say';
import { BasicFields } from './basic-fields';
import { Changes } from './changes';
import { CueFields } from './cue-fields';
import { FaultFields } from './fault-fields';
import { FormSection } from './form-parts';
import { LinkFields } from './link-fields';
import { demandsFrom, documentOf, type Fields } from './movement-fields';
import { CautionFields, DemandFields, DoseFields, KitOptions, LevelWords } from './need-fields';
import { ShowsMore } from './shows-more';
import { StartFields } from './start-fields';
import { type Draft, keepDraft, readDraft, useDraft } from './use-draft';

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
  const [draft] = useState(() => readDraft(key));
  const [draftState, setDraftState] = useState<'none' | 'back' | 'overtaken'>(() =>
    draft === null ? 'none' : draft.version === (saved?.version ?? null) ? 'back' : 'overtaken',
  );
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
    if (draft && draftState === 'back') form.reset(draft.fields, { keepDefaultValues: true });
  }, [draft, draftState, form]);
  const discard = () => {
    forget();
    form.reset(start);
    setDraftState('none');
  };
  useEffect(() => {
    const part = at.split(/[[.]/)[0];
    if (part) document.getElementById(`part-${part}`)?.scrollIntoView();
  }, [at]);

  const blocker = useBlocker(() => isDirty && !left.current);
  useEffect(() => {
    if (!isDirty) return;
    const warn = (event: BeforeUnloadEvent) => {
      // Another tab may have saved, and so forgotten, the draft that both shared.
      keepDraft(key, saved?.version, form.getValues());
      event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [isDirty, key, saved?.version, form]);

  const idOf = (fields: Fields) => saved?.movement.id ?? slugOf(fields.name);
  const documentFrom = (fields: Fields) => {
    const modeBelow = (row: Fields['links'][number]) =>
      (row.direction === 'easier' && movements.find((movement) => movement.id === row.to)?.dose.mode) || fields.mode;
    return documentOf(fields, idOf(fields), modeBelow);
  };

  const save = async () => {
    const fields = form.getValues();
    const id = idOf(fields);
    const document = documentFrom(fields);
    form.clearErrors();
    setProblem(null);
    setSaving(true);
    try {
      const movement = checked(movementSchema, document);
      const { id: _, ...parts } = movement;
      const page = saved
        ? await call('PATCH /movements/{id}', { id, body: { ...parts, version: saved.version } })
        : await call('POST /movements', { body: movement });
      left.current = true;
      forget();
      await queries.invalidateQueries({ queryKey: libraryKeys.all });
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
        className="page space-y-8"
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
              {isDirty ? say.library.notSavedYetKeptOn : ''}
            </span>
            <Link className="btn btn-ghost" to={saved ? `/library/${saved.movement.id}` : '/library'}>
              {say.common.cancel}
            </Link>
            <button type="submit" className="btn btn-primary" disabled={saving || draftState === 'overtaken'}>
              {say.common.save}
            </button>
          </div>
        </header>
        {draftState === 'back' && (
          <p role="status" className="border-base-content flex items-center justify-between gap-3 border-2 p-3">
            {say.library.yourUnsavedChangesAreBack}
            <button type="button" className="btn btn-sm" onClick={discard}>
              {say.library.discardThem}
            </button>
          </p>
        )}
        {draftState === 'overtaken' && draft && (
          <OvertakenDraft
            draft={draft}
            saved={saved}
            changes={difference(saved?.movement ?? {}, documentFrom(draft.fields))}
            onTake={() => {
              keepDraft(key, saved?.version, draft.fields);
              setDraftState('back');
            }}
            onDiscard={discard}
          />
        )}
        {blocker.state === 'blocked' && (
          <div role="alertdialog" aria-label={say.library.unsavedChanges} className="border-error border-2 p-3">
            <p className="mb-2 font-semibold">{say.library.theseChangesAreNotSaved}</p>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn btn-primary" autoFocus onClick={() => blocker.reset()}>
                {say.library.stayAndSave}
              </button>
              <button type="button" className="btn" onClick={() => blocker.proceed()}>
                {say.library.leaveKeepThemOnThis}
              </button>
              <button
                type="button"
                className="btn"
                onClick={() => {
                  forget();
                  blocker.proceed();
                }}
              >
                {say.library.leaveAndDiscard}
              </button>
            </div>
          </div>
        )}
        {problem && (
          <p role="alert" className="text-error font-semibold whitespace-pre-line">
            {problem}
          </p>
        )}
        <fieldset className="space-y-8" disabled={draftState === 'overtaken'}>
          <BasicFields isNew={!saved} />
          <FormSection title={say.library.toBeginWith} id="start">
            <StartFields self={saved?.movement.id ?? ''} />
          </FormSection>
          <FormSection title={say.library.cues} id="cues">
            <CueFields />
          </FormSection>
          <FormSection title={say.common.faults} id="faults">
            <FaultFields opened={opened === undefined ? null : Number(opened)} />
          </FormSection>
          <FormSection title={say.library.links} id="links">
            <LinkFields self={saved?.movement.id ?? ''} />
          </FormSection>
          <FormSection title={say.library.whatItTakes} id="dose">
            <DoseFields />
          </FormSection>
          <FormSection title={say.library.asksFor} id="demands">
            <DemandFields />
            <LevelWords />
            <SaysLess id={saved?.movement.id ?? ''} />
          </FormSection>
          <FormSection title={say.common.kit} id="kit">
            <KitOptions />
          </FormSection>
          <FormSection title={say.library.cautions} id="cautions">
            <CautionFields />
          </FormSection>
        </fieldset>
      </form>
    </FormProvider>
  );
}

/** What is being written of the demands, against the figure that is chosen. */
function SaysLess({ id }: { id: string }) {
  const rows = useWatch<Fields, 'demands'>({ name: 'demands' });
  const drawnAs = useWatch<Fields, 'drawnAs'>({ name: 'drawnAs' });
  return <ShowsMore figureId={drawnAs || id} demands={demandsFrom(rows)} />;
}

/** Changes that were made from a version which is no longer the current one: shown against what was saved since, and the trainer decides. */
function OvertakenDraft({
  draft,
  saved,
  changes,
  onTake,
  onDiscard,
}: {
  draft: Draft;
  saved: MovementPage | undefined;
  changes: readonly Change[];
  onTake: () => void;
  onDiscard: () => void;
}) {
  return (
    <section aria-labelledby="overtaken" className="border-base-content border-2 p-3">
      <h2 id="overtaken" className="text-lg">
        {say.library.youHaveUnsavedChangesFrom(draft.version, saved?.version)}
      </h2>
      <p className="mt-1">{say.library.savingYoursWouldMakeThese}</p>
      <Changes changes={changes} />
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={onTake}>
          {say.library.putMyChangesIntoThe}
        </button>
        <button type="button" className="btn" onClick={onDiscard}>
          {say.library.discardThem}
        </button>
      </div>
    </section>
  );
}
