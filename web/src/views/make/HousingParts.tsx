import { writeDxf, writeSvg } from '@gristmill/core';
import { partKey } from '@gristmill/core/fit/making-of';
import { evenly, isPlain, type Correction } from '@gristmill/core/solid/correction';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { download, fileName } from '../../app/download.ts';
import { slug } from '../../state/address.ts';
import { useJoint, useVariant } from '../../state/open.ts';
import { said } from '../../state/prefs.ts';
import type { HousingPart } from '../../workers/api.ts';
import { useHousingParts } from '../../workers/queries.ts';
import { correctedCurves } from '../../workers/solid.ts';
import { PartsTable } from './PartsTable.tsx';

/** Parts of the housing: plates, walls, shafts, bearings and screws, with the outlines of what is made. */
export function HousingParts({
  compensation,
  corrections,
  chordError,
  reference,
}: {
  compensation: number;
  /** How parts are drawn for their processes, by their keys. */
  corrections: Readonly<Record<string, Correction>>;
  chordError: number;
  reference: boolean;
}) {
  const joint = useJoint();
  const variant = useVariant();
  const parts = useHousingParts();
  if (!variant.housing || parts.length === 0) return null;
  const save = async (p: HousingPart, kind: 'svg' | 'dxf') => {
    const own = corrections[partKey(-1, p.id)] ?? evenly(compensation);
    const plain = isPlain(own);
    const curves = plain
      ? p.curves
      : await correctedCurves(p.curves, own, chordError / 2, new AbortController().signal).catch(() => undefined);
    if (!curves) return void toast('The contours could not be moved. Try again, or take the zip.');
    const sheet = {
      title: `${joint.name}, variant ${variant.name}, housing, ${p.name}`,
      note: said(plain ? p.note : `${p.note}, drawn for its process`),
      curves,
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
          p.curves.length === 0
            ? undefined
            : (['svg', 'dxf'] as const).map((kind) => (
                <button
                  key={kind}
                  type="button"
                  className="mend ml-2"
                  aria-label={`${p.name} as ${kind.toUpperCase()}`}
                  onClick={() => void save(p, kind)}
                >
                  {kind.toUpperCase()}
                </button>
              ))
        }
      />
      <p className="label pt-1">
        Bodies of what is made, moved in where the process asks for it, lie in the zip of the whole line as STL and on
        plates; exact ones in the assembly as STEP.
      </p>
    </section>
  );
}
