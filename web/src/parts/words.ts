import type { Finding, SettledVerdict, Verdict } from '@gristmill/core';

export interface VerdictWord {
  readonly mark: string;
  readonly text: string;
  readonly tone: string;
}

/** Pass, near and fail told by shape and word as well as colour. */
export function verdictWord(v: Pick<Verdict, 'state' | 'sense'>): VerdictWord {
  if (v.sense === 'either') return { mark: '○', text: 'either', tone: 'text-muted' };
  switch (v.state) {
    case 'holds':
      return { mark: '✓', text: 'met', tone: '' };
    case 'near':
      return { mark: '◐', text: 'near', tone: 'text-near' };
    case 'fails':
      return { mark: '✕', text: v.sense === 'min' ? 'short' : 'over', tone: 'text-fail' };
    case 'unknown':
      return { mark: '○', text: 'not known', tone: 'text-muted' };
  }
}

const EXPECTED: Record<Verdict['state'], string> = {
  holds: 'was expected to be met',
  near: 'was expected near',
  fails: 'was expected not to be met',
  unknown: 'was not expected either way',
};

/** What a measurement changed of a verdict, or what it leaves open; empty where it says what was expected. */
export function settledNote(v: SettledVerdict): string {
  if (v.earlier) return 'found of a build of an earlier design';
  const against = v.against ? `found ${v.against} what was expected` : '';
  if (v.open) return [against, 'the test stopped before it could tell'].filter(Boolean).join('; ');
  const turned = v.by === 'found' && v.state !== v.expectedState ? EXPECTED[v.expectedState] : '';
  return [against, turned].filter(Boolean).join('; ');
}

/** The bracket of a limit on a scale; none where nothing is asked as a number. */
export const askedMark = (
  asked: number,
  sense: Verdict['sense'],
): { value: number; sense: 'min' | 'max' } | undefined =>
  Number.isFinite(asked) && sense !== 'either' ? { value: asked, sense } : undefined;

/** The verdict of a whole joint: its worst must, then what stops its line, then its worst wish. */
export function overall(verdicts: readonly Verdict[], trouble: boolean, stops = 0): VerdictWord {
  if (trouble) return { mark: '✕', text: 'cannot be built so', tone: 'text-fail' };
  const fails = (need: string) => verdicts.filter((v) => v.need === need && !v.suggested && v.state === 'fails').length;
  const musts = fails('must');
  if (musts) return { mark: '✕', text: `${musts} must${musts === 1 ? '' : 's'} missed`, tone: 'text-fail' };
  if (stops) return { mark: '✕', text: `${stops} check${stops === 1 ? ' fails' : 's fail'}`, tone: 'text-fail' };
  const wishes = fails('wish');
  if (wishes) return { mark: '◐', text: `${wishes} wish${wishes === 1 ? '' : 'es'} missed`, tone: 'text-near' };
  const near = verdicts.filter((v) => !v.suggested && v.state === 'near').length;
  if (near) return { mark: '◐', text: `${near} near`, tone: 'text-near' };
  if (verdicts.every((v) => v.state === 'unknown'))
    return { mark: '○', text: 'nothing to compare', tone: 'text-muted' };
  return { mark: '✓', text: 'met', tone: '' };
}

/** Formula and source of a finding, for its working. */
export function foundSource(f: Finding): { formula: string; source: string } {
  return {
    formula: f.result?.figures[0]?.how ?? f.result?.says ?? '',
    source: 'JCGM 100:2008: type A from the scatter, type B from instruments and rig by derivative, 95 %',
  };
}
