import type { Problem, BenchTest, TestKind } from '@gristmill/core';
import { proxy, transfer } from 'comlink';
import { useCallback, useRef, useState } from 'react';
import { storageProblem } from '../../storage/trouble.ts';
import { Cancelled } from '../../workers/pool.ts';
import { corePool } from '../../workers/core.ts';
import { takeRefusal } from '../../state/refusal.ts';
import { editTest } from './edit-test.ts';
import { usePrefs } from '../../state/prefs.ts';

const MAX = 400_000_000;

interface State {
  readonly busy: string;
  readonly problem: Problem | undefined;
  readonly notes: readonly string[];
}

/** Reads files and pasted rows for a test in a worker; what cannot be read changes nothing. */
export function useImport(test: BenchTest, kind: TestKind) {
  const [state, setState] = useState<State>({ busy: '', problem: undefined, notes: [] });
  const controller = useRef<AbortController>(undefined);
  const take = useCallback(
    async (bytes: Uint8Array, name: string) => {
      if (bytes.length > MAX)
        return setState({
          busy: '',
          notes: [],
          problem: {
            what: `“${name}” is too large.`,
            why: `It has ${Math.round(bytes.length / 1e6)} MB.`,
            mend: 'Thin it out, or record for less long.',
          },
        });
      controller.current = new AbortController();
      setState({ busy: 'Reading…', problem: undefined, notes: [] });
      try {
        const read = await corePool.run(
          (api) =>
            api.importTest(
              kind.id,
              transfer(bytes, [bytes.buffer as ArrayBuffer]),
              name,
              usePrefs.getState().comma,
              proxy((busy: string) => setState((s) => ({ ...s, busy }))),
            ),
          { signal: controller.current.signal, heavy: true },
        );
        if (!read.ok) return setState({ busy: '', problem: read.problem, notes: [] });
        const { imported, recording } = read.value;
        const refused = editTest(
          test.id,
          recording ? 'Import a recording' : `Import ${imported.readings.length} readings`,
          (t) => {
            Object.assign(t.rig, imported.rig);
            t.readings.push(...(imported.readings as typeof t.readings));
            if (recording) t.recording = recording as typeof t.recording;
          },
        );
        takeRefusal();
        setState({ busy: '', problem: refused, notes: refused ? [] : imported.notes });
      } catch (error) {
        setState({
          busy: '',
          notes: [],
          problem:
            error instanceof Cancelled
              ? undefined
              : /quota/i.test(String(error))
                ? storageProblem(error)
                : {
                    what: 'The file could not be taken.',
                    why: (error as Error).message,
                    mend: 'Try again, or export what is here and reload.',
                  },
        });
      }
    },
    [test.id, kind.id],
  );
  return { state, take, cancel: () => controller.current?.abort() };
}
