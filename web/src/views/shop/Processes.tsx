import { formatQuantity, PROCESS_STARTS, PROCESS_TYPES, type Process } from '@gristmill/core';
import { furtherReading } from '@gristmill/core/fit/further';
import { fitHistory, type ProcessFit } from '@gristmill/core/fit/process-fit';
import { taughtFactors } from '@gristmill/core/fit/taught-factors';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { FitNumbers } from '../../parts/FitNumbers.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Said } from '../../parts/Said.tsx';
import { Section } from '../../parts/Section.tsx';
import { today } from '../../state/bench.ts';
import { newId } from '../../state/identifier.ts';
import { useUnits } from '../../state/prefs.ts';
import { useShop } from '../../state/shop.ts';
import { changeShop, putOn, takeOff } from '../../storage/edit-shop.ts';
import { FitEntries } from './processes/FitEntries.tsx';
import { MeasureCoupon } from './processes/MeasureCoupon.tsx';

const TYPES = PROCESS_TYPES.map((t) => ({ value: t, label: PROCESS_STARTS[t].name }));
const SIDES = [
  { value: 'outline', label: 'the exported outline' },
  { value: 'slicer', label: 'the slicer' },
  { value: 'none', label: 'nothing' },
];
const FEET = [
  { value: 'none', label: 'nothing' },
  { value: 'chamfer', label: 'drawn narrower at the bed' },
  { value: 'raft', label: 'a raft' },
];

/** What a process is: machine, tool, material, settings, and which side corrects what it does. */
function ProcessFields({ process, put }: { process: Process; put: (part: Partial<Process>) => void }) {
  const materials = useShop((s) => s.shelf.materials);
  const printed = PROCESS_STARTS[process.type].prints;
  const text = (label: string, key: 'machine' | 'settings' | 'direction', placeholder: string) => (
    <TextField
      label={label}
      value={process[key] ?? ''}
      maxLength={400}
      placeholder={placeholder}
      className="w-[58%] text-right"
      onChange={(v) => put({ [key]: v })}
    />
  );
  return (
    <>
      <TextField
        label="Name"
        value={process.name}
        refuse={(v) => v === ''}
        className="w-[58%] text-right font-semibold"
        onChange={(name) => put({ name })}
      />
      <ChoiceField
        label="Type"
        value={process.type}
        options={TYPES}
        onChange={(v) => put({ type: v as Process['type'] })}
      />
      {text('Machine', 'machine', 'which one, where it stands')}
      <QuantityField
        label={process.type === 'mill' ? 'Cutter' : process.type === 'cutter' ? 'Kerf' : 'Nozzle or spot'}
        quantity="length"
        value={process.tool}
        min={1e-5}
        max={0.1}
        step={5e-5}
        onChange={(v) => put({ tool: v })}
      />
      <ChoiceField
        label="Material"
        value={process.material}
        options={materials.map((m) => ({ value: m.id, label: m.name }))}
        onChange={(v) => put({ material: String(v) })}
      />
      {printed ? (
        <QuantityField
          label="Layer"
          quantity="length"
          value={process.layer}
          min={0}
          max={5e-3}
          step={2e-5}
          onChange={(v) => put({ layer: v })}
        />
      ) : null}
      {text('Settings', 'settings', 'speed, temperature, cooling')}
      {text('Direction', 'direction', 'how parts lie, which way x is')}
      <ChoiceField
        label="Corrected by"
        value={process.compensates}
        options={SIDES}
        help="Either the outline that is exported or the slicer’s contour setting, never both."
        onChange={(v) => put({ compensates: v as Process['compensates'] })}
      />
      {printed ? (
        <ChoiceField
          label="Against the foot"
          value={process.foot}
          options={FEET}
          help="Drawn narrower: no clean-up, but a weaker edge at the bed. A raft: true down to the bed, at the cost of a rough underside and 10 minutes."
          onChange={(v) => put({ foot: v as Process['foot'] })}
        />
      ) : null}
    </>
  );
}

/** What the process knows better than the shop's factors: expected play follows from it once it is taken. */
function Taught({ process, fit }: { process: Process; fit: ProcessFit }) {
  const { shelf, edits } = useShop();
  const units = useUnits();
  const um = (x: number) => formatQuantity(x, 'length', { length: 'µm', ...units }, 2);
  const rows = taughtFactors(fit, shelf).filter((t) => Math.abs(t.value / t.now - 1) > 0.02);
  if (rows.length === 0) return null;
  const take = () => {
    const before = edits;
    const source = `${process.name}, ${fit.counted} readings`;
    const told = Object.fromEntries(rows.map(({ id, value, low, high }) => [id, { value, low, high, source }]));
    if (!changeShop({ ...edits, factors: { ...edits.factors, ...told } }))
      toast('The shop’s factors say what this process does; expected play follows.', {
        action: { label: 'Undo', onClick: () => changeShop(before) },
      });
  };
  return (
    <p className="text-[12.5px]">
      {rows.map((t) => (
        <span key={t.id} className="block">
          {t.name}: the shop counts on {um(t.now)}, this process says {um(t.value)}.
        </span>
      ))}
      <button type="button" className="mend" onClick={take}>
        Expect play by it
      </button>
    </p>
  );
}

function ProcessSheet({ process, own }: { process: Process; own: boolean }) {
  const printed = PROCESS_STARTS[process.type].prints;
  const day = today();
  const made = fitHistory(process, day);
  const put = (part: Partial<Process>) => {
    const before = useShop.getState().edits;
    const bad = putOn('processes', { ...process, ...part, source: 'set in the shop' });
    if (!bad && part.fits && part.fits.length < process.fits.length)
      toast('The readings are removed.', { action: { label: 'Undo', onClick: () => changeShop(before) } });
  };
  const next = made.ok ? furtherReading(made.value.now, printed) : undefined;
  return (
    <section aria-label={`Process ${process.name}`} className="pt-4">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>{process.name}</h2>
        {own ? (
          <button type="button" className="btn-quiet" onClick={() => takeOff('processes', process.id)}>
            Take it off the shelf
          </button>
        ) : null}
      </div>
      <div className="grid grid-cols-2 gap-8 pt-2">
        <Section title="What it is">
          <ProcessFields process={process} put={put} />
        </Section>
        <Section title="What it does to sizes">
          {made.ok ? (
            <>
              <FitNumbers fit={made.value.now} printed={printed} />
              {made.value.notes.map((n) => (
                <p key={n} className="text-[12.5px] text-found">
                  <Said>{n}</Said>
                </p>
              ))}
              <p className="text-[12.5px]">
                <Said>{next!.says}</Said>
              </p>
              {process.fits.length > 0 ? <Taught process={process} fit={made.value.now} /> : null}
            </>
          ) : (
            <ProblemNote problem={made.problem} />
          )}
        </Section>
      </div>
      <Section title="Measure a coupon" aside="ten readings, three minutes">
        <MeasureCoupon
          key={process.id}
          process={process}
          printed={printed}
          onSave={(entry) => put({ fits: [...process.fits, entry] })}
        />
      </Section>
      <Section title="History">
        {made.ok ? (
          <FitEntries process={process} history={made.value} put={put} />
        ) : (
          <ul>
            {process.fits.map((e) => (
              <li key={e.id} className="rule-b flex justify-between">
                <span>
                  {e.day}, {e.readings.length} readings
                </span>
                <button
                  type="button"
                  className="btn-quiet"
                  onClick={() => put({ fits: process.fits.filter((x) => x.id !== e.id) })}
                >
                  Remove
                </button>
              </li>
            ))}
          </ul>
        )}
      </Section>
      <p className="caution mt-2">
        Hot ends and beds burn; resin needs gloves and fresh air; eye protection where supports are broken off or sheet
        is cut. Local rules come first.
      </p>
    </section>
  );
}

/** Printers and cutters with their tool, material and settings, and what was measured of each. */
export function Processes() {
  const { shelf, edits } = useShop();
  const units = useUnits();
  const [params, setParams] = useSearchParams();
  const day = today();
  const id = params.get('process') ?? shelf.processes[0]?.id;
  const shown = shelf.processes.find((p) => p.id === id);
  const choose = (to: string) => setParams({ shelf: 'processes', process: to }, { replace: true });
  const um = (x: number, digits = 3) => formatQuantity(x, 'length', { length: 'µm', ...units }, digits);
  return (
    <section aria-label="Processes" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Processes</h2>
        <span className="label">
          what each adds to a contour, a side, ± for 95 %; measured once, it is right for every joint
        </span>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>name</th>
            <th>type</th>
            <th>material</th>
            <th className="text-right">outsides</th>
            <th className="text-right">holes</th>
            <th className="text-right">scatter</th>
            <th className="pl-4">measured</th>
            <th>
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shelf.processes.map((p) => {
            const made = fitHistory(p, day);
            const now = made.ok ? made.value.now : undefined;
            const last = p.fits
              .map((e) => e.day)
              .sort()
              .at(-1);
            return (
              <tr key={p.id} className={`rule-b ${p.id === shown?.id ? 'bg-panel' : ''}`} data-process={p.id}>
                <td>
                  <button
                    type="button"
                    className={`text-left ${p.id === shown?.id ? 'font-semibold' : 'mend'}`}
                    aria-current={p.id === shown?.id}
                    onClick={() => choose(p.id)}
                  >
                    {p.name}
                  </button>
                </td>
                <td>{PROCESS_STARTS[p.type].name}</td>
                <td>{shelf.materials.find((m) => m.id === p.material)?.name ?? p.material}</td>
                <td className="num whitespace-nowrap text-right">
                  {now ? `${um(now.out.value)} ± ${um(1.96 * now.out.u, 2)}` : '—'}
                </td>
                <td className="num whitespace-nowrap text-right">
                  {now ? `${um(now.into.value)} ± ${um(1.96 * now.into.u, 2)}` : '—'}
                </td>
                <td className="num text-right">{now ? um(now.spread.value) : '—'}</td>
                <td className="num pl-4">{last ?? <span className="text-muted">not yet</span>}</td>
                <td className="pr-0 text-right">
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-label={`Copy ${p.name}`}
                    onClick={() => {
                      const copy = { ...p, id: newId(), name: `${p.name}, mine`, fits: [], source: 'set in the shop' };
                      if (!putOn('processes', copy)) choose(copy.id);
                    }}
                  >
                    Copy
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {shown ? (
        <ProcessSheet key={shown.id} process={shown} own={edits.processes?.some((x) => x.id === shown.id) ?? false} />
      ) : null}
    </section>
  );
}
