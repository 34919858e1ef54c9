/** A movement as a form holds it: lists as rows, and back. */
import { signAmount, signIn } from '@waxwing/core/ladder';
import {
  type BackWhen,
  type Cue,
  type Demand,
  type DoseMode,
  type Fault,
  type KitItem,
  type KitNeed,
  type KitOption,
  type Link,
  type Movement,
  type Muscle,
  type Phase,
  type Plane,
  type Purpose,
  type ReadyWhen,
  type SetUp,
  slugOf,
} from '@waxwing/core/movement';

export interface WindowRow {
  purpose: Purpose;
  low: number;
  high: number;
  fewest: number;
  most: number;
  rest: number;
}

export interface LinkRow {
  to: string;
  direction: Link['direction'];
  lever: Link['lever'];
  /** The sign for going up; 0 for none. */
  readyAmount: number;
  readySets: number;
  readyEffort: ReadyWhen['effortAtMost'];
  readySessions: number;
  backWhen: BackWhen | undefined;
}

export interface KitRow {
  needs: KitNeed[];
  demands: DemandRow[];
  /** Empty for no cap. */
  mostKg: string;
}

export interface DemandRow {
  demand: Demand;
  amount: number;
}

/** A field that nobody touched has nothing, not an empty list. */
interface CueFields extends Omit<Cue, 'for'> {
  for?: { kit?: KitItem[] | undefined } | undefined;
}

export interface Fields {
  name: string;
  aliases: string;
  families: string;
  pattern: Movement['pattern'];
  role: Movement['role'];
  position: Movement['position'];
  sides: Movement['sides'];
  planes: Plane[];
  prime: Muscle[];
  assist: Muscle[];
  kit: KitRow[];
  space: Movement['space'];
  demands: DemandRow[];
  mode: Movement['dose']['mode'];
  tempo: string;
  windows: WindowRow[];
  breath: string;
  how: string;
  setUp: SetUp[];
  precursors: string[];
  expected: string;
  stop: string;
  progression: Movement['progression'];
  /** Empty for a figure of its own, or none. */
  drawnAs: string;
  phases: Phase[];
  cues: CueFields[];
  faults: (Omit<Fault, 'causes'> & { causes: string })[];
  links: LinkRow[];
  cautions: { text: string }[];
  /** Conditions by id. */
  notFor: string[];
  suits: string[];
}

export const listed = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean);

export const BLANK: Fields = {
  name: '',
  aliases: '',
  families: '',
  pattern: 'squat',
  role: 'strength',
  position: 'standing',
  sides: 'both',
  planes: ['sagittal'],
  prime: [],
  assist: [],
  kit: [],
  space: 'spot',
  demands: [],
  mode: 'reps',
  tempo: '2-0-2-0',
  windows: [{ purpose: 'learn', low: 8, high: 10, fewest: 2, most: 3, rest: 60 }],
  breath: '',
  how: '',
  setUp: [],
  precursors: [],
  expected: '',
  stop: '',
  progression: 'yes',
  drawnAs: '',
  phases: ['set-up', 'lower', 'rise', 'finish'],
  cues: [],
  faults: [],
  links: [],
  cautions: [],
  notFor: [],
  suits: [],
};

const demandRows = (demands: Movement['demands']): DemandRow[] =>
  (Object.entries(demands) as [Demand, number][]).map(([demand, amount]) => ({ demand, amount }));

export const demandsFrom = (rows: readonly DemandRow[]): Movement['demands'] =>
  Object.fromEntries(rows.map(({ demand, amount }) => [demand, amount]));

const optionFrom = ({ needs, demands, mostKg }: KitRow): KitOption => ({
  needs,
  ...(demands.length > 0 ? { demands: demandsFrom(demands) } : {}),
  ...(mostKg.trim() === '' ? {} : { mostKg: Number(mostKg) }),
});

/** Without what was left empty. */
const filled = (texts: Readonly<Record<string, string | undefined>>): Record<string, string> =>
  Object.fromEntries(Object.entries(texts).flatMap(([key, text]) => (text?.trim() ? [[key, text]] : [])));

export const fieldsOf = (movement: Movement): Fields => ({
  ...movement,
  aliases: movement.aliases.join(', '),
  families: movement.families.join(', '),
  prime: movement.muscles.prime,
  assist: movement.muscles.assist,
  kit: movement.kit.map(({ needs, demands = {}, mostKg }) => ({
    needs,
    demands: demandRows(demands),
    mostKg: mostKg === undefined ? '' : String(mostKg),
  })),
  demands: demandRows(movement.demands),
  expected: movement.feel?.expected ?? '',
  stop: movement.feel?.stop ?? '',
  drawnAs: movement.drawnAs ?? '',
  mode: movement.dose.mode,
  tempo: movement.dose.tempo,
  windows: Object.entries(movement.dose.windows).map(([purpose, { low, high, sets, rest }]) => ({
    purpose: purpose as Purpose,
    low,
    high,
    fewest: sets[0],
    most: sets[1],
    rest,
  })),
  faults: movement.faults.map((fault) => ({ ...fault, causes: fault.causes.join(', ') })),
  links: movement.links.map(({ to, direction, lever, readyWhen, backWhen }) => ({
    to,
    direction,
    lever,
    readyAmount: readyWhen ? signAmount(readyWhen) : 0,
    readySets: readyWhen?.sets ?? 2,
    readyEffort: readyWhen?.effortAtMost ?? 'medium',
    readySessions: readyWhen?.sessions ?? 2,
    backWhen,
  })),
  cautions: movement.cautions.map((text) => ({ text })),
});

/** The document that is sent: of unknown validity, the schema judges it. `modeBelow` says how a link's easier movement is dosed. */
export function documentOf(fields: Fields, id: string, modeBelow: (row: LinkRow) => DoseMode): Record<string, unknown> {
  return {
    id,
    name: fields.name,
    aliases: listed(fields.aliases),
    families: listed(fields.families).map(slugOf),
    pattern: fields.pattern,
    role: fields.role,
    position: fields.position,
    sides: fields.sides,
    planes: fields.planes,
    muscles: { prime: fields.prime, assist: fields.assist },
    kit: fields.kit.map(optionFrom),
    space: fields.space,
    demands: demandsFrom(fields.demands.filter(({ amount }) => amount > 0)),
    dose: {
      mode: fields.mode,
      tempo: fields.tempo,
      windows: Object.fromEntries(
        fields.windows.map(({ purpose, low, high, fewest, most, rest }) => [
          purpose,
          { low, high, sets: [fewest, most], rest },
        ]),
      ),
    },
    breath: fields.breath,
    how: fields.how,
    setUp: fields.setUp,
    precursors: fields.precursors,
    ...(fields.expected.trim() || fields.stop.trim() ? { feel: { expected: fields.expected, stop: fields.stop } } : {}),
    progression: fields.progression,
    ...filled({ drawnAs: fields.drawnAs }),
    phases: fields.phases,
    cues: fields.cues.map(({ houseRule, for: { kit = [] } = {}, ...cue }) => ({
      ...cue,
      ...(kit.length > 0 ? { for: { kit } } : {}),
      ...(houseRule ? { houseRule } : {}),
    })),
    faults: fields.faults.map(({ kind, houseRule, causes, corrections, ...fault }) => ({
      ...fault,
      causes: listed(causes),
      corrections: corrections.map(({ say, do: doing, cueId, swapTo, ...correction }) => ({
        ...correction,
        ...filled({ say, do: doing, cueId }),
        ...(swapTo && correction.kind === 'swap' ? { swapTo } : {}),
      })),
      ...(kind ? { kind } : {}),
      ...(houseRule ? { houseRule } : {}),
    })),
    links: fields.links.map((row) => ({
      to: row.to,
      direction: row.direction,
      lever: row.lever,
      ...(row.readyAmount > 0
        ? {
            readyWhen: signIn(modeBelow(row), row.readyAmount, {
              sets: row.readySets,
              clean: true,
              effortAtMost: row.readyEffort,
              sessions: row.readySessions,
            }),
          }
        : {}),
      ...(row.backWhen ? { backWhen: row.backWhen } : {}),
    })),
    cautions: fields.cautions.map(({ text }) => text).filter((text) => text.trim() !== ''),
    notFor: fields.notFor,
    suits: fields.suits,
  };
}

/** A new id for a part of a movement, unlike any before. */
export const freshId = (kind: string): string => `${kind}-${Math.random().toString(36).slice(2, 8)}`;
