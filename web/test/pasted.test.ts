import { describe, expect, it } from 'vitest';
import { ok, refuse } from '@gristmill/core';
import { pasted } from '../src/views/shop/pasted.ts';
import type { ThingColumn } from '../src/views/shop/ThingTable.tsx';

const column = (key: string, min = 0, max = 100): ThingColumn => ({ key, label: key, quantity: 'count', min, max });
const things = ['a', 'b', 'c'].map((name) => ({ name, x: 1, y: 2 }));
const read = (cell: string) =>
  Number.isFinite(Number(cell)) ? ok(Number(cell)) : refuse(`“${cell}” is not a number.`, '', '');
const paste = (text: string, rows = things, columns = [column('x'), column('y')]) => pasted(text, rows, columns, read);

describe('a block of a spreadsheet', () => {
  it('is laid over the cells from where it was pasted; empty ones leave what is there', () => {
    expect(paste('3\t4\r\n\t6\n')).toEqual(
      ok([
        { name: 'a', x: 3, y: 4 },
        { name: 'b', x: 1, y: 6 },
      ]),
    );
    // A row of nothing changes no thing.
    expect(paste('\n7\t8')).toEqual(ok([{ name: 'b', x: 7, y: 8 }]));
  });

  it.each([
    ['more rows than there are', '1\n2\n3\n4', 'has 4 rows of 1 cells'],
    ['more cells than there are', '1\t2\t3', 'has 1 rows of 3 cells'],
    ['what is no number', '1\t2\nx\t3', 'b, x: “x” is not a number'],
    ['what is out of reach', '1\t101', 'a, y: “101” is out of reach'],
    ['what is below', '-1\t1', 'a, x: “-1” is out of reach'],
  ])('is refused whole for %s', (_, text, why) => {
    const r = paste(text);
    expect(r.ok ? r.value : r.problem.what).toContain(why);
    expect(things[0]).toEqual({ name: 'a', x: 1, y: 2 });
  });
});
