import { BODY_FIELDS, formatQuantity, MOTOR_FIELDS, type Motor, type Problem } from '@gristmill/core';
import { useState } from 'react';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { PasteTable } from '../../parts/PasteTable.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { newId } from '../../state/identifier.ts';
import { useUnits } from '../../state/prefs.ts';
import { useShop } from '../../state/shop.ts';
import { readCurve } from '../line/curve.ts';
import { TYPE_NAMES } from '../line/MotorPanel.tsx';
import { putOn, takeOff } from '../../storage/edit-shop.ts';
import { motorText } from './motor-text.ts';

/** One motor opened for change. */
function MotorForm({ m }: { m: Motor }) {
  const [pasting, setPasting] = useState<'curve' | 'curveEver' | undefined>();
  const put = (motor: Motor) => putOn('motors', motor);
  const take = (text: string): Problem | undefined => {
    const read = readCurve(text);
    if (!read.ok) return read.problem;
    put({ ...m, [pasting!]: read.value });
    setPasting(undefined);
    return undefined;
  };
  const without = (): Motor => {
    const { curve: _c, curveEver: _e, ...rest } = m;
    return rest as Motor;
  };
  return (
    <div className="my-2 max-w-[820px] border border-strong bg-panel p-4">
      <div className="grid grid-cols-2 gap-x-10 gap-y-1">
        <TextField
          label="Name"
          value={m.name}
          className="text-right"
          refuse={(v) => v === ''}
          onChange={(name) => put({ ...m, name })}
        />
        {m.type === 'brushless' ? (
          <ChoiceField
            label="Rotor sensor"
            value={m.sensored ? 'yes' : 'no'}
            options={[
              { value: 'yes', label: 'sensored' },
              { value: 'no', label: 'sensorless' },
            ]}
            onChange={(v) => put({ ...m, sensored: v === 'yes' })}
          />
        ) : (
          <span className="label self-end">{TYPE_NAMES[m.type]}</span>
        )}
        {[...MOTOR_FIELDS[m.type], ...BODY_FIELDS].map((r) => (
          <QuantityField
            key={r.key}
            label={r.label}
            quantity={r.quantity}
            step={r.step}
            min={r.min}
            max={r.max}
            {...(r.whole ? { whole: true } : {})}
            {...(r.help ? { help: r.help } : {})}
            value={(m as unknown as Record<string, number>)[r.key] ?? 0}
            onChange={(v) => put({ ...m, [r.key]: v })}
          />
        ))}
      </div>
      {pasting ? (
        <PasteTable
          title={pasting === 'curve' ? 'Paste speed and torque, for moments' : 'Paste speed and torque, continuous'}
          hint="Two columns; a heading may name them and their units: speed (rpm), torque (N·m)."
          onTake={take}
          onCancel={() => setPasting(undefined)}
        />
      ) : (
        <p className="flex gap-2 pt-2">
          <button type="button" className="btn" onClick={() => setPasting('curve')}>
            {m.curve ? `Curve of ${m.curve.speed.length} points: replace` : 'Curve from a data sheet'}
          </button>
          {m.curve ? (
            <button type="button" className="btn" onClick={() => setPasting('curveEver')}>
              {m.curveEver ? 'Continuous curve: replace' : 'Continuous curve'}
            </button>
          ) : null}
          {m.curve ? (
            <button type="button" className="btn-quiet" onClick={() => put(without())}>
              Back to the constants
            </button>
          ) : null}
        </p>
      )}
    </div>
  );
}

/** The motors of the shop. */
export function Motors() {
  const { edits, shelf } = useShop();
  const units = useUnits();
  const [open, setOpen] = useState<string | undefined>();
  const own = new Set((edits.motors ?? []).map((m) => m.id));
  const start = (m: Motor, name: string) => {
    const id = newId();
    putOn('motors', { ...structuredClone(m), id, name });
    setOpen(id);
  };
  return (
    <section aria-label="Motors" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Motors</h2>
        <span className="flex items-baseline gap-4">
          <span className="label">made-up generic motors by frame size; change them or add your own</span>
          <ChoiceField
            label="New motor"
            hideLabel
            value=""
            options={[
              { value: '', label: 'New motor…' },
              ...Object.entries(TYPE_NAMES).map(([value, label]) => ({ value, label })),
            ]}
            onChange={(v) => {
              const m = shelf.motors.find((x) => x.type === v);
              if (m) start(m, `New ${TYPE_NAMES[m.type]}`);
            }}
          />
        </span>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>motor</th>
            <th>type</th>
            <th className="text-right">frame</th>
            <th className="text-right">torque or K_V</th>
            <th className="text-right">current</th>
            <th className="text-right">mass</th>
            <th className="text-right">price</th>
            <th>
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shelf.motors.map((m) => {
            const text = motorText(m, units);
            return (
              <tr key={m.id} className="rule-b">
                <td>
                  {m.name}
                  {own.has(m.id) ? <span className="label"> yours</span> : null}
                  {m.curve ? <span className="label"> with curve</span> : null}
                </td>
                <td>{TYPE_NAMES[m.type]}</td>
                <td className="num text-right">{formatQuantity(m.frame, 'length', units)}</td>
                <td className="num text-right">{text.size}</td>
                <td className="num text-right">{text.current}</td>
                <td className="num text-right">{formatQuantity(m.mass, 'mass', units, 3)}</td>
                <td className="num text-right">{formatQuantity(m.price, 'money', units, 3)}</td>
                <td className="whitespace-nowrap pr-0 text-right">
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-expanded={open === m.id}
                    aria-label={`Change ${m.name}`}
                    onClick={() => setOpen(open === m.id ? undefined : m.id)}
                  >
                    Change
                  </button>
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-label={`Copy ${m.name}`}
                    onClick={() => start(m, `${m.name}, copy`)}
                  >
                    Copy
                  </button>
                  {own.has(m.id) ? (
                    <button
                      type="button"
                      className="btn-quiet"
                      aria-label={`Remove your ${m.name}`}
                      onClick={() => takeOff('motors', m.id)}
                    >
                      Remove yours
                    </button>
                  ) : null}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {shelf.motors
        .filter((m) => m.id === open)
        .map((m) => (
          <MotorForm key={m.id} m={m} />
        ))}
    </section>
  );
}
