import { askedValue, blankLimit, LIMIT_IDS, LIMIT_KINDS, type Limit, type LimitId } from '@gristmill/core';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { QuantityText } from '../../parts/FigureText.tsx';
import { LimitName } from '../../state/straight.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { useJoint, useOpen } from '../../state/open.ts';
import { useLine } from '../../workers/queries.ts';

/** Turn-back is asked three ways; every other limit has one sense. */
const TURN_BACK = [
  { value: 'max', label: 'must' },
  { value: 'min', label: 'must not' },
  { value: 'either', label: 'either' },
];

/** Changes a limit as a person means it: then it is no suggestion any more. */
function meant(limit: Limit, change: Partial<Pick<Limit, 'value' | 'need'>>): void {
  Object.assign(limit, change);
  delete limit.suggested;
}

/** What the brief limits, each a must or a wish. */
export function Limits() {
  const joint = useJoint();
  const edit = useOpen((s) => s.edit);
  const demand = useLine().report?.demand;
  const missing = LIMIT_IDS.filter((id) => !joint.brief.limits.some((l) => l.id === id));
  return (
    <Section title="Limits" aside="must or wish">
      {joint.brief.limits.map((l, i) => {
        const kind = LIMIT_KINDS[l.id];
        const follows = l.value === null;
        const canFollow = l.id === 'torque' || l.id === 'speed';
        const asked = demand ? askedValue(l, demand) : (l.value ?? 0);
        return (
          <div
            key={l.id}
            className="rule-b grid grid-cols-[minmax(0,1fr)_9px_82px_58px_14px] items-baseline gap-x-1 pb-1"
            data-limit-row={l.id}
          >
            <span title={kind.help} className="truncate text-[12.5px]">
              <LimitName kind={kind} />
            </span>
            <span className="num text-muted">
              {l.id === 'noise' || l.sense === 'either' ? '' : l.sense === 'min' ? '≥' : '≤'}
            </span>
            {l.id === 'noise' ? (
              <TextField
                label="Noise, in words"
                hideLabel
                value={l.note ?? ''}
                placeholder="in words"
                maxLength={500}
                className="w-full"
                onChange={(note) => edit('Noise note', (d) => void (d.brief.limits[i]!.note = note))}
              />
            ) : l.sense === 'either' ? (
              <span className="label text-right">either</span>
            ) : follows ? (
              <button
                type="button"
                className="num whitespace-nowrap border-b border-dotted border-muted text-right"
                title="Follows the load cases. Press to set a value of your own."
                onClick={() => edit(`Limit: ${kind.name}`, (d) => void (d.brief.limits[i]!.value = asked))}
              >
                <QuantityText value={asked} quantity={kind.quantity} />
              </button>
            ) : (
              <QuantityField
                label={`${kind.name} limit`}
                hideLabel
                quantity={kind.quantity}
                value={asked}
                min={0}
                max={1e9}
                step={Math.max(Math.abs(asked) / 20, 1e-6)}
                onChange={(v) => edit(`Limit: ${kind.name}`, (d) => void meant(d.brief.limits[i]!, { value: v }))}
              />
            )}
            <ChoiceField
              label={`${kind.name}: must or wish`}
              hideLabel
              value={l.need}
              options={[
                { value: 'must', label: 'must' },
                { value: 'wish', label: 'wish' },
              ]}
              onChange={(v) =>
                edit(`${kind.name}: ${v}`, (d) => void meant(d.brief.limits[i]!, { need: v as 'must' | 'wish' }))
              }
            />
            <button
              type="button"
              className="btn-quiet -ml-1.5 px-1"
              aria-label={`Remove the limit ${kind.name}`}
              onClick={() => edit(`Remove limit ${kind.name}`, (d) => void d.brief.limits.splice(i, 1))}
            >
              ✕
            </button>
            {l.id === 'turnBack' ? (
              <span className="col-span-5 flex items-baseline justify-between">
                <span className="label">turned back by hand, unpowered</span>
                <ChoiceField
                  label="Turn-back: must, must not or either"
                  hideLabel
                  value={l.sense}
                  options={TURN_BACK}
                  onChange={(v) =>
                    edit(
                      `Turn-back: ${v === 'max' ? 'must' : v === 'min' ? 'must not' : 'either'}`,
                      (d) =>
                        void Object.assign(d.brief.limits[i]!, {
                          sense: v as Limit['sense'],
                          value: d.brief.limits[i]!.value ?? 1,
                        }),
                    )
                  }
                />
              </span>
            ) : null}
            {l.suggested ? (
              <span className="label col-span-5">
                only suggested: it counts for nothing until you change it{' '}
                <button
                  type="button"
                  className="mend"
                  aria-label={`Wish for ${kind.name.toLowerCase()} as suggested`}
                  onClick={() => edit(`Limit: ${kind.name}`, (d) => void meant(d.brief.limits[i]!, {}))}
                >
                  I want it
                </button>
              </span>
            ) : null}
            {canFollow ? (
              <span className="label col-span-5">
                {follows ? (
                  'follows the load cases'
                ) : (
                  <button
                    type="button"
                    className="mend"
                    onClick={() => edit(`Limit: ${kind.name}`, (d) => void (d.brief.limits[i]!.value = null))}
                  >
                    Follow the load cases
                  </button>
                )}
              </span>
            ) : null}
          </div>
        );
      })}
      {missing.length ? (
        <ChoiceField
          label="Add limit"
          value=""
          options={[
            { value: '', label: 'choose…' },
            ...missing.map((id) => ({ value: id, label: LIMIT_KINDS[id].name })),
          ]}
          onChange={(v) =>
            v &&
            edit(
              `Add limit ${LIMIT_KINDS[v as LimitId].name}`,
              (d) => void d.brief.limits.push(blankLimit(v as LimitId)),
            )
          }
        />
      ) : null}
    </Section>
  );
}
