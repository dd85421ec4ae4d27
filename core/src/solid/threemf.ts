import { strToU8, zipSync } from 'fflate';
import type { TriangleMesh } from './mesh.ts';
import { xmlText } from '../shape/xml.ts';

export interface NamedMesh {
  readonly name: string;
  readonly mesh: TriangleMesh;
}

/** Where one piece of a part stands on the plate: turned about the upright axis, then moved; millimetres and rad. */
export interface PlateItem {
  readonly part: number;
  readonly turn: number;
  readonly at: readonly [number, number, number];
}

/** A piece's place as the format has it: the rows of its turn, then the way it is moved. */
function transform({ turn, at }: PlateItem): string {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [c, s, 0, -s, c, 0, 0, 0, 1, ...at].map((v) => Number(v.toFixed(6))).join(' ');
}

/**
 * Meshes as one 3MF package in millimetres, one named object a part.
 *
 * @param items pieces on the plate, as many of each part as are wanted; one of each where it lies, where left out
 * Source: 3MF core specification 1.3: an OPC zip of content types, relations and the model.
 */
export function write3mf(parts: readonly NamedMesh[], title: string, items?: readonly PlateItem[]): Uint8Array {
  const objects = parts.map(({ name, mesh }, i) => {
    const vertices: string[] = [];
    for (let k = 0; k < mesh.vertices.length; k += 3)
      vertices.push(
        `<vertex x="${Number(mesh.vertices[k]!.toFixed(6))}" y="${Number(mesh.vertices[k + 1]!.toFixed(6))}" z="${Number(mesh.vertices[k + 2]!.toFixed(6))}"/>`,
      );
    const triangles: string[] = [];
    for (let k = 0; k < mesh.triangles.length; k += 3)
      triangles.push(
        `<triangle v1="${mesh.triangles[k]}" v2="${mesh.triangles[k + 1]}" v3="${mesh.triangles[k + 2]}"/>`,
      );
    return (
      `<object id="${i + 1}" type="model" ` +
      `name="${xmlText(name)}"><mesh><vertices>${vertices.join('')}</vertices><triangles>${triangles.join('')}</triangles></mesh></object>`
    );
  });
  const built = items
    ? items.map((x) => `<item objectid="${x.part + 1}" transform="${transform(x)}"/>`)
    : parts.map((_, i) => `<item objectid="${i + 1}"/>`);
  const model =
    `<?xml version="1.0" encoding="UTF-8"?>\n<model unit="millimeter" xml:lang="en" ` +
    'xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><metadata ' +
    (`name="Title">${xmlText(title)}</metadata><resources>${objects.join('')}</resources><build>` +
      `${built.join('')}</build></model>`);
  return zipSync(
    {
      '[Content_Types].xml': strToU8(
        '<?xml version="1.0" encoding="UTF-8"?>\n<Types ' +
          'xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ' +
          'ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ' +
          'ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<?xml version="1.0" encoding="UTF-8"?>\n<Relationships ' +
          'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship ' +
          'Target="/3D/3dmodel.model" Id="rel0" ' +
          'Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
      ),
      '3D/3dmodel.model': strToU8(model),
    },
    // Twice as quick as the best, and a hundredth larger.
    { level: 4 },
  );
}
