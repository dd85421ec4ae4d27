import {
  ALL_TEST_KINDS,
  calibrationsOf,
  CELL_COUNTS,
  CELL_LEVER,
  CELL_ZERO,
  contextFor,
  drawTruth,
  formatQuantity,
  LineReader,
  lineOrders,
  neighbourMeans,
  packRecording,
  PROGRAMS,
  type BenchTest,
  type LineReport,
  type ReadingsTest,
  type Recording,
  type RigProgram,
} from '@gristmill/core';
import { format } from 'date-fns';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { newId } from '../../state/identifier.ts';
import { useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { useShop } from '../../state/shop.ts';
import { saveNow } from '../../storage/autosave.ts';
import type { Interrupted } from '../../storage/live.ts';
import { TAB } from '../../storage/messages.ts';
import { liveRecordings, recordings } from '../../storage/shelf.ts';
import { storageProblem } from '../../storage/trouble.ts';
import { ChannelField } from './ChannelField.tsx';
import { LivePlot } from './LivePlot.tsx';
import { newTest, TEST_NAMES } from './new-test.ts';
import {
  BridgeSource,
  FileSource,
  SerialSource,
  serialKnown,
  SimulatedSource,
  type LineSource,
} from './rig-sources.ts';

type SourceId = 'simulated' | 'serial' | 'bridge' | 'file';
const KEEP_EVERY = 2000;

/** A reader with what channels were last said to be worth; a simulated specimen says so itself. */
const readerFor = (source: string): LineReader =>
  new LineReader(source.startsWith('simulated') ? {} : calibrationsOf(useShop.getState().shelf.instruments));

/** What a programme's recording goes into. */
const INTO: Readonly<Record<RigProgram, BenchTest['kind']>> = {
  play: 'hysteresis',
  hysteresis: 'hysteresis',
  torque: 'torque-cell',
  transmission: 'transmission',
  warming: 'temperature',
};

/** The channels a kind wants out of a recording, every `n`th sample. */
function forKind(kind: BenchTest['kind'], r: Recording, most = 400_000): Recording {
  const k = ALL_TEST_KINDS.find((x) => x.id === kind)!;
  const wish = (id: string): string =>
    kind === 'hysteresis' && id === 'angle' && !r.channels.some((c) => c.id === 'angle') ? 'output' : id;
  const wanted = (k.channels ?? [])
    .map((c) => ({ c, at: r.channels.findIndex((x) => x.id === wish(c.id)) }))
    .filter((x) => x.at >= 0);
  // A loop is told by a few thousand points: neighbours are averaged, which also takes the sensor's steps down.
  const few = kind === 'hysteresis' ? 1600 : most;
  return {
    ...r,
    channels: wanted.map(({ c }) => ({ id: c.id, name: c.label, quantity: c.quantity })),
    data: wanted.map(({ at }) => neighbourMeans(r.data[at]!, few)),
  };
}

/** A rig, real or simulated: a live plot, and recordings that become tests. */
export function LiveRig({ line, onTaken }: { line: LineReport | undefined; onTaken: (testId: string) => void }) {
  const joint = useOpen((s) => s.joint)!;
  const variant = useVariant();
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const [sourceId, setSourceId] = useState<SourceId>('simulated');
  const [program, setProgram] = useState<RigProgram>('hysteresis');
  const [pace, setPace] = useState(1);
  const [baud, setBaud] = useState(115200);
  const [seed, setSeed] = useState(1);
  const [running, setRunning] = useState(false);
  const [reader, setReader] = useState<LineReader>(() => new LineReader());
  const [channel, setChannel] = useState('output');
  const [count, setCount] = useState({ samples: 0, malformed: 0, gaps: 0 });
  const [says, setSays] = useState('');
  const [kept, setKept] = useState<readonly Interrupted[]>([]);
  /** The recording that is shown, under the name it is kept by. */
  const session = useRef('');
  const [guided, setGuided] = useState('');
  const source = useRef<LineSource>(undefined);
  const stopNow = useRef<() => void>(() => undefined);
  const file = useRef<HTMLInputElement>(null);
  const into = sourceId === 'simulated' ? INTO[program] : undefined;
  const [chosen, setChosen] = useState<BenchTest['kind']>('transmission');
  const target = into ?? chosen;

  useEffect(() => {
    liveRecordings.interrupted(joint.id).then(setKept, () => undefined);
  }, [joint.id]);
  // Leaving ends a recording as stopping does: its last lines are kept, and it can be brought back.
  useEffect(() => () => stopNow.current(), []);
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(
      () => setCount({ samples: reader.samples, malformed: reader.malformed, gaps: reader.gaps }),
      250,
    );
    return () => clearInterval(timer);
  }, [running, reader]);

  const truth = () => {
    const ratio = contextFor(variant, line, shelf).ratio;
    if (!line || ratio === undefined) return undefined;
    return drawTruth(
      line,
      lineOrders(variant, line),
      ratio,
      contextFor(variant, line, shelf).torqueConstant ?? 0.05,
      seed,
    );
  };

  /** Runs a source into a new reader, what comes kept every two seconds so that a reload loses little. */
  const run = (from: LineSource): Promise<LineReader> =>
    new Promise((resolve) => {
      source.current?.stop();
      source.current = from;
      const next = readerFor(from.name);
      setReader(next);
      setCount({ samples: 0, malformed: 0, gaps: 0 });
      setSays('');
      setRunning(true);
      let lines: string[] = [];
      let ended = false;
      // Of this joint and this tab alone: a recording elsewhere, or one that was interrupted before, keeps its own.
      session.current = `${joint.id} ${TAB} ${Date.now().toString(36)}`;
      // A simulated one can be made again: the last one that nobody took makes room.
      if (from.name.startsWith('simulated'))
        void liveRecordings.interrupted(joint.id).then(
          (all) => all.filter((k) => k.source.startsWith('simulated')).forEach((k) => void forget(k.session)),
          () => undefined,
        );
      // What comes from a file is kept by the file.
      const keeper =
        from instanceof FileSource ? undefined : liveRecordings.begin(session.current, joint.id, from.name);
      const keep = async () => {
        const taken = lines;
        lines = [];
        // Where storage is full or blocked the recording goes on in memory, and taking it into a test says so.
        await keeper?.keep(taken).catch(() => undefined);
      };
      const timer = setInterval(() => void keep(), KEEP_EVERY);
      const end = (why: string) => {
        if (ended) return;
        ended = true;
        clearInterval(timer);
        void keep().then(() => keeper?.end());
        setRunning(false);
        setSays(why);
        setCount({ samples: next.samples, malformed: next.malformed, gaps: next.gaps });
        if (next.channels.length && !next.column(channel))
          setChannel(next.channels.find((c) => c.id !== 'time')?.id ?? 'time');
        resolve(next);
      };
      stopNow.current = () => (from.stop(), end('Stopped.'));
      from
        .start(
          (l) => {
            next.line(l);
            lines.push(l);
          },
          end,
          setSays,
        )
        .catch((error: Error) =>
          end(error.name === 'NotFoundError' ? 'No port was chosen.' : `The source does not start: ${error.message}`),
        );
    });

  const begin = async () => {
    if (sourceId === 'simulated') {
      const t = truth();
      if (!t)
        return setSays(
          'There is no specimen to simulate: the line of this variant does not add up yet. Mend it in the Line.',
        );
      await run(new SimulatedSource(t, program, pace, seed));
    } else if (sourceId === 'bridge') await run(new BridgeSource());
    else if (sourceId === 'serial') await run(new SerialSource(baud));
    else file.current?.click();
  };

  /** How the simulated rig is set for a kind: what a person would measure of a real one. */
  const rigOf = (kind: BenchTest['kind']): Record<string, number> => {
    if (kind === 'torque-cell')
      return {
        lever: CELL_LEVER,
        leverError: 2e-4,
        zeroCounts: CELL_ZERO,
        knownMass: 1,
        knownCounts: Math.round(CELL_ZERO + 9.80665 * CELL_COUNTS),
      };
    const heating = kind === 'temperature' ? truth()?.heating : undefined;
    return heating ? { torque: heating.torque, ambient: heating.ambient } : {};
  };

  /** Makes a test of what was recorded. */
  const take = async (
    from: LineReader,
    kind: BenchTest['kind'],
    name: string,
    buildName?: string,
  ): Promise<string | undefined> => {
    const whole = from.recording();
    if (!whole) return undefined;
    const recording = forKind(kind, whole);
    const missing = ALL_TEST_KINDS.find((k) => k.id === kind)!.channels!.filter(
      (c) => !c.optional && c.id !== 'time' && !recording.channels.some((x) => x.id === c.id),
    );
    if (missing.length) {
      setSays(
        `${TEST_NAMES[kind]} wants ${missing.map((c) => c.label).join(' and ')}, and the rig sent ` +
          `${whole.channels.map((c) => c.name).join(', ')}. Choose another test, or name the channels so in ` +
          'the header.',
      );
      return undefined;
    }
    // The joint as it is now: a session takes several in a row.
    const builds = useOpen.getState().joint!.builds;
    let buildId = builds.find(
      (b) => b.variantId === variant.id && (buildName === undefined || b.name === buildName),
    )?.id;
    const made = newId();
    const t = newTest(kind, buildId ?? made, shelf, sourceId === 'simulated' ? rigOf(kind) : {}) as ReadingsTest;
    let packed;
    try {
      packed = await recordings.keep(name, packRecording(recording));
    } catch (error) {
      const p = storageProblem(error);
      setSays(`${p.what} The recording is still here: free space, then take it again.`);
      return undefined;
    }
    const refused = useOpen.getState().edit(`Take a recording: ${TEST_NAMES[kind].toLowerCase()}`, (d) => {
      if (!buildId) {
        buildId = made;
        d.builds.push({
          id: made,
          variantId: variant.id,
          name: buildName ?? `${variant.name}-1`,
          date: format(new Date(), 'yyyy-MM-dd'),
          process: buildName ? 'Simulated specimen, drawn from the expected bands.' : '',
          notes: '',
        });
      }
      d.tests.push({ ...t, buildId: buildId!, recording: packed } as BenchTest);
    });
    if (refused) return undefined;
    // What was kept while it ran has served once the test is stored, and not before.
    const taken = session.current;
    void saveNow().then(() => (useOpen.getState().save === 'saved' ? forget(taken) : undefined));
    return t.id;
  };

  const forget = async (which: string) => {
    await liveRecordings.forget(which).catch(() => undefined);
    setKept((k) => k.filter((x) => x.session !== which));
  };

  const recover = async (k: Interrupted) => {
    const next = readerFor(k.source);
    for (const l of await liveRecordings.lines(k)) next.line(l);
    session.current = k.session;
    setReader(next);
    setCount({ samples: next.samples, malformed: next.malformed, gaps: next.gaps });
    setSourceId('file');
    setSays(`Recovered ${next.samples} samples of ${k.source}.`);
    setKept((all) => all.filter((x) => x !== k));
  };

  /** Play, hysteresis, torque and transmission, one after the other, on the simulated specimen. */
  const guide = async () => {
    const t = truth();
    if (!t)
      return setSays(
        'There is no specimen to simulate: the line of this variant does not add up yet. Mend it in the Line.',
      );
    let last: string | undefined;
    for (const p of ['play', 'hysteresis', 'torque', 'transmission'] as const) {
      setGuided(`${PROGRAMS[p].name}: the rig ${PROGRAMS[p].says}…`);
      const r = await run(new SimulatedSource(t, p, 12, seed));
      // The play programme pushes lightly to and fro: its loop gives play alone.
      if (p !== 'play') last = (await take(r, INTO[p], `simulated, ${PROGRAMS[p].name.toLowerCase()}`, 'S-1')) ?? last;
      else {
        const out = r.column('output');
        if (out && out.length) {
          const test = newTest('play-lever', '', shelf, { lever: 0.18 });
          let [low, high] = [Infinity, -Infinity];
          const third = Math.floor(out.length / 3);
          const readings = [0, 1, 2].map((k) => {
            [low, high] = [Infinity, -Infinity];
            for (let i = k * third; i < (k + 1) * third; i++)
              [low, high] = [Math.min(low, out[i]!), Math.max(high, out[i]!)];
            const d = 2 * 0.18 * Math.sin((high - low) / 2);
            return {
              id: newId(),
              angle: (k * 2 * Math.PI) / 3,
              difference: d,
              text: `${(d * 1e3).toFixed(3)} mm, from the rig`,
            };
          });
          const made = newId();
          useOpen.getState().edit('Take a recording: play at a lever', (d) => {
            const at = d.builds.find((b) => b.variantId === variant.id && b.name === 'S-1')?.id;
            if (!at)
              d.builds.push({
                id: made,
                variantId: variant.id,
                name: 'S-1',
                date: format(new Date(), 'yyyy-MM-dd'),
                process: 'Simulated specimen, drawn from the expected bands.',
                notes: '',
              });
            d.tests.push({
              ...test,
              buildId: at ?? made,
              rig: { ...test.rig, push: 0.06 * t.torque, correctWindUp: true },
              readings,
            } as BenchTest);
          });
        }
      }
    }
    setGuided('');
    toast('The session is done: four tests of build S-1, a simulated specimen.');
    if (last) onTaken(last);
  };

  const channels = reader.channels.filter((c) => c.id !== 'time');
  return (
    <>
      <div className="flex min-h-0 min-w-0 flex-col px-5 pb-3 pt-3">
        <div className="flex flex-wrap items-baseline gap-3">
          <h1 className="text-[15px]">
            Live rig <span className="label font-normal">variant {variant.name}</span>
          </h1>
          <span role="status" className="num ml-auto text-[12.5px]" data-samples={count.samples}>
            {running ? '● recording ' : ''}
            {count.samples} samples{count.malformed ? `, ${count.malformed} lines left out` : ''}
            {count.gaps ? `, ${count.gaps} gaps in time` : ''}
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
                <button type="button" className="mend" onClick={() => void recover(k)}>
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
              onChange={(v) => setChannel(String(v))}
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
          onClick={() => (running ? stopNow.current() : void begin())}
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
            if (f) void run(new FileSource(f));
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
            options={ALL_TEST_KINDS.filter((k) => k.channels?.length && !k.channels.some((c) => c.id === 'sound')).map(
              (k) => ({ value: k.id, label: k.name }),
            )}
            onChange={(v) => setChosen(v as BenchTest['kind'])}
          />
        )}
        <button
          type="button"
          className="btn block w-full"
          disabled={readOnly || running || reader.samples === 0}
          onClick={() => void take(reader, target, source.current?.name ?? 'recording').then((id) => id && onTaken(id))}
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
          onClick={() => void guide()}
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
