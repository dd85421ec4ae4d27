import {
  formatQuantity,
  kindOfProgram,
  PROGRAMS,
  RECORDING_KINDS,
  type BenchTest,
  type LineReport,
  type RigProgram,
} from '@gristmill/core';
import { format } from 'date-fns';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { useRig, type OnRig } from '../../rig/session.ts';
import { serialKnown } from '../../rig/sources.ts';
import { TEST_NAMES } from '../../state/bench.ts';
import { useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { ChannelField } from './ChannelField.tsx';
import { LivePlot } from './LivePlot.tsx';

type SourceId = 'simulated' | 'serial' | 'bridge' | 'file';
/** Output first: what a rig is for. */
const FIRST_CHANNEL = 'output';

/** A rig, real or simulated: a live plot, and recordings that become tests. */
export function LiveRig({ line, onTaken }: { line: LineReport | undefined; onTaken: (testId: string) => void }) {
  const jointId = useOpen((s) => s.joint!.id);
  const variant = useVariant();
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const { reader, running, counts, says, kept, guided } = useRig();
  const { look, stop, take, recover, forget, simulate, bridge, serial, file: read, guide } = useRig.getState();
  const [sourceId, setSourceId] = useState<SourceId>('simulated');
  const [program, setProgram] = useState<RigProgram>('hysteresis');
  const [pace, setPace] = useState(1);
  const [baud, setBaud] = useState(115200);
  const [seed, setSeed] = useState(1);
  const [looked, setLooked] = useState(FIRST_CHANNEL);
  const [chosen, setChosen] = useState<BenchTest['kind']>('transmission');
  const file = useRef<HTMLInputElement>(null);
  const into = sourceId === 'simulated' ? kindOfProgram(program).id : undefined;
  const on: OnRig = { jointId, variant, line, shelf };

  useEffect(() => void look(jointId), [jointId, look]);
  // Leaving ends a recording as stopping does: its last lines are kept, and it can be brought back.
  useEffect(() => () => stop(), [stop]);

  const begin = () => {
    if (sourceId === 'simulated') void simulate(on, program, pace, seed);
    else if (sourceId === 'bridge') void bridge(on);
    else if (sourceId === 'serial') void serial(on, baud);
    else file.current?.click();
  };
  const session = async () => {
    const last = await guide(on, seed);
    if (!last) return;
    toast('The session is done: four tests of build S-1, a simulated specimen.');
    onTaken(last);
  };

  const channels = reader.channels.filter((c) => c.id !== 'time');
  // What is not sent cannot be looked at: the first that is.
  const channel = channels.find((c) => c.id === looked)?.id ?? channels[0]?.id ?? looked;
  return (
    <>
      <div className="flex min-h-0 min-w-0 flex-col px-5 pb-3 pt-3">
        <div className="flex flex-wrap items-baseline gap-3">
          <h1 className="text-[15px]">
            Live rig <span className="label font-normal">variant {variant.name}</span>
          </h1>
          <span role="status" className="num ml-auto text-[12.5px]" data-samples={counts.samples}>
            {running ? '● recording ' : ''}
            {counts.samples} samples{counts.malformed ? `, ${counts.malformed} lines left out` : ''}
            {counts.gaps ? `, ${counts.gaps} gaps in time` : ''}
          </span>
        </div>
        <p className="caution my-2">
          Current limit set and emergency stop in reach before power; cover belts and wheels; stand clear of levers.
        </p>
        {running
          ? null
          : kept.map((k) => (
              <p key={k.session} role="note" className="border-l-3 border-near bg-serious px-3 py-1.5">
                A recording ({k.source}, ended {format(new Date(k.when), 'HH:mm:ss')}) is in no test yet.{' '}
                <button type="button" className="mend" onClick={() => (setSourceId('file'), void recover(k))}>
                  Bring it back
                </button>{' '}
                <button type="button" className="mend" onClick={() => void forget(k.session)}>
                  Let it go
                </button>
              </p>
            ))}
        <div className="min-h-[220px] flex-1 border border-rule bg-panel">
          <LivePlot reader={reader} channel={channel} />
        </div>
        <div className="flex flex-wrap items-center gap-3 pt-2">
          {channels.length ? (
            <ChoiceField
              label="Channel"
              value={channel}
              options={channels.map((c) => ({ value: c.id, label: c.name }))}
              onChange={(v) => setLooked(String(v))}
            />
          ) : (
            <span className="label">Nothing has come yet.</span>
          )}
          {guided ? <span role="status">{guided}</span> : null}
          {says ? <span role="status">{says}</span> : null}
        </div>
      </div>
      <div className="min-h-0 space-y-1.5 overflow-y-auto border-l border-rule bg-panel px-3.5 pt-3">
        <h2 className="rule-b pb-1">Source</h2>
        <ChoiceField
          label="From"
          value={sourceId}
          disabled={running}
          options={[
            { value: 'simulated', label: 'Simulated specimen' },
            ...(serialKnown() ? [{ value: 'serial', label: 'Serial port' }] : []),
            { value: 'bridge', label: 'Bridge of this computer' },
            { value: 'file', label: 'Recorded file' },
          ]}
          onChange={(v) => setSourceId(v as SourceId)}
        />
        {sourceId === 'simulated' ? (
          <>
            <ChoiceField
              label="Programme"
              value={program}
              disabled={running}
              options={(Object.keys(PROGRAMS) as RigProgram[]).map((p) => ({ value: p, label: PROGRAMS[p].name }))}
              onChange={(v) => (setProgram(v as RigProgram), setPace(v === 'warming' ? 60 : Math.min(pace, 12)))}
            />
            <p className="label">
              The rig {PROGRAMS[program].says}, {PROGRAMS[program].seconds} s at{' '}
              {formatQuantity(PROGRAMS[program].rate, 'frequency')}. The specimen is drawn from the expected bands; what
              it truly is stays hidden.
            </p>
            <ChoiceField
              label="Pace"
              value={pace}
              disabled={running}
              options={[
                { value: 1, label: 'as it comes' },
                { value: 4, label: '4 times' },
                { value: 12, label: '12 times' },
                { value: 60, label: '60 times' },
              ]}
              onChange={(v) => setPace(Number(v))}
            />
            <ChoiceField
              label="Specimen"
              value={seed}
              disabled={running}
              options={[1, 2, 3, 4, 5].map((n) => ({ value: n, label: `no. ${n}` }))}
              onChange={(v) => setSeed(Number(v))}
            />
          </>
        ) : null}
        {sourceId === 'serial' ? (
          <ChoiceField
            label="Baud"
            value={baud}
            options={[9600, 57600, 115200, 250000, 921600].map((b) => ({ value: b, label: String(b) }))}
            onChange={(v) => setBaud(Number(v))}
          />
        ) : null}
        {sourceId === 'bridge' ? (
          <p className="label">
            The server reads lines from the device named in RIG (a serial device or a file), and from its own stand-in
            where none is named.
          </p>
        ) : null}
        {sourceId === 'serial' || sourceId === 'bridge' ? (
          <p className="label">
            A microcontroller prints one header object that names channels, then one line a sample:{' '}
            <span className="num break-all">{'{"t":12.5,"in":8191,"out":402,"load":-812,"i":1.42}'}</span>
          </p>
        ) : null}
        <button
          type="button"
          className="btn block w-full"
          disabled={readOnly}
          onClick={() => (running ? stop() : begin())}
        >
          {running ? 'Stop' : sourceId === 'file' ? 'Choose a file' : 'Record'}
        </button>
        <input
          ref={file}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label="Recorded file"
          onChange={(e) => {
            const f = e.target.files?.[0];
            e.target.value = '';
            if (f) void read(on, f);
          }}
        />
        <h2 className="rule-b pb-1 pt-3">Take it into a test</h2>
        {into ? (
          <p className="label">
            {TEST_NAMES[into]}, build of variant {variant.name}.
          </p>
        ) : (
          <ChoiceField
            label="Test"
            value={chosen}
            options={RECORDING_KINDS.map((k) => ({ value: k.id, label: k.name }))}
            onChange={(v) => setChosen(v as BenchTest['kind'])}
          />
        )}
        <button
          type="button"
          className="btn block w-full"
          disabled={readOnly || running || reader.samples === 0}
          onClick={() => void take(on, into ?? chosen, seed).then((id) => id && onTaken(id))}
        >
          Take the recording
        </button>
        <h2 className="rule-b pb-1 pt-3">Guided session</h2>
        <p className="label">
          Play, hysteresis, torque and transmission, one after the other, on the simulated specimen.
        </p>
        <button
          type="button"
          className="btn block w-full"
          disabled={readOnly || running || guided !== ''}
          onClick={() => void session()}
        >
          Run the session
        </button>
        <h2 className="rule-b pb-1 pt-3">Channels</h2>
        {reader.channels.length ? null : <p className="label">They show once a header or a sample has come.</p>}
        {reader.channels.map((c, i) =>
          c.id === 'time' ? null : (
            <ChannelField key={c.id} reader={reader} index={i} disabled={running} own={sourceId !== 'simulated'} />
          ),
        )}
      </div>
    </>
  );
}
