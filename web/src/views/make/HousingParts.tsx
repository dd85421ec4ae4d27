import { writeDxf, writeSvg } from '@gristmill/core';
import { Link } from 'react-router';
import { download, fileName } from '../../app/download.ts';
import { slug } from '../../state/address.ts';
import { useJoint, useVariant } from '../../state/open.ts';
import { said } from '../../state/prefs.ts';
import type { HousingPart } from '../../workers/api.ts';
import { useHousingParts } from '../../workers/queries.ts';
import { PartsTable } from './PartsTable.tsx';

/** Parts of the housing: plates, walls, shafts, bearings and screws, with the outlines of what is made. */
export function HousingParts({ compensation, reference }: { compensation: number; reference: boolean }) {
  const joint = useJoint();
  const variant = useVariant();
  const parts = useHousingParts();
  if (!variant.housing || parts.length === 0) return null;
  const save = (p: HousingPart, kind: 'svg' | 'dxf') => {
    const sheet = {
      title: `${joint.name}, variant ${variant.name}, housing, ${p.name}`,
      note: said(p.note),
      curves: p.curves,
    };
    const file = `${fileName(joint.name, variant.name, 'housing', p.id)}.${kind}`;
    if (kind === 'svg') download(file, writeSvg(sheet), 'image/svg+xml');
    else download(file, writeDxf(sheet, { reference }), 'application/dxf');
  };
  return (
    <section aria-label="Parts of the housing" className="pb-4">
      <h2 className="flex items-baseline justify-between border-b border-strong pb-1">
        <span>Housing</span>
        <Link className="mend font-normal" to={`/joint/${slug(joint.id)}/make/section`}>
          Its sizes, and all of it cut
        </Link>
      </h2>
      <PartsTable
        parts={parts}
        files={(p) =>
          p.curves.length === 0 ? undefined : compensation !== 0 ? (
            <span className="label">in the zip</span>
          ) : (
            (['svg', 'dxf'] as const).map((kind) => (
              <button
                key={kind}
                type="button"
                className="mend ml-2"
                aria-label={`${p.name} as ${kind.toUpperCase()}`}
                onClick={() => save(p, kind)}
              >
                {kind.toUpperCase()}
              </button>
            ))
          )
        }
      />
      <p className="label pt-1">
        Bodies of what is made, moved in where the process asks for it, lie in the zip of the whole line as STL and on
        plates; exact ones in the assembly as STEP.
      </p>
    </section>
  );
}
