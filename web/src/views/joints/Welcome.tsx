import { activeVariant, settleAll, standings, stopping, type Joint, type StageRecord } from '@gristmill/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, type ReactNode } from 'react';
import { Glyph } from '../../parts/Glyph.tsx';
import { overall } from '../../parts/words.ts';
import { useFindingsOf, useLineOf } from '../../workers/queries.ts';
import { demoJoints } from './demo.ts';
import { Turning } from './Turning.tsx';

/** The eight steps of the work, each with a small drawing in a field of 48 by 40. */
const STEPS: readonly { readonly name: string; readonly says: string; readonly drawing: ReactNode }[] = [
  {
    name: 'Ask',
    says: 'what the joint must do',
    drawing: (
      <>
        <circle cx="10" cy="30" r="3" />
        <path d="M10 30 38 12M4 36h16M34 6h9v9h-9z" />
      </>
    ),
  },
  {
    name: 'Line',
    says: 'motor, ratio, stages',
    drawing: <path d="M4 13h15v14H4zM19 20h8M31 20a4 6 0 1 1 .1 .1M38 20h6" />,
  },
  {
    name: 'Find',
    says: 'which mechanism, and why',
    drawing: (
      <>
        <path d="M6 4v31h38" />
        <path d="M14 28h.1M20 21h.1M27 24h.1M31 14h.1M39 10h.1" strokeWidth="4" strokeLinecap="round" />
      </>
    ),
  },
  {
    name: 'Stage',
    says: 'tooth by tooth',
    drawing: (
      <>
        <path d="M24 6l3 5 6-2 0 6 6 2-3 5 3 5-6 2 0 6-6-2-3 5-3-5-6 2 0-6-6-2 3-5-3-5 6-2 0-6 6 2z" />
        <circle cx="24" cy="21" r="4" />
      </>
    ),
  },
  {
    name: 'Fit',
    says: 'drawn for the printer',
    drawing: <path d="M4 30h12V12h16v18h12M16 16h2v14h12V16h2" />,
  },
  {
    name: 'Make',
    says: 'files, bill, assembly',
    drawing: <path d="M8 34h32M14 34V22h20v12M18 22v-7h12v7M24 15V5M20 8h8" />,
  },
  {
    name: 'Bench',
    says: 'measured, with uncertainty',
    drawing: <path d="M5 35C14 33 16 12 30 8h13M5 35c10-1 22-6 27-20l11-7M4 21h40" />,
  },
  {
    name: 'Review',
    says: 'asked, expected, found',
    drawing: (
      <>
        <path d="M6 10v20M6 10h4M6 30h4M16 25l10-10M16 20l5-5M20 26l6-6M16 14h11v12H16z" />
        <path d="M32 20h12" />
        <circle cx="38" cy="20" r="3" fill="currentColor" />
      </>
    ),
  },
];

/** What each joint of the demo set teaches, by its identifier. */
const TEACHES: Readonly<Record<string, string>> = {
  'demo-body-yaw':
    'Two belt stages: hardly any play, but they give. Seven tests, and one that contradicts what was expected.',
  'demo-neck-lift':
    'Must turn back by hand: belts, a cycloidal disc, ring plates and a cable for one brief, and a rig’s whole session.',
  'demo-wing-root':
    'A geared unit whose play a belt divides; bought once, printed once, made twice until it went together.',
  'demo-reed-lift':
    'A straight axis in newtons and micrometres: a screw that holds, a rack that is quick, a belt between.',
  'demo-tide-dial': 'Holds its place without power: a bought worm, one made here, a strain wave, and what each costs.',
};

function DemoCard({ joint }: { joint: Joint }) {
  const variant = activeVariant(joint);
  const report = useLineOf(joint, variant);
  const findings = useFindingsOf(joint).data;
  const verdicts = useMemo(
    () => report && findings && settleAll(joint.builds, report.verdicts, standings(findings, joint.tests), variant),
    [joint, variant, report, findings],
  );
  const word = report && verdicts && overall(verdicts, report.problem !== undefined, stopping(report).length);
  return (
    <li className="min-w-0 border-t border-strong pt-2" data-demo={joint.name}>
      <div className="flex h-[70px] items-center gap-2 overflow-hidden">
        {variant.stages.slice(0, 2).map((s) => (
          <Glyph key={s.id} stage={s} width={104} height={66} />
        ))}
      </div>
      <h3 className="pt-1 text-[14.5px]">{joint.name}</h3>
      <p className={`text-[12.5px] ${word?.tone ?? ''}`}>{word ? `${word.mark} ${word.text}` : '…'}</p>
      <p className="pt-0.5 text-[12.5px] text-muted">{TEACHES[joint.id]}</p>
    </li>
  );
}

/** The first thing a stranger sees: what this is, the way through it, and joints to look round in. */
export default function Welcome({
  onDemo,
  onNew,
  onTour,
}: {
  onDemo: () => void;
  onNew: () => void;
  onTour: () => void;
}) {
  const demo = useQuery({ queryKey: ['demo-joints'], queryFn: demoJoints, staleTime: Infinity }).data;
  const shown: StageRecord | undefined = demo
    ?.flatMap((j) => j.variants.flatMap((v) => v.stages))
    .find((s) => s.kind === 'planetary');
  return (
    <section aria-label="What this is" className="pt-4">
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-8 max-md:grid-cols-1">
        <div>
          <h2 className="max-w-[34rem] text-[27px] leading-[1.15]">
            Say what a joint must do. Leave with a reducer that does it, and with the bench’s word for it.
          </h2>
          <p className="max-w-[38rem] pt-3 text-[14.5px]">
            For makers of compact reducers for robot joints and precision axes. Every figure shows its band and its
            working; every part can be printed, bought or cut; what is measured decides. It works here, in this browser:
            nothing is sent anywhere.
          </p>
          <p className="flex flex-wrap gap-2 pt-4">
            <button type="button" className="btn" onClick={onDemo}>
              Open the demo set
            </button>
            <button type="button" className="btn" onClick={onNew}>
              New joint
            </button>
            <button type="button" className="btn-quiet underline underline-offset-3" onClick={onTour}>
              Seven stops through the demo
            </button>
          </p>
        </div>
        <div className="grid h-[236px] w-[300px] place-items-center max-md:hidden" aria-hidden="true">
          {shown ? <Turning stage={shown} width={236} height={232} /> : null}
        </div>
      </div>
      <ol aria-label="The way through it" className="relative grid grid-cols-8 gap-2 pt-4 max-md:grid-cols-4">
        <li aria-hidden="true" className="absolute inset-x-0 top-[39px] border-t-2 border-expected max-md:hidden" />
        {STEPS.map((s) => (
          <li key={s.name} className="relative">
            <svg
              width="58"
              height="48"
              viewBox="-5 -4 58 48"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.4"
              className="bg-paper"
              aria-hidden="true"
            >
              {s.drawing}
            </svg>
            <p className="pt-0.5 font-semibold">{s.name}</p>
            <p className="text-[12.5px] leading-tight text-muted">{s.says}</p>
          </li>
        ))}
      </ol>
      <h2 className="pb-2 pt-6 text-[15px]">
        The demo set: a made-up workshop that builds a life-size mechanical heron
      </h2>
      <ul
        aria-label="Joints of the demo set"
        className="grid min-h-[182px] grid-cols-5 gap-5 max-lg:grid-cols-3 max-md:grid-cols-2"
      >
        {demo?.map((j) => (
          <DemoCard key={j.id} joint={j} />
        ))}
      </ul>
    </section>
  );
}
