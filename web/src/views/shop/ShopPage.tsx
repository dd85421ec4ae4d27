import { displayUnit, formatQuantity, QUANTITIES, type Factor, type Motor, type QuantityId, type ShopEdits } from '@gristmill/core';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { useCommonActions } from '../../app/common.ts';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { newId } from '../../state/identifier.ts';
import { usePrefs, useUnits } from '../../state/prefs.ts';
import { useShop } from '../../state/shop.ts';
import { useStorage } from '../../storage/autosave.ts';
import { saveShop } from '../../storage/shelf.ts';
import { storageProblem } from '../../storage/trouble.ts';
import { COMMON_ROWS, MOTOR_ROWS } from '../line/MotorPanel.tsx';

function change(edits: ShopEdits): void {
  useShop.getState().setEdits(edits);
  saveShop(edits).catch((error: unknown) => useStorage.setState({ problem: storageProblem(error) }));
}

function Motors() {
  const { edits, shelf } = useShop();
  const units = useUnits();
  const [open, setOpen] = useState<string | undefined>();
  const put = (motor: Motor) => change({ ...edits, motors: [motor, ...(edits.motors ?? []).filter((m) => m.id !== motor.id)] });
  const own = new Set((edits.motors ?? []).map((m) => m.id));
  return (
    <section aria-label="Motors" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Motors</h2>
        <span className="label">made-up generic motors by frame size; change them or add your own</span>
      </div>
      <table className="w-full">
        <thead><tr><th>motor</th><th>type</th><th className="text-right">frame</th><th className="text-right">torque or K_V</th><th className="text-right">current</th><th className="text-right">mass</th><th className="text-right">price</th><th><span className="sr-only">Change</span></th></tr></thead>
        <tbody>
          {shelf.motors.map((m) => (
            <tr key={m.id} className="rule-b">
              <td>{m.name}{own.has(m.id) ? <span className="label"> yours</span> : null}</td>
              <td>{m.type}</td>
              <td className="num text-right">{formatQuantity(m.frame, 'length', units)}</td>
              <td className="num text-right">{m.type === 'stepper' ? formatQuantity(m.holdTorque, 'torque', units, 3) : formatQuantity(m.speedConstant, 'speedConstant', units, 3)}</td>
              <td className="num text-right">{formatQuantity(m.type === 'stepper' ? m.ratedCurrent : m.peakCurrent, 'current', units, 3)}</td>
              <td className="num text-right">{formatQuantity(m.mass, 'mass', units, 3)}</td>
              <td className="num text-right">{formatQuantity(m.price, 'money', units, 3)}</td>
              <td className="whitespace-nowrap pr-0 text-right">
                <button type="button" className="btn-quiet" aria-expanded={open === m.id} aria-label={`Change ${m.name}`} onClick={() => setOpen(open === m.id ? undefined : m.id)}>Change</button>
                <button type="button" className="btn-quiet" aria-label={`Copy ${m.name}`} onClick={() => {
                  const id = newId();
                  put({ ...m, id, name: `${m.name}, copy` });
                  setOpen(id);
                }}>Copy</button>
                {own.has(m.id) ? <button type="button" className="btn-quiet" aria-label={`Remove your ${m.name}`} onClick={() => change({ ...edits, motors: (edits.motors ?? []).filter((x) => x.id !== m.id) })}>Remove yours</button> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {shelf.motors.filter((m) => m.id === open).map((m) => (
        <div key={m.id} className="my-2 grid max-w-[760px] grid-cols-2 gap-x-10 gap-y-1 border border-strong bg-panel p-4">
          <TextField label="Name" value={m.name} className="text-right" refuse={(v) => v === ''} onChange={(name) => put({ ...m, name })} />
          {[...MOTOR_ROWS[m.type], ...COMMON_ROWS].map((r) => (
            <QuantityField key={r.key} label={r.label} quantity={r.quantity} step={r.step} min={r.min} max={r.max} {...(r.whole ? { whole: true } : {})} value={(m as unknown as Record<string, number>)[r.key]!} onChange={(v) => put({ ...m, [r.key]: v })} />
          ))}
        </div>
      ))}
    </section>
  );
}

function FactorRow({ f, edited }: { f: Factor; edited: boolean }) {
  const { edits } = useShop();
  const set = (part: Partial<Factor>) => {
    const next = { value: f.value, low: f.low, high: f.high, ...part };
    if (!(next.low <= next.value && next.value <= next.high)) return { what: 'The three are out of order.', why: 'The likely value lies between low and high.', mend: 'Move the other end first.' };
    change({ ...edits, factors: { ...edits.factors, [f.id]: { ...next, source: 'set in the shop' } } });
    return undefined;
  };
  const reset = () => {
    const { [f.id]: _, ...rest } = edits.factors ?? {};
    change({ ...edits, factors: rest });
  };
  const step = Math.max(Math.abs(f.value) / 20, 1e-9);
  return (
    <tr className="rule-b">
      <td>{f.name}</td>
      {(['low', 'value', 'high'] as const).map((key) => (
        <td key={key} className="w-[108px]">
          <QuantityField label={`${f.name}, ${key === 'value' ? 'likely' : key}`} hideLabel quantity={f.quantity} value={f[key]} min={0} step={step} onChange={(v) => set(f.low === f.high ? { low: v, value: v, high: v } : { [key]: v })} />
        </td>
      ))}
      <td className="label">{f.source}</td>
      <td className="pr-0 text-right">{edited ? <button type="button" className="btn-quiet" aria-label={`Reset ${f.name}`} onClick={reset}>Reset</button> : null}</td>
    </tr>
  );
}

function Factors() {
  const { shelf, edits } = useShop();
  const [find, setFind] = useState('');
  const list = useMemo(() => Object.values(shelf.factors).filter((f) => f.name.toLowerCase().includes(find.toLowerCase())), [shelf, find]);
  return (
    <section aria-label="Factors" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Factors</h2>
        <label className="label">find <input value={find} onChange={(e) => setFind(e.target.value)} className="border-b border-dotted border-muted bg-transparent text-ink" /></label>
      </div>
      <table className="w-full">
        <thead><tr><th>factor</th><th className="text-right">low</th><th className="text-right">likely</th><th className="text-right">high</th><th>where it comes from</th><th><span className="sr-only">Reset</span></th></tr></thead>
        <tbody>{list.map((f) => <FactorRow key={f.id} f={f} edited={edits.factors?.[f.id] !== undefined} />)}</tbody>
      </table>
    </section>
  );
}

function Belts() {
  const { shelf } = useShop();
  const units = useUnits();
  const say = (v: number, q: QuantityId) => formatQuantity(v, q, units, 4);
  return (
    <section aria-label="Belt sections" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1"><h2>Belt sections</h2><span className="label">ratings are factors below, under the section’s name</span></div>
      <table className="w-full">
        <thead><tr><th>section</th><th>standard</th><th className="text-right">pitch</th><th className="text-right">tooth</th><th className="text-right">pitch-line offset u</th><th>widths</th><th className="text-right">closed lengths</th><th className="text-right">least teeth</th></tr></thead>
        <tbody>
          {shelf.sections.map((s) => (
            <tr key={s.id} className="rule-b">
              <td>{s.name}</td><td>{s.standard}</td><td className="num text-right">{say(s.pitch, 'length')}</td><td className="num text-right">{say(s.toothHeight, 'length')}</td><td className="num text-right">{say(s.offset, 'length')}</td>
              <td className="num">{s.widths.map((w) => formatQuantity(w, 'length', units, 3)).join(', ')}</td><td className="num text-right">{s.stock.length}: {s.stock[0]}–{s.stock[s.stock.length - 1]} teeth</td><td className="num text-right">{s.minTeeth}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Instruments() {
  const { shelf, edits } = useShop();
  const put = (id: string, part: { resolution?: number; error?: number }) => {
    const i = shelf.instruments.find((x) => x.id === id)!;
    change({ ...edits, instruments: [{ ...i, ...part, source: 'set in the shop' }, ...(edits.instruments ?? []).filter((x) => x.id !== id)] });
  };
  return (
    <section aria-label="Instruments" className="pb-6">
      <div className="border-b border-strong pb-1"><h2>Instruments</h2></div>
      <table className="w-full">
        <thead><tr><th>instrument</th><th>measures</th><th className="text-right">resolution</th><th className="text-right">largest error</th><th>where it comes from</th></tr></thead>
        <tbody>
          {shelf.instruments.map((i) => (
            <tr key={i.id} className="rule-b">
              <td>{i.name}</td><td>{i.measures}</td>
              <td className="w-[120px]"><QuantityField label={`${i.name}, resolution`} hideLabel quantity={i.measures} value={i.resolution} min={1e-9} max={10} step={i.resolution} onChange={(v) => put(i.id, { resolution: v })} /></td>
              <td className="w-[120px]"><QuantityField label={`${i.name}, error`} hideLabel quantity={i.measures} value={i.error} min={0} max={10} step={i.resolution} onChange={(v) => put(i.id, { error: v })} /></td>
              <td className="label">{i.source}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Units() {
  const { units, setUnit } = usePrefs();
  const shown = Object.values(QUANTITIES).filter((q) => q.units.length > 1 && q.id !== 'count');
  return (
    <section aria-label="Units" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1"><h2>Units on screen</h2><span className="label">any unit can be typed anywhere; these are the ones shown</span></div>
      <div className="grid grid-cols-3 gap-x-10 gap-y-1 pt-2">
        {shown.map((q) => (
          <ChoiceField key={q.id} label={q.name[0]!.toUpperCase() + q.name.slice(1)} value={displayUnit(q.id, units).symbol} options={q.units.map((u) => ({ value: u.symbol, label: u.symbol || '1' }))} onChange={(v) => setUnit(q.id, String(v))} />
        ))}
      </div>
    </section>
  );
}

/** The shelf shared by all joints. */
export default function ShopPage() {
  const { id } = useParams();
  const edits = useShop((s) => s.edits);
  const problem = useStorage((s) => s.problem);
  useCommonActions();
  const touched = Object.keys(edits).some((k) => Object.keys((edits as Record<string, object>)[k] ?? {}).length > 0);
  return (
    <div className={id ? 'px-5 pt-3' : 'mx-auto max-w-[1240px] px-8 py-6'}>
      <div className="flex items-baseline justify-between pb-3">
        <h1 className={id ? 'text-[15px]' : 'text-[20px]'}>Shop <span className="label font-normal">shared by all joints; a joint keeps its own copy of its motor</span></h1>
        <span>
          {touched ? <button type="button" className="btn-quiet" onClick={() => {
            const before = edits;
            change({});
            toast('The shop is as shipped.', { action: { label: 'Undo', onClick: () => change(before) } });
          }}>Reset the shop</button> : null}
          {id ? null : <Link className="btn-quiet" to="/">Back to the joints</Link>}
        </span>
      </div>
      {problem && !id ? <div className="pb-3"><ProblemNote problem={problem} /></div> : null}
      <Units />
      <Motors />
      <Belts />
      <Instruments />
      <Factors />
    </div>
  );
}
