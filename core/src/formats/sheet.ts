/** The sheet that a client takes home: order, dose, kit and its changes, a few reminders, one thing to watch, a way down and up, and what changed. */
import { latest } from '../client/history.js';
import type { FaultTally, PastSession } from '../client/history-schema.js';
import { setUpFor } from '../client/set-up.js';
import type { NotedSetUp } from '../client/set-up-schema.js';
import type { Evidence } from '../coaching/evidence-schema.js';
import { likelyFault } from '../coaching/likelihood.js';
import { teachingCues } from '../coaching/teach.js';
import { brokenHold, holdWords } from '../dosage/next-set.js';
import { partsWords } from '../dosage/parts.js';
import { withInHand } from '../movement/in-hand.js';
import type { Fault, Movement } from '../movement/schema.js';
import { bySeverity } from '../movement/severity.js';
import { inWords, label, UNIT_WORDS } from '../movement/words.js';
import { isByWork, isEvery, roundsIn, workEachWords } from '../planning/block-clock.js';
import { movementsOf } from '../planning/by-set.js';
import { amountsWords, dropWords, roundsWords } from '../planning/dose-words.js';
import { type Block, inRounds, type Plan, type PlanLane, setsOfLane } from '../planning/plan.js';
import { minuteWords } from '../planning/timeline.js';
import { plain } from './card.js';
import type { Sheet, SheetLine } from './sheet-schema.js';

export interface SheetSource {
  plan: Plan;
  client: { id: string; name: string };
  studio: { name: string; trainer: string };
  where: string;
  minutes: number;
  find: (movementId: string) => Movement | undefined;
  /** Why a movement is closed for the client now; null when it is not. */
  closed: (movementId: string) => string | null;
  /** Easier and harder movements that are open for the client. */
  neighbours: (movementId: string) => { easier: string | null; harder: string | null };
  evidence: Evidence;
  sets: Readonly<Record<string, readonly PastSession[]>>;
  faults: Readonly<Record<string, FaultTally>>;
  setUps: readonly NotedSetUp[];
  now: string;
}

/** What stands on every sheet, said to the client. */
const ALWAYS_MIND = [
  'Sharp or one-sided pain in a joint: stop that movement, leave it for today, and have it looked at by a qualified clinician.',
  'Chest pain, faintness, or short of breath at rest: stop everything and get help at once.',
];

/** Reminders on a sheet: more are not read. */
const MOST_REMINDERS = 3;
/** A hold longer than this is also given in pieces, for who cannot hold it in one. */
const LONG_HOLD = 40;

export function sheetOf(source: SheetSource): Sheet {
  const { plan, client, studio } = source;
  let before: PlanLane['load'] = null;
  const blocks = plan.blocks.flatMap((block) => {
    const lines = block.items.flatMap(({ lanes }) => {
      const lane = lanes.find(({ clientId }) => clientId === client.id);
      const movement = lane && source.find(lane.movementId);
      if (!lane || !movement) return [];
      const line = lineOf(source, block, lane, movement, before);
      before = lane.load ?? before;
      return [line];
    });
    return lines.length > 0 ? [{ title: label(block.kind), note: roundWords(block), lines }] : [];
  });
  const done = blocks.flatMap(({ lines }) => lines.flatMap(({ movementId }) => source.find(movementId) ?? []));
  const cautions = done.flatMap(({ name, cautions: all }) => all.map((caution) => `${name}: ${caution}`));
  return {
    title: plan.name,
    client: client.name,
    studio: studio.name,
    where: source.where,
    trainer: studio.trainer,
    startsAt: plan.startsAt,
    minutes: source.minutes,
    blocks,
    cautions: [...new Set(cautions), ...ALWAYS_MIND],
  };
}

function roundWords(block: Block): string {
  const { rounds, clock } = block;
  if (!inRounds(block)) return '';
  if (roundsIn(block) !== null) return `as many rounds as you can do well in ${minuteWords(clock?.seconds ?? 0)}`;
  if (isEvery(block)) return `${rounds} rounds, the next one begins every ${clock?.seconds ?? 0} s`;
  return `${rounds} rounds${isByWork(block) ? `, ${workEachWords(block)} at each` : ''}`;
}

/** Why somebody alone cannot do a movement; null where they can. */
const needsHelp = (movement: Movement | undefined): string | null =>
  (movement?.demands['second-person'] ?? 0) > 0 ? 'it needs somebody to help' : null;

function lineOf(
  source: SheetSource,
  block: Block,
  lane: PlanLane,
  movement: Movement,
  before: PlanLane['load'],
): SheetLine {
  const { evidence, now } = source;
  const other = lane.withId === null ? undefined : source.find(lane.withId);
  const name = other ? `${movement.name} with ${other.name.toLowerCase()}` : movement.name;
  const because = movementsOf(lane).reduce<string | null>(
    (found, id) => found ?? source.closed(id) ?? needsHelp(source.find(id)),
    null,
  );
  if (because !== null)
    return {
      movementId: movement.id,
      name,
      dose: '',
      sets: 0,
      kit: null,
      setUp: null,
      how: null,
      reminders: [],
      watchOut: null,
      easier: null,
      harder: null,
      changed: null,
      leaveOut: `Leave this out for now, and ask your trainer: ${because}.`,
    };
  // Nobody is there to touch.
  const cues = teachingCues(withInHand(movement, lane.load?.item), evidence, now, false)
    .toSorted((a, b) => b.worked - a.worked)
    .slice(0, MOST_REMINDERS)
    .map(({ cue }) => cue.text);
  return {
    movementId: movement.id,
    name,
    dose: laneWords(block, lane, movement, (id) => source.find(id)?.name ?? inWords(id)),
    sets: setsOfLane(block, lane),
    kit: lane.load && kitChange(lane.load, before),
    setUp: setUpWords(movement, source.setUps),
    how: source.plan.place.kind === 'studio' ? null : movement.how || null,
    reminders: cues,
    watchOut: worstFault(source, movement)?.name ?? null,
    ...source.neighbours(movement.id),
    changed: changeWords(lane, movement, source.sets[movement.id] ?? []),
    leaveOut: null,
  };
}

/** `3 × 10 reps a side, tempo 3-0-1-0, 60 s rest`; a composed set part by part, rounds that differ one after the other. */
export function laneWords(
  block: Block,
  lane: PlanLane,
  { dose, sides }: Pick<Movement, 'dose' | 'sides'>,
  nameOf: (movementId: string) => string,
): string {
  const sets = setsOfLane(block, lane);
  const open = roundsIn(block) !== null;
  const unit = UNIT_WORDS[dose.mode];
  const oneSided = lane.bySet?.some(({ side }) => side !== undefined) ?? false;
  const side = sides === 'each' ? (oneSided ? '' : ' a side') : '';
  const amounts = amountsWords(lane, sets);
  const work = isByWork(block)
    ? workEachWords(block)
    : lane.parts
      ? `(${partsWords(lane.parts)})${side}`
      : `${amounts} ${unit}${side}`;
  const pieces =
    dose.mode === 'time' && !lane.parts && lane.amount > LONG_HOLD
      ? ` (or ${holdWords(brokenHold(lane.amount, 20))})`
      : '';
  const test = lane.test ? `Test: ${lane.test.name}. ${lane.test.clean} ` : '';
  const drops = lane.drops ? `, ${dropWords(lane)}` : '';
  const rounds = roundsWords(lane, sets, nameOf).map((words) => `, ${words}`);
  const tempo = dose.mode === 'reps' ? `, tempo ${lane.tempo}` : '';
  const rest = lane.rest > 0 && !open && !isEvery(block) ? `, ${lane.rest} s rest` : '';
  return `${test}${open ? '' : `${sets} × `}${work}${pieces}${drops}${rounds.join('')}${tempo}${rest}`;
}

function kitChange(load: NonNullable<PlanLane['load']>, before: PlanLane['load']): string {
  const setting = load.setting ? ` (${load.setting} on each end)` : '';
  const same = before && before.item === load.item && before.label === load.label;
  return `${load.label}${setting}${same || !before ? '' : ': change'}`;
}

/** The fault to watch: the most dangerous, and among equals the likeliest for this client. */
function worstFault({ faults }: SheetSource, movement: Movement): Fault | undefined {
  const likely = (fault: Fault) => likelyFault(fault, faults[movement.id]);
  return movement.faults.toSorted((a, b) => bySeverity(a, b) || likely(b) - likely(a))[0];
}

/** `10 to 12 reps, 8 to 10 kg`; null when nothing changed, `new` the first time. */
export function changeWords(
  lane: PlanLane,
  { dose }: Pick<Movement, 'dose'>,
  past: readonly PastSession[],
): string | null {
  const last = latest(past)?.sets.at(-1);
  if (!last) return 'new';
  const unit = UNIT_WORDS[dose.mode];
  const kg = lane.load?.kg ?? null;
  const words = [
    ...(last.amount === lane.amount ? [] : [`${last.amount} to ${lane.amount} ${unit}`]),
    ...(kg === null || last.kg === null || last.kg === undefined || Math.abs(kg - last.kg) < 0.005
      ? []
      : [`${last.kg} to ${kg} kg`]),
  ];
  return words.length > 0 ? words.join(', ') : null;
}

/** What stands below the title: for whom, when, how long, where, and by whom. */
export const headOf = ({ client, minutes, studio, where, trainer }: Sheet, date: string | null): string[] =>
  [...new Set([client, date ?? '', `${minutes} min`, where, studio, trainer])].filter((part) => part !== '');

/** `box height 30 cm, stance a foot apart`; null where nothing was noted. */
function setUpWords(movement: Movement, noted: readonly NotedSetUp[]): string | null {
  const known = setUpFor(movement, noted).filter(({ value }) => value !== null);
  return known.length > 0 ? known.map(({ measure, value }) => `${inWords(measure)} ${value}`).join(', ') : null;
}

/** The sheet as Markdown, for a message or a folder. */
export function sheetMarkdown(sheet: Sheet, date: string | null): string {
  const lines = [
    `# ${plain(sheet.title)}`,
    '',
    `${headOf(sheet, date).map(plain).join(' · ')}`,
    '',
    ...sheet.blocks.flatMap(({ title, note, lines: all }) => [
      `## ${plain(title)}${note ? ` · ${plain(note)}` : ''}`,
      '',
      ...all.flatMap((line, i) => [
        `${i + 1}. **${plain(line.name)}**: ${plain(line.leaveOut ?? line.dose)}${line.kit ? `, ${plain(line.kit)}` : ''}`,
        ...(line.setUp ? [`   - Set-up: ${plain(line.setUp)}`] : []),
        ...(line.how ? [`   - ${plain(line.how)}`] : []),
        ...line.reminders.map((reminder) => `   - ${plain(reminder)}`),
        ...(line.watchOut ? [`   - **Watch out:** ${plain(line.watchOut)}`] : []),
        ...(line.easier ? [`   - Easier: ${plain(line.easier)}`] : []),
        ...(line.harder ? [`   - Harder: ${plain(line.harder)}`] : []),
        ...(line.changed ? [`   - Since last time: ${plain(line.changed)}`] : []),
      ]),
      '',
    ]),
    '## Mind',
    '',
    ...sheet.cautions.map((caution) => `- ${plain(caution)}`),
  ];
  return `${lines.join('\n').trim()}\n`;
}
