import type { Column } from '@tanstack/react-table';
import type { ReactNode } from 'react';

/** The head of a column that its table can be sorted by: pressed once, again the other way, and once more as it was. */
export function SortHead<T>({
  column,
  className = '',
  children,
}: {
  column: Column<T, unknown> | undefined;
  className?: string;
  children: ReactNode;
}) {
  const sorted = column?.getIsSorted();
  return (
    <th
      scope="col"
      className={className}
      aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : undefined}
    >
      <button
        type="button"
        className="whitespace-nowrap font-[inherit] hover:underline"
        onClick={column?.getToggleSortingHandler()}
      >
        {children}
        <span aria-hidden="true" className="inline-block w-[0.9em]">
          {sorted === 'asc' ? '↑' : sorted === 'desc' ? '↓' : ''}
        </span>
      </button>
    </th>
  );
}
