import { describe, expect, it } from 'vitest';
import { readParams, stageKind, stageKinds, workingOf, type Figure, type StageReport } from '../src/index.ts';
import { addedUp } from './adds-up.ts';
import type { Anchored } from './anchors/anchor.ts';
import { anyStages } from './any-stage.ts';
import { examples, shelf } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';

// A working is there to be gone through: its formula with its terms put in comes to its figure. What is found by an
// equilibrium, a sample or a path that no formula holds says so in words, and is listed; the list may only become shorter.

const IN_WORDS: Readonly<Record<string, string>> = {
  belt: 'centre takeUpFit tensionTorque',
  cable: 'breaks',
  chain: 'break-0 break-1 centre crush-0 crush-1 plates shaft tire-1 wear yield',
  'compound-planetary': 'bind efficiency efficiencyBack play playOne shift1 shift2',
  cycloidal:
    'bearing carrying convex couple dent life out outBend outForce pinForce play playDisc playOut pressure rim ripple seat shaking skip transmissionError web web-bearing web-hole web-rim',
  planetary: 'bind lean life play playOne sunWall',
  rack: 'length',
  'ring-plate': 'crankForce dead efficiency eye hollow life pinForce play pressure score shaking skip',
  'roller-wave':
    'backward bearing carrying dent efficiency force hollow life near play pressure push rim shaking skip wall walls',
  'strain-wave':
    'bore buckle carrying clearance engaged inMesh leastPreload pass play preload shear toothForce usable wall wear',
  unit: 'drag efficiency money play',
  worm: 'bend fresh life pit tire-wheel',
};

const reportOf = ({ kind, params, duty }: Pick<Anchored, 'kind' | 'params' | 'duty'>): StageReport | undefined => {
  const read = readParams(kind, params);
  const opened = read.ok ? stageKind(kind)!.open(read.value, shelf) : undefined;
  return opened?.ok ? opened.value.report(duty) : undefined;
};

/** A stage’s warmth is met within a fifth of a kelvin. */
const within = (f: Figure): number => (f.id === 'warmth' ? 1e-3 : 1e-7);

const off = (f: Figure): string[] => {
  const value = addedUp(workingOf(f)!);
  return value === undefined || Math.abs(value - f.value) <= within(f) * Math.abs(f.value) + 1e-15
    ? []
    : [`${f.id}: ${workingOf(f)!.formula} comes to ${value}, told is ${f.value}`];
};

describe('workings', () => {
  for (const kind of stageKinds()) {
    const own = ANCHORED.filter((a) => a.kind === kind.id);
    it(`of a ${kind.id} stage come to their figures, or say in words how those are found`, () => {
      const figures = own.flatMap((a) => reportOf(a)!.figures);
      expect(figures.flatMap(off)).toEqual([]);
      const words = new Set(figures.filter((f) => addedUp(workingOf(f)!) === undefined).map((f) => f.id));
      expect([...words].sort().join(' ')).toBe(IN_WORDS[kind.id] ?? '');
    });

    it(`of a ${kind.id} stage come to their figures for any parameters`, () => {
      const wrong = anyStages(kind, examples(100), 8).flatMap((x) => {
        const report = reportOf({ kind: kind.id, params: x.params, duty: x.duty });
        return (report?.figures ?? []).flatMap(off).map((w) => [w, JSON.stringify(x.params)]);
      });
      expect(wrong).toEqual([]);
    });
  }
});
