import { formatQuantity, stageKind, type Mend, type StageRecord } from '@gristmill/core';
import { useMemo } from 'react';
import { useUnits } from '../../state/prefs.ts';
import { useSaid } from '../../state/said.ts';
import { useShelf } from '../../state/shelf.ts';
import { useStage } from '../../state/stages.ts';

/** Tables of alternatives a kind lays out; a row can be taken. */
export function KindTables({ stage, onTake }: { stage: StageRecord; onTake: (mend: Mend) => void }) {
  const shelf = useShelf();
  const units = useUnits();
  const said = useSaid();
  const opened = useStage(stage);
  const tables = useMemo(
    () => [
      ...(stageKind(stage.kind)?.tables?.(stage.params, shelf) ?? []),
      ...((opened?.ok ? opened.value : opened?.sketch)?.tables() ?? []),
    ],
    [stage, shelf, opened],
  );
  return (
    <>
      {tables.map((t, i) => (
        <details key={t.id} open={i === 0} className="pb-3">
          <summary className="rule-b cursor-pointer pb-1 font-semibold">{t.title}</summary>
          <table className="w-full text-[12.5px]" aria-label={t.title}>
            <thead>
              <tr>
                {t.columns.map((c) => (
                  <th key={c.name} className={c.quantity ? 'text-right' : ''}>
                    {c.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {t.rows.map((r, k) => (
                <tr key={k} className={r.current ? 'bg-paper font-semibold' : ''} aria-current={r.current || undefined}>
                  {r.cells.map((cell, n) => {
                    const q = t.columns[n]?.quantity;
                    const text = typeof cell === 'number' && q ? formatQuantity(cell, q, units, 5) : said(String(cell));
                    return (
                      <td key={n} className={`py-[2px] ${q ? 'num text-right' : 'num'}`}>
                        {n === 0 && r.take && !r.current ? (
                          <button
                            type="button"
                            className="mend"
                            aria-label={`Take ${said(r.take.label)}`}
                            onClick={() => onTake(r.take!)}
                          >
                            {text}
                          </button>
                        ) : (
                          text
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      ))}
    </>
  );
}
