import { inAscii, type NamedBody, type StepKit } from './step.ts';

/** Where one piece stands: its origin, mm, and the ways of its own axes. */
export interface StepPlace {
  readonly at: readonly [number, number, number];
  readonly x: readonly [number, number, number];
  readonly y: readonly [number, number, number];
  readonly z: readonly [number, number, number];
}

/** An exact body with the places of its pieces and its colour, as `#rrggbb`. */
export interface PlacedBody extends NamedBody {
  readonly places: readonly StepPlace[];
  readonly colour: string;
}

// The kit's own export puts bodies side by side; an assembly is made with the kernel beneath it, which it does not type.
/* eslint-disable @typescript-eslint/no-explicit-any */

/** Parts of a colour from 0 to 1. */
const parts = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];

/**
 * Bodies as one STEP assembly (ISO 10303-21, AP242) in millimetres: each body once, placed as often as it occurs, with
 * names and colours.
 *
 * @param title name of the assembly
 * @throws Error where the kernel does not write it
 */
export function writeStepAssembly(kit: StepKit, title: string, bodies: readonly PlacedBody[]): Uint8Array {
  const oc = kit.getOC() as any;
  const text = (s: string) => new oc.TCollection_ExtendedString(s, true);
  const doc = new oc.TDocStd_Document(text('XmlOcaf'));
  oc.XCAFDoc_ShapeTool.SetAutoNaming(false);
  const tool = oc.XCAFDoc_DocumentTool.ShapeTool(doc.Main());
  const colours = oc.XCAFDoc_DocumentTool.ColorTool(doc.Main());
  const top = tool.NewShape();
  oc.TDataStd_Name.Set(top, text(title));
  for (const { name, shape, places, colour } of bodies) {
    const label = tool.NewShape();
    tool.SetShape(label, (shape as any).wrapped);
    oc.TDataStd_Name.Set(label, text(name));
    colours.SetColor(label, new oc.Quantity_ColorRGBA(...parts(colour), 1), oc.XCAFDoc_ColorType.XCAFDoc_ColorSurf);
    places.forEach(({ at, x, y, z }, i) => {
      const move = new oc.gp_Trsf();
      // Row by row: the ways of the axes are its columns.
      move.SetValues(x[0], y[0], z[0], at[0], x[1], y[1], z[1], at[1], x[2], y[2], z[2], at[2]);
      const piece = tool.AddComponent(top, label, new oc.TopLoc_Location(move));
      oc.TDataStd_Name.Set(piece, text(places.length > 1 ? `${name} ${i + 1}` : name));
    });
  }
  tool.UpdateAssemblies();
  oc.Interface_Static.SetCVal('xstep.cascade.unit', 'MM');
  oc.Interface_Static.SetCVal('write.step.unit', 'MM');
  const writer = new oc.STEPCAFControl_Writer(new oc.XSControl_WorkSession(), false);
  writer.SetColorMode(true);
  writer.SetNameMode(true);
  oc.Interface_Static.SetIVal('write.step.assembly', 1);
  oc.Interface_Static.SetIVal('write.step.schema', 5);
  if (!writer.Perform(doc, 'assembly.step', new oc.Message_ProgressRange()))
    throw new Error('the kernel did not write the assembly');
  const file = oc.FS.readFile('/assembly.step') as Uint8Array;
  oc.FS.unlink('/assembly.step');
  return inAscii(file);
}
