import { formatQuantity } from '@gristmill/core';
import type { FitSheet } from '@gristmill/core/fit/fit-sheet';
import { MUCH, pairMend, type Clearance, type PairFit } from '@gristmill/core/fit/pair-fit';
import { PURPOSES } from '@gristmill/core/fit/purposes';
import { Said } from '../../../parts/Said.tsx';
import { useUnits } from '../../../state/prefs.ts';

/** A chance in words of figures: 0.3 %, 12 %; below a tenth of a percent it is next to none. */
export const chance = (p: number): string =>
  p < 0.001
    ? '< 0.1 %'
    : p < 0.0995
      ? `${(100 * p).toFixed(1)} %`
      : p > 0.999
        ? '> 99.9 %'
        : `${(100 * p).toFixed(0)} %`;

function Band({ c }: { c: Clearance }) {
  const units = useUnits();
  const um = (x: number) => formatQuantity(x, 'length', { length: 'µm', ...units }, 3).replace(/\s?µm$/, '');
  return (
    <span className="num whitespace-nowrap">
      {um(c.mean)}{' '}
      <span className="text-muted">
        ({um(c.low)} … {um(c.high)})
      </span>
    </span>
  );
}

function Row({ fit, fitted }: { fit: PairFit; fitted: boolean }) {
  const units = useUnits();
  const c = fitted ? fit.fitted : fit.drawn;
  const um = (x: number) => formatQuantity(x, 'length', { length: 'µm', ...units }, 3);
  const length = (x: number) => formatQuantity(x, 'length', units, 5);
  const text = PURPOSES[fit.pair.purpose];
  const worst = c.tight > MUCH && c.tight >= c.loose ? text.tight : c.loose > MUCH ? text.loose : '';
  return (
    <tbody className="rule-b" data-pair={fit.pair.id}>
      <tr className="align-baseline">
        <td className="!pb-0">
          <b>
            <Said>{fit.pair.shaft.name}</Said>
          </b>{' '}
          in <Said>{fit.pair.hole.name}</Said>
          {fit.pair.count > 1 ? <span className="label"> {fit.pair.count} ×</span> : null}
        </td>
        <td className="text-right">
          <Band c={c} />
        </td>
        <td className={`num whitespace-nowrap text-right ${c.tight > MUCH ? 'text-fail' : ''}`}>{chance(c.tight)}</td>
        <td className={`num whitespace-nowrap text-right ${c.loose > MUCH ? 'text-fail' : ''}`}>{chance(c.loose)}</td>
        <td className="num whitespace-nowrap pr-0 text-right">
          {fitted && fit.change
            ? `${fit.change.hole ? 'hole' : 'shaft'} ${fit.change.by >= 0 ? '+' : '−'}${um(Math.abs(fit.change.by))}`
            : 'as drawn'}
        </td>
      </tr>
      <tr>
        <td colSpan={5} className="label !pt-0 pr-0">
          {text.name}
          {fit.classes ? ` ${fit.classes.join('/')}` : ''}, ⌀ {length(fit.pair.hole.diameter)}, serves with{' '}
          <span className="num">
            {um(fit.window[0]).replace(/\s?µm$/, '')} … {um(fit.window[1])}
          </span>
          ; hole by {fit.hole.by}, shaft by {fit.shaft.by}.
          {worst ? (
            <span className="text-found">
              {' '}
              {worst} {pairMend(fit, fitted)}
            </span>
          ) : null}
        </td>
      </tr>
    </tbody>
  );
}

/** Every pair of round things that go into one another, with the clearance it comes to and what is drawn otherwise for it. */
export function Pairs({
  sheet,
  fitted,
  onFitted,
}: {
  sheet: FitSheet;
  fitted: boolean;
  onFitted: (on: boolean) => void;
}) {
  // What is likeliest to go wrong stands first.
  const risk = (f: PairFit) => {
    const c = fitted ? f.fitted : f.drawn;
    return Math.max(c.tight, c.loose);
  };
  const rows = [...sheet.pairs].sort((a, b) => risk(b) - risk(a));
  const bad = rows.filter((f) => risk(f) > MUCH).length;
  return (
    <section aria-label="Fits" className="pb-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2 border-b border-strong pb-1">
        <h2>
          Fits{' '}
          <span className="label font-normal">
            {rows.length} kinds of pairs, {bad === 0 ? 'all likely to serve' : `${bad} with more than 5 % to go wrong`}
          </span>
        </h2>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={fitted} onChange={(e) => onFitted(e.target.checked)} />
          Draw round faces as their fits ask for
        </label>
      </div>
      {rows.length === 0 ? (
        <p className="label">Nothing goes into anything yet: a housing brings bearings, shafts and screws.</p>
      ) : (
        <table className="w-full" aria-label="Pairs with their fits">
          <thead>
            <tr>
              <th className="w-[46%]">pair</th>
              <th className="text-right">clearance, µm</th>
              <th className="whitespace-nowrap text-right">too tight</th>
              <th className="whitespace-nowrap text-right">too loose</th>
              <th className="pr-0 text-right">drawn</th>
            </tr>
          </thead>
          {rows.map((f) => (
            <Row key={f.pair.id} fit={f} fitted={fitted} />
          ))}
        </table>
      )}
      <p className="label pt-1">
        Clearance of the diameter as made: mean and 95 %. Plastic serves by windows that grow with the cube root of the
        size (starting values); metal by ISO 286, bearings by ISO 492, screws by ISO 965.
      </p>
    </section>
  );
}
