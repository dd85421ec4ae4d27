import { useEffect, type ReactNode } from 'react';
import { HelpLine } from '../parts/HelpLine.tsx';
import { lookAtKeeping } from '../storage/keeping.ts';
import { DropAnywhere } from './DropAnywhere.tsx';
import { startOffline } from './offline.ts';
import { TableCopy } from './TableCopy.tsx';
import { Tour } from '../views/tour/Tour.tsx';

let begun = false;

/** What waits beside every page: a table's offer to be copied, a field's help, the tour, work without the server. */
export default function Beside(): ReactNode {
  useEffect(() => {
    if (begun) return;
    begun = true;
    void lookAtKeeping();
    if (import.meta.env.PROD) startOffline();
  }, []);
  return (
    <>
      <DropAnywhere />
      <TableCopy />
      <HelpLine />
      <Tour />
    </>
  );
}
