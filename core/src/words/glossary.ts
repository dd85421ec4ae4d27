/** A word of Gristmill's with what the field calls it. */
export interface Word {
  readonly id: string;
  /** As it stands in the views. */
  readonly word: string;
  /** Standard terms, the usual one first. */
  readonly standard: readonly string[];
  /** What it means, in a sentence or two. */
  readonly says: string;
  /** Where it is defined, where a standard does. */
  readonly source?: string;
}

const w = (id: string, word: string, standard: readonly string[], says: string, source?: string): Word =>
  source === undefined ? { id, word, standard, says } : { id, word, standard, says, source };

/**
 * Words whose usual name in the field is another one, or that are told apart here where the field often does not. The page
 * of words, `docs/words.md` and the search for actions read this list.
 */
export const GLOSSARY: readonly Word[] = [
  w(
    'play',
    'play',
    ['backlash', 'lost motion at no load'],
    'Angle that the output turns with the input held and no torque on it. Wind-up is not in it.',
    'ISO 21771 for gears',
  ),
  w(
    'wind-up',
    'wind-up',
    ['torsional deflection'],
    'Angle that a torque turns the output by with the input held, beyond the play.',
  ),
  w(
    'lost-motion',
    'lost motion',
    ['lost motion', 'hysteresis loss of position'],
    'Play and the wind-up within a small torque either way together, as a hysteresis loop shows them.',
  ),
  w(
    'stiffness',
    'stiffness',
    ['torsional stiffness', 'torsional rigidity'],
    'Torque for an angle at the output with the motor held, after the play is taken up.',
  ),
  w(
    'turn-back',
    'turn-back',
    ['back-driving torque', 'back-drivability', 'starting torque at the output'],
    'Torque at the output that turns the unpowered line back. What cannot be turned back is self-locking.',
  ),
  w(
    'turned-back',
    'efficiency, turned back',
    ['back-driving efficiency', 'reverse efficiency'],
    'Share of the work that arrives at the input when the output drives.',
  ),
  w(
    'passes-on',
    'what one stage passes on',
    ['efficiency per stage'],
    'Share of the work that goes in which comes out of a stage, drag apart.',
  ),
  w(
    'reach',
    'reach at the output',
    ['torque–speed envelope', 'operating envelope'],
    'Torque that motor, driver and supply bring to the output at each speed, through losses and the inertia of what turns.',
  ),
  w(
    'continuous',
    'continuous',
    ['continuous duty', 'S1', 'thermal limit'],
    'What can be carried as long as it takes, by the heat of its root mean square.',
    'IEC 60034-1 for duty types',
  ),
  w(
    'static',
    'static limit',
    ['static strength', 'momentary peak torque', 'emergency-stop torque'],
    'What is compared with the peak: breaks, skips, crushes, yields, dents.',
  ),
  w(
    'life',
    'life',
    ['service life', 'L10 life', 'fatigue life'],
    'Hours at the duty until the first part is worn out or tired: teeth by wear or fatigue, bearings by L10, brushes.',
    'ISO 281 for bearings',
  ),
  w(
    'tires',
    'root tires',
    ['tooth-root fatigue', 'bending fatigue'],
    'A tooth breaks after many load cycles at its root, below what breaks it at once.',
    'ISO 6336-3',
  ),
  w(
    'pits',
    'flanks pit',
    ['pitting', 'macropitting', 'contact fatigue'],
    'Small pieces break out of metal flanks under rolling pressure. Plastic flanks wear instead.',
    'ISO 6336-2, ISO 10825',
  ),
  w(
    'wears',
    'flanks wear',
    ['wear', 'abrasive wear'],
    'Sliding takes material off plastic flanks, so that teeth become thin and play grows.',
    'VDI 2736-2',
  ),
  w(
    'skips',
    'skips',
    ['tooth skipping', 'ratcheting', 'tooth jump'],
    'Teeth ride over one another as what holds them gives way; a belt jumps a tooth.',
  ),
  w(
    'chain',
    'chain',
    ['roller chain', 'bush chain', 'chain drive', 'sprocket'],
    'Links of plates and pins over two toothed wheels. Its number tells pitch and make; a wheel of few teeth makes its speed ripple (polygon or chordal action).',
    'ISO 606',
  ),
  w(
    'elongation',
    'elongation',
    ['chain stretch', 'chain wear elongation'],
    'How much longer a chain has become as its joints wear: 1 to 3 % is the end of its life.',
  ),
  w(
    'rack',
    'rack',
    ['rack and pinion', 'roller pinion', 'cycloidal rack'],
    'A straight toothed bar and the pinion that runs on it, with teeth or with rollers: turns rotation into travel.',
    'ISO 21771',
  ),
  w(
    'screw',
    'screw',
    ['leadscrew', 'lead screw', 'trapezoidal screw', 'Acme screw', 'ball screw', 'power screw'],
    'A thread that moves a nut along as it turns; travel of a turn is its lead, pitch times starts.',
    'ISO 2901 to 2904, ISO 3408',
  ),
  w(
    'holds-itself',
    'holds by itself',
    ['static self-locking'],
    'What cannot be driven back by its load, because friction is more than the slope of thread or worm. Vibration takes a good part of it.',
  ),
  w(
    'whirl',
    'whirl',
    ['critical speed', 'whirling speed', 'whip'],
    'Speed at which a long screw bows out and beats; eight tenths of it are the most to turn at.',
  ),
  w(
    'buckles',
    'buckles',
    ['column buckling', 'Euler load', 'critical load'],
    'A long screw that is pushed gives way sideways, at a load that falls with its free length squared.',
  ),
  w(
    'cable',
    'cable',
    ['capstan drive', 'cable drive', 'wire-rope drive', 'tendon drive'],
    'A cable tensioned both ways round two drums: no play, free to turn back, a bounded range.',
    'EN 12385 for wire ropes',
  ),
  w(
    'leans-sideways',
    'leans sideways',
    ['fleet angle'],
    'Angle at which a cable comes onto its drum, off the plane of its groove; beyond a degree and a half it climbs.',
  ),
  w(
    'bevel',
    'bevel',
    ['bevel gear', 'straight bevel', 'mitre gear', 'miter gear', 'spherical involute'],
    'Toothed cones whose shafts cross. As many teeth on both is a mitre pair.',
    'ISO 23509, ISO 10300',
  ),
  w(
    'mounting-distance',
    'mounting distance',
    ['mounting distance', 'pitch apex to back'],
    'From where bevel shafts cross to the back of a wheel: set by shims, which set the play.',
    'ISO 23509',
  ),
  w(
    'roller-wave',
    'roller wave',
    ['wave reducer with rollers', 'roller-type wave generator', 'intermediate rollers', 'eccentric roller drive'],
    'An eccentric moves rollers in the slots of a cage through the lobes of a ring, one more or fewer than rollers.',
  ),
  w(
    'taken-out',
    'play taken out',
    [
      'anti-backlash',
      'zero-backlash',
      'split gear',
      'scissor gear',
      'preload',
      'double nut',
      'tapered gear',
      'scissor planet',
      'wave tension',
    ],
    'Play removed by design: sprung halves, planets pushed in pairs, sprung centres, wave tension, eccentrics, tapered teeth, two nuts, two motors. It costs friction, and springs hold it only until the load overcomes them.',
  ),
  w(
    'two-motors',
    'two motors on one output',
    ['preloaded motors', 'torque bias', 'torque offset', 'dual motor', 'electrically preloaded drives'],
    'Two like lines drive one output, their torques offset so that one pushes and the other drags: no play until half of the load is as much as the offset presses.',
  ),
  w(
    'allowance',
    'thinner',
    ['tooth-thickness allowance', 'backlash allowance'],
    'Thickness taken off each tooth so that there is room to run and to make it.',
    'ISO 21771, DIN 3967',
  ),
  w(
    'gap',
    'gap all round',
    ['equidistant modification', 'profile offset'],
    'The profile is cut for pins as much larger in radius: every pin has this gap.',
  ),
  w(
    'circle-smaller',
    'circle smaller by',
    ['pin-circle modification', 'shift modification'],
    'The profile is cut for a pin circle as much smaller in radius: the gaps open unevenly.',
  ),
  w(
    'lean',
    'lean of sides',
    ['flank angle', 'half angle of the profile'],
    'Angle of a straight tooth side against the tooth’s axis.',
  ),
  w(
    'throw',
    'throw, eccentricity',
    ['eccentricity', 'radial deflection of the wave'],
    'How far a crank stands off the axis, or a wave generator lifts the flexible spline.',
  ),
  w(
    'coupling',
    'shaft coupling',
    ['jaw coupling', 'claw coupling', 'flexible coupling'],
    'Two clamped hubs with an elastomer between them: joins a shaft to one that is not quite in line with it.',
  ),
  w(
    'spline',
    'spline of a strain wave',
    ['flexible spline'],
    'The thin toothed ring or cup that the wave generator bends.',
  ),
  w(
    'ring-spline',
    'ring of a strain wave',
    ['circular spline'],
    'The stiff toothed ring that the flexible spline rolls in.',
  ),
  w('generator', 'wave generator', ['wave generator'], 'What bends the flexible spline into the ring, at its lobes.'),
  w(
    'shared-planet',
    'shared-planet',
    ['compound planetary', 'differential planetary', '3K gear'],
    'Planets with two toothings in a held and a driven ring: much ratio from a small difference.',
  ),
  w(
    'ring-plate',
    'ring-plate',
    ['plate-type cycloidal', 'double-crank ring-plate reducer'],
    'Plates with lobes on cranks beside the axis, about a wheel of pins.',
  ),
  w(
    'met',
    'met',
    ['pass', 'holds', 'within the limit'],
    'All of a limit’s band, or of what was found with its uncertainty, keeps within the limit; near where only part of it does.',
  ),
  w(
    'not-met',
    'over, short',
    ['not met', 'fail', 'out of limit'],
    'The likely value, or all that was found, lies beyond the limit: over a most, or short of a least.',
  ),
  w(
    'self-locking',
    'self-locking',
    ['irreversible', 'non-back-drivable', 'holds itself'],
    'It cannot be turned from its output at rest; vibration may let it go.',
  ),
  w(
    'pull-out',
    'pull-out',
    ['pull-out torque'],
    'Torque at which a stepper loses its steps at a speed. What is expected is the share of it that keeps step.',
  ),
  w(
    'start-stop',
    'start–stop speed',
    ['start–stop speed', 'pull-in speed'],
    'Speed up to which a stepper starts and stops without a ramp.',
  ),
  w(
    'room-between',
    'room between what turns unlike',
    ['running clearance', 'axial and radial clearance'],
    'Least distance in the section between parts that do not turn together, where they neither mesh nor sit in one another.',
  ),
  w(
    'room-free',
    'room to leave free',
    ['swept envelope', 'clearance envelope', 'keep-out volume'],
    'What the stages sweep as they turn, grown by the gap: a housing of your own must leave it free.',
  ),
  w(
    'going-together',
    'going together',
    ['assembly sequence', 'disassembly sequence', 'assembly sheet'],
    'The order in which parts go in, found by taking the line apart along its axis.',
  ),
  w(
    'stands-in',
    'stands in',
    ['interference', 'clash', 'collision check'],
    'Two parts take up the same room at some angle of the crank.',
  ),
  w(
    'clamp-ring',
    'clamp ring',
    ['retaining ring', 'spacer ring'],
    'Keeps a ring that stands still down on its shelf, pressed by the screws of the housing.',
  ),
  w(
    'process',
    'process',
    ['machine profile', 'printer and material settings', 'process capability'],
    'A printer or cutter with its tool, material and settings, and what it was measured to do to sizes.',
  ),
  w(
    'stands-out',
    'outsides stand out, holes close in',
    ['contour compensation', 'XY compensation', 'hole compensation', 'kerf compensation', 'dimensional accuracy'],
    'How far a made contour lies outside of its drawing on a side; taken off beforehand by the outline or the slicer, never by both.',
  ),
  w(
    'foot',
    'foot',
    ['elephant’s foot', 'first-layer expansion'],
    'The first layers of a print, pressed wider than the rest.',
  ),
  w(
    'coupon',
    'coupon',
    ['test coupon', 'calibration print', 'tolerance test', 'go and no-go gauge'],
    'Steps, windows, holes, a ladder of fits and a tooth gauge that are made and measured to know a process.',
  ),
  w(
    'jams',
    'jams',
    ['binding', 'interference', 'assembly yield', 'tolerance analysis'],
    'A gap is used up somewhere round a turn, by contours, run-out, places and warmth; how likely, by drawing specimens.',
  ),
  w(
    'purpose',
    'fit by purpose',
    ['press fit', 'transition fit', 'clearance fit', 'running fit', 'location fit'],
    'What two round things that go into one another are there for, and the clearance that serves it.',
    'ISO 286-1',
  ),
];

/**
 * Words that a text is about: in their own name, a standard term, or what they mean; those named first.
 * @example findWords('backlash')[0].id // 'play'
 */
export function findWords(text: string): Word[] {
  const sought = text.trim().toLowerCase();
  if (!sought) return [...GLOSSARY];
  const named = (x: Word) => [x.word, ...x.standard].some((name) => name.toLowerCase().includes(sought));
  return [...GLOSSARY.filter(named), ...GLOSSARY.filter((x) => !named(x) && x.says.toLowerCase().includes(sought))];
}

/** The glossary as the document that goes with the sources. */
export const glossaryText = (): string =>
  [
    '# Words',
    '',
    'What Gristmill calls things, and what the field does. Made from `core/src/words/glossary.ts` by `npm run words`; in the',
    'app the same list stands under *All actions*.',
    '',
    '| here | in the field | what it is |',
    '| --- | --- | --- |',
    ...GLOSSARY.map((x) => `| ${x.word} | ${x.standard.join(', ')} | ${x.says}${x.source ? ` (${x.source})` : ''} |`),
    '',
  ].join('\n');
