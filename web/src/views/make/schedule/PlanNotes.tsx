import type { Late, Schedule } from '@gristmill/core/schedule/plan';
import type { Learnt } from '@gristmill/core/schedule/learning';
import { formatQuantity } from '@gristmill/core';
import { Said } from '../../../parts/Said.tsx';
import { useUnits } from '../../../state/prefs.ts';
import { useShop } from '../../../state/shop.ts';
import { changeShop } from '../../../storage/edit-shop.ts';
import { sayDay, sayLong } from './words.ts';

const lateSays = ({ name, why, by }: Late): string =>
  why === 'promised'
    ? `${name} should have come ${sayLong(by)} ago.`
    : why === 'kept'
      ? `${name} ends ${sayLong(by)} later than in the plan you kept.`
      : `All is done ${sayLong(by)} after the day it is wanted by; ${name} ends last.`;

const holdsSay = ({ holds, moves }: Late): string => {
  if (holds.length === 0) return '';
  const names = holds.length > 4 ? `${holds.slice(0, 4).join('; ')} and ${holds.length - 4} more` : holds.join('; ');
  return `Each further day holds up: ${names}${moves > 0 ? `, and the end by ${sayLong(moves)}` : ''}.`;
};

/** What is late and what it holds up, and what cannot be planned at all. */
export function PlanLate({ late, stuck }: Pick<Schedule, 'late' | 'stuck'>) {
  if (late.length + stuck.length === 0) return null;
  return (
    <section aria-label="What is late or cannot be" className="px-5 py-1">
      <ul className="list-none">
        {stuck.map(({ task, why }) => (
          <li key={task.id} className="text-fail">
            ✕ <Said>{why}</Said>
          </li>
        ))}
        {late.map((l) => (
          <li key={`${l.why} ${l.id}`}>
            <span className="text-near">
              ! <Said>{lateSays(l)}</Said>
            </span>{' '}
            <Said>{holdsSay(l)}</Said>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Puts a factor into the shop; false where it cannot be kept there. */
function intoShop({ id, after, times }: Learnt): boolean {
  const { edits } = useShop.getState();
  const source = `${times} recorded ${times === 1 ? 'time' : 'times'}`;
  return !changeShop({ ...edits, factors: { ...edits.factors, [id]: { ...after, source } } });
}

/** What recorded times say, to be taken over into the shop. */
export function PlanLearnt({
  learnt,
  readOnly,
  onTold,
}: {
  learnt: readonly Learnt[];
  readOnly: boolean;
  onTold: (id: string) => void;
}) {
  const units = useUnits();
  const take = (l: Learnt) => intoShop(l) && onTold(l.id);
  if (learnt.length === 0)
    return (
      <p className="label pt-2">
        Times are reckoned from bodies with the shop’s layer, speed and pace. Write down what a print or a piece of work
        took, and the plan learns from it.
      </p>
    );
  return (
    <section aria-label="What your times say" className="pt-2">
      <h3 className="rule-b pb-0.5">What your times say</h3>
      {learnt.map((l) => {
        const quantity = l.id === 'print.speed' ? ('linearSpeed' as const) : ('ratio' as const);
        const say = (x: number) => formatQuantity(x, quantity, { linearSpeed: 'mm/s', ...units }, 3);
        return (
          <p key={l.id} className="pt-1">
            {l.name}: <b>{say(l.after.value)}</b> ({say(l.after.low)} to {say(l.after.high)}) by {l.times}{' '}
            {l.times === 1 ? 'time' : 'times'}, in place of {say(l.before.value)}; {(l.told * 100).toFixed(0)} % of that
            is yours.{' '}
            <button type="button" className="mend" disabled={readOnly} onClick={() => take(l)}>
              Take over into the shop
            </button>
          </p>
        );
      })}
    </section>
  );
}

/** When all is done, and what it takes. */
export function PlanSum({ schedule, renewing }: { schedule: Schedule; renewing: boolean }) {
  const { end, earliest, latest, handsLeft, printsLeft } = schedule;
  return (
    <p role="status" aria-busy={renewing} data-end={end}>
      All done on <b>{sayDay(end)}</b> ({sayDay(earliest)} to {sayDay(latest)}): {sayLong(handsLeft)} of your own and{' '}
      {sayLong(printsLeft)} of printing left.
    </p>
  );
}
