import { formatQuantity, writeDxf, writeSvg } from '@gristmill/core';
import { Link } from 'react-router';
import { download, fileName } from '../../app/download.ts';
import { Said } from '../../parts/Said.tsx';
import { slug } from '../../state/address.ts';
import { useJoint, useVariant } from '../../state/open.ts';
import { said, useUnits } from '../../state/prefs.ts';
import type { HousingPart } from '../../workers/api.ts';
import { useHousingParts } from '../../workers/queries.ts';

/** Parts of the housing: plates, walls, shafts, bearings and screws, with the outlines of what is made. */
export function HousingParts({ compensation, reference }: { compensation: number; reference: boolean }) {
  const joint = useJoint();
  const variant = useVariant();
  const units = useUnits();
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
          Section
        </Link>
      </h2>
      <table className="w-full">
        <thead>
          <tr>
            <th>part</th>
            <th className="text-right">quantity</th>
            <th>made</th>
            <th className="text-right">mass</th>
            <th className="text-right">money</th>
            <th className="pr-0 text-right">files</th>
          </tr>
        </thead>
        {parts.map((p) => (
          <tbody key={p.id} className="rule-b" data-part={p.id}>
            <tr>
              <td className="!pb-0">
                <b>{p.name}</b>
              </td>
              <td className="num text-right">{p.quantity}</td>
              <td>{p.material}</td>
              <td className="num whitespace-nowrap text-right">
                {p.mass > 0 ? formatQuantity(p.mass, 'mass', { mass: 'g', ...units }, 3) : '—'}
              </td>
              <td className="num whitespace-nowrap text-right">
                {p.money > 0 ? formatQuantity(p.money, 'money', units, 3) : '—'}
              </td>
              <td className="whitespace-nowrap pr-0 text-right">
                {p.curves.length === 0 ? (
                  <span className="label">bought</span>
                ) : compensation !== 0 ? (
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
                )}
              </td>
            </tr>
            <tr>
              <td colSpan={6} className="label !pt-0">
                <Said>{p.note}</Said>
              </td>
            </tr>
          </tbody>
        ))}
      </table>
      <p className="label pt-1">
        Bodies of what is made, moved in where the process asks for it, lie in the zip of the whole line as STL and on
        plates; exact ones in the assembly as STEP.
      </p>
    </section>
  );
}
