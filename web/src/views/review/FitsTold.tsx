import type { Build } from '@gristmill/core';
import { attemptSays } from '@gristmill/core/fit/attempts';
import { fitHistory } from '@gristmill/core/fit/process-fit';
import { Said } from '../../parts/Said.tsx';
import { today } from '../../state/bench.ts';
import { useShelf } from '../../state/shelf.ts';

/** Whether the process or the design was off in a build, by what it took until its parts fitted; nothing where none was logged. */
export function FitsTold({ build }: { build: Build }) {
  const { processes } = useShelf();
  const list = build.attempts ?? [];
  if (list.length === 0) return null;
  const says = list.map((a) => {
    const process = processes.find((p) => p.id === a.process);
    const made = process && fitHistory(process, today());
    return attemptSays(a, process && made?.ok ? { process, fit: made.value.now } : undefined);
  });
  const count = (...blames: string[]) => says.filter((s) => blames.includes(s.blame)).length;
  const [fitted, process, design, open] = [
    count('none'),
    count('process', 'both'),
    count('design', 'both'),
    count('open'),
  ];
  const parts = [
    fitted && `${fitted} fitted as they came`,
    process && `${process} because of the process`,
    design && `${design} because of the drawing`,
    open && `${open} not settled`,
  ].filter(Boolean);
  return (
    <details className="py-1" data-fits={list.length}>
      <summary className="label cursor-pointer">
        Fits of build {build.name}: of {list.length}, {parts.join(', ')}.
      </summary>
      <ul className="list-disc pl-5 text-[12.5px]">
        {says.map((s) => (
          <li key={s.attempt.id}>
            {s.attempt.name}: <Said>{s.says}</Said>
          </li>
        ))}
      </ul>
    </details>
  );
}
