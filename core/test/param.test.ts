import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import {
  amount,
  described,
  group,
  inUnits,
  length,
  oneOf,
  whole,
  words,
  yesNo,
  type ParamTable,
} from '../src/index.ts';
import { shelf } from './helpers.ts';

interface Drum {
  radius: number;
  turns: number;
  hand: 'left' | 'right';
  grooved: 'no' | 'yes';
  pull: number;
  called: string;
}

const table: ParamTable<Drum> = {
  ...group('Drum', {
    radius: length({
      says: 'Radius of the drum',
      label: 'Radius',
      help: 'Of it.',
      start: 0.01,
      least: 1e-3,
      most: 0.5,
    }),
    turns: whole({ says: 'Turns; 0 for none', label: 'Turns', help: 'On it.', start: 3, least: 0, most: 9, absent: 2 }),
    grooved: yesNo({ says: 'Grooved', label: 'Grooved', help: 'Or plain.', start: 'no' }),
  }),
  ...group('Cable', {
    hand: oneOf({
      says: 'Hand of the turns',
      label: 'Hand',
      help: 'Seen from outside.',
      start: 'right',
      options: [
        ['left', 'Left'],
        ['right', 'Right'],
      ],
      when: (p: Drum) => p.turns > 0,
    }),
    pull: amount('force', {
      says: 'Pull; at rest',
      label: 'Pull',
      help: 'At rest.',
      start: 5,
      least: 0,
      most: 90,
      step: 1,
    }),
    called: words({ says: 'Name', label: 'Called', help: 'Yours.', start: '', maxLength: 4 }),
  }),
};

const drum = described(
  table,
  v.check((p) => p.turns < 9 || p.radius > 0.1, 'must have a wide drum for nine turns'),
);
const plain: Drum = { radius: 0.01, turns: 3, hand: 'right', grooved: 'no', pull: 5, called: '' };
const read = (more: object) => v.safeParse(drum.schema, { ...plain, ...more });
const says = (more: object) => inUnits(read(more).issues?.[0].message ?? '');

describe('a table of parameters', () => {
  it('starts as each of them says', () => expect(drum.starts).toEqual(plain));

  it('takes what lies within bounds, in SI units or as text with a unit', () => {
    expect(read({}).output).toEqual(plain);
    expect(read({ radius: 0.5 }).success).toBe(true);
    expect((read({ radius: '1 in', pull: '1 kgf' }).output as Drum).radius).toBeCloseTo(0.0254, 12);
    expect((read({ pull: '1 kgf' }).output as Drum).pull).toBeCloseTo(9.80665, 12);
  });

  it('refuses by name and bound what does not', () => {
    expect(says({ radius: 0.6 })).toContain('at most 500 mm');
    expect(says({ radius: 0 })).toContain('at least 1 mm');
    expect(says({ radius: '5 bananas' })).toBeTruthy();
    expect(says({ turns: 2.5 })).toContain('whole number');
    expect(says({ turns: 10 })).toContain('at most 9');
    expect(says({ turns: '3' })).toContain('whole number');
    expect(says({ hand: 'up' })).toBeTruthy();
    expect(says({ grooved: true })).toBeTruthy();
    expect(says({ called: 'abcde' })).toBeTruthy();
    expect(says({ turns: 9 })).toBe('must have a wide drum for nine turns');
    expect(read({ turns: 9, radius: 0.2 }).success).toBe(true);
    for (const key of ['radius', 'hand', 'grooved', 'pull', 'called'])
      expect(read({ [key]: undefined }).success, key).toBe(false);
  });

  it('reads a silent file as it says', () => expect((read({ turns: undefined }).output as Drum).turns).toBe(2));

  it('gives the form its fields in order, by group', () => {
    expect(drum.fields.map((f) => `${f.group}: ${f.path}, ${f.as}`)).toEqual([
      'Drum: radius, quantity',
      'Drum: turns, count',
      'Drum: grooved, choice',
      'Cable: hand, choice',
      'Cable: pull, quantity',
      'Cable: called, text',
    ]);
    const hand = drum.fields[3]!;
    expect(hand.as === 'choice' && hand.options(plain, shelf).map((o) => o.label)).toEqual(['Left', 'Right']);
    expect([hand.when!(plain), hand.when!({ ...plain, turns: 0 })]).toEqual([true, false]);
    expect(drum.fields[1]).toMatchObject({ min: 0, max: 9, label: 'Turns', help: 'On it.' });
    expect(drum.fields[0]).toMatchObject({ step: 5e-4, quantity: 'length' });
  });

  it('says the unit of each quantity, before what follows a semicolon', () => {
    const said = (key: keyof Drum) => v.getDescription(table[key].schema as v.GenericSchema);
    expect([said('radius'), said('pull'), said('turns')]).toEqual([
      'Radius of the drum, m',
      'Pull, N; at rest',
      'Turns; 0 for none',
    ]);
  });
});
