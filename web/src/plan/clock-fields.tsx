/** How a circuit goes: by its own doses, by work and rest, a turn every so many seconds, or as many rounds as go into a time. */
import { type Block, isByWork } from '@waxwing/core/planning';

import { Choice } from '../words/choice';
import { say } from '../words/say';
import { NumberField, WorkField } from './fields';

const MODES = ['doses', 'work', 'every', 'rounds-in'] as const;
type Mode = (typeof MODES)[number];

const MODE_WORDS: Readonly<Record<Mode, string>> = say.plan.modeWords;

const modeOf = ({ workSeconds, clock }: Block): Mode => (workSeconds !== null ? 'work' : (clock?.mode ?? 'doses'));

/** The clock gives everybody what the slowest line asks for. */
const changeSeconds = ({ items }: Block): number =>
  Math.max(0, ...items.flatMap(({ lanes }) => lanes.map(({ rest }) => rest)));

const withRest = (block: Block, rest: number): Block => ({
  ...block,
  items: block.items.map((item) => ({ ...item, lanes: item.lanes.map((lane) => ({ ...lane, rest })) })),
});

export function ClockFields({ block, onChange }: { block: Block; onChange: (block: Block) => void }) {
  const { clock, workThen: _, ...plain } = block;
  const mode = modeOf(block);
  const go = (to: Mode) => {
    const own = { ...plain, workSeconds: null };
    if (to === 'work') onChange({ ...plain, workSeconds: 40 });
    else if (to === 'every') onChange({ ...own, clock: { mode: 'every', seconds: 60 } });
    else if (to === 'rounds-in') onChange({ ...own, clock: { mode: 'rounds-in', seconds: 600 } });
    else onChange(own);
  };
  return (
    <>
      <Choice title={say.common.clock} all={MODES} words={(one) => MODE_WORDS[one]} value={mode} onChange={go} />
      {block.workSeconds !== null && <WorkField block={block} onChange={onChange} />}
      {isByWork(block) && (
        <NumberField
          title={say.plan.secondsToChange}
          value={changeSeconds(block)}
          low={0}
          high={900}
          onChange={(rest) => onChange(withRest(block, rest))}
        />
      )}
      {clock?.mode === 'every' && (
        <NumberField
          title={say.plan.everyS}
          value={clock.seconds}
          low={20}
          high={600}
          onChange={(seconds) => onChange({ ...block, clock: { mode: 'every', seconds } })}
        />
      )}
      {clock?.mode === 'rounds-in' && (
        <NumberField
          title={say.common.minutes}
          value={Math.round(clock.seconds / 60)}
          low={1}
          high={60}
          onChange={(minutes) => onChange({ ...block, clock: { mode: 'rounds-in', seconds: minutes * 60 } })}
        />
      )}
    </>
  );
}
