import { formatQuantity, sayProblem, stated } from '@gristmill/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { Said } from '../../../parts/Said.tsx';
import { useJoint, useVariant } from '../../../state/open.ts';
import { useUnits } from '../../../state/prefs.ts';
import { useEdits } from '../../../state/shelf.ts';
import { contentId } from '../../../workers/content.ts';
import { lineBodies, lineClashes } from '../../../workers/solid.ts';
import type { LineBody } from '../../../workers/solid-api.ts';
import { BusyNote, useMaking } from '../making.tsx';
import { SpaceCanvas, type Shown } from './SpaceCanvas.tsx';

/** Surfaces of a whole line may stray so far from the exact ones, m: less than a pixel shows. */
const COARSE = 6e-5;

/** A name within a sentence: its first word small, standards and threads as they are. */
const lowered = (name: string): string => (/^[A-Z][a-z]/.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name);

/** Colours by what a body turns with; what is bought and stands still is paler. */
function toneOf(b: LineBody): string {
  if (b.of === 'motor' && b.turns === 'fixed') return '--belt';
  if (/screw|tie|nut|washer|bearing/.test(b.id)) return '--rule';
  return { fixed: '--part', input: '--belt', output: '--part-b', free: '--expected-soft' }[b.turns];
}

/** What the name of a body says of where it is. */
const whereOf = (b: LineBody): string =>
  b.of === 'motor' ? 'motor' : b.of === 'case' ? 'housing' : b.stage >= 0 ? `stage ${b.stage + 1}` : 'output';

/** One body with its figures. */
function Told({ body }: { body: LineBody }) {
  const units = useUnits();
  return (
    <div
      className="absolute right-3 top-3 w-[230px] border border-rule bg-panel p-2 text-[13px]"
      data-picked={body.id}
      role="status"
    >
      <p className="font-semibold">{body.name}</p>
      <p className="label">
        {whereOf(body)}; {body.quantity === 1 ? 'one' : `${body.quantity} of them`}; {body.material}
      </p>
      {body.mass > 0 ? (
        <p className="num">
          {formatQuantity(body.mass, 'mass', { mass: 'g', ...units }, 3)}
          {body.money > 0 ? `, ${formatQuantity(body.money, 'money', units, 3)}` : ''} each
        </p>
      ) : null}
      {body.note ? (
        <p className="label">
          <Said>{body.note}</Said>
        </p>
      ) : null}
    </div>
  );
}

/** The whole line in space, turned by the crank. */
export default function LineSpaceView() {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const [share, setShare] = useState(0);
  const [picked, setPicked] = useState<string | undefined>();
  const { busy, make } = useMaking('It could not be looked for');
  const [found, setFound] = useState<{ of: string; says: readonly string[]; near: readonly string[] } | undefined>();
  const { motor, mount, output, housing, stages } = variant;
  const key = [motor, mount, output, housing, stages, edits].map(contentId).join();
  const meshed = useQuery({
    queryKey: ['line in space', variant.id, key],
    queryFn: ({ signal }) => lineBodies({ variant, shop: edits, chordError: COARSE }, setShare, signal),
    enabled: stages.length > 0,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (was) => was,
    structuralSharing: false,
  });
  const made = meshed.data?.ok ? meshed.data.value : undefined;
  const bodies = useMemo(
    () => made?.map((b): Shown => ({ id: b.id, mesh: b, motions: b.motions, tone: toneOf(b) })),
    [made],
  );
  const told = made?.find((b) => b.id === picked);
  const nameOf = (id: string) => {
    const b = made?.find((x) => x.id === id);
    return b ? `${lowered(b.name)} (${whereOf(b)})` : id;
  };
  const look = () =>
    make('Looking', async (says, signal) => {
      const out = await lineClashes({ variant, shop: edits }, (x) => says('Looking', x), signal);
      if (!out.ok) return void toast(sayProblem(out.problem));
      setFound({
        of: key,
        says: out.value.clashes.map((c) => `${nameOf(c.a)} in ${nameOf(c.b)}, ${c.volume.toPrecision(2)} mm³`),
        near: out.value.near.slice(0, 4).map((c) => `${nameOf(c.a)} to ${nameOf(c.b)} ${stated(c.gap, 'length', 2)}`),
      });
    });
  const trouble =
    stages.length === 0
      ? 'There is nothing to look at yet: the line has no stages. Add one in the Line.'
      : meshed.data && !meshed.data.ok
        ? sayProblem(meshed.data.problem)
        : meshed.isError
          ? 'The bodies could not be made. Change something, or reload the page.'
          : '';
  return (
    <div className="relative flex h-full min-h-0 flex-col">
      <h1 className="px-5 pt-2 text-[15px]">
        The whole line <span className="label block font-normal">the crank turns it; click a part to see it alone</span>
      </h1>
      <SpaceCanvas
        name={`${joint.name}, variant ${variant.name}`}
        bodies={trouble ? undefined : bodies}
        trouble={trouble}
        waiting={meshed.isFetching ? `Making the bodies: ${(share * 100).toFixed(0)} %` : ''}
        picked={told?.id}
        onPick={setPicked}
      >
        {busy ? (
          <BusyNote busy={busy} />
        ) : (
          <button type="button" className="btn" disabled={!made} onClick={() => void look()}>
            Does anything stand in anything?
          </button>
        )}
        {found && found.of === key ? (
          <span role="status" data-clashes={found.says.length} className={found.says.length ? 'text-fail' : ''}>
            {found.says.length === 0
              ? '✓ Nothing, at 13 turns of the motor; fits are taken as fits'
              : `✕ ${found.says.slice(0, 3).join('; ')}${found.says.length > 3 ? `; ${found.says.length - 3} more` : ''}`}
            {found.near.length ? (
              <span className="block text-ink" data-near={found.near.length}>
                Nearest that move against each other: <Said>{found.near.join('; ')}</Said>
              </span>
            ) : null}
          </span>
        ) : null}
      </SpaceCanvas>
      {told ? <Told body={told} /> : null}
    </div>
  );
}
