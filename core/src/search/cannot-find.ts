import { LIMIT_KINDS } from '../brief/demand.ts';
import type { Problem } from '../result.ts';
import type { Limit, LimitId } from '../schema/joint.ts';
import { stated } from '../units/stated.ts';
import { setUp, type FindAsk } from './ask.ts';

/** Why nothing can be looked for, in words; undefined where it can. */
export function cannotFind(ask: FindAsk): Problem | undefined {
  const { demand, kinds, drives, making } = setUp(ask);
  if (!(demand.peak > 0) || !(demand.speed > 0))
    return {
      what: `The brief asks for no ${demand.peak > 0 ? 'speed' : 'torque'}.`,
      why: 'A line is looked for by what it must carry, and how fast.',
      mend: 'Say in the brief what the joint must do: a load, and a move or a speed.',
    };
  const against = contradiction(ask.joint.brief.limits);
  if (against) return against;
  if (kinds.length === 0)
    return {
      what: 'No kind of stage is allowed.',
      why: 'A line is made of stages.',
      mend: 'Allow at least one kind.',
    };
  if (making?.main.length === 0)
    return {
      what: 'No material is allowed that stages could be made of.',
      why: 'Wheels, discs and plates are printed or milled.',
      mend: 'Allow one that is printed, or one that is milled.',
    };
  if (drives.length === 0)
    return {
      what: 'No motor that is allowed meets the brief at any ratio.',
      why: `It asks ${stated(demand.peak, 'torque', 3)} at up to ${stated(demand.speed, 'speed', 3)}: more ratio gives torque and takes speed.`,
      mend: 'Look at the ratio desk: it names the two nearest ways out. Or bring a larger motor to the shop.',
    };
  return undefined;
}

/** Two musts of a brief that nothing can meet together, in words; undefined where there are none. */
function contradiction(limits: readonly Limit[]): Problem | undefined {
  const must = (id: LimitId, sense: Limit['sense']) =>
    limits.find((l) => l.id === id && l.sense === sense && l.need === 'must' && l.value !== null)?.value ?? undefined;
  const [bore, size] = [must('bore', 'min'), must('size', 'max')];
  if (bore !== undefined && size !== undefined && bore >= size)
    return {
      what: 'Two musts of the brief contradict each other.',
      why: `A hollow bore of ${stated(bore, 'length', 3)} does not fit into an outside size of ${stated(size, 'length', 3)}.`,
      mend: 'Ask for a smaller bore, or allow more outside.',
    };
  const [least, most] = [must('turnBack', 'min'), must('turnBack', 'max')];
  if (least !== undefined && most !== undefined && least > most)
    return {
      what: 'Two musts of the brief contradict each other.',
      why: `It must hold ${stated(least, 'torque', 3)} unpowered, and be turned back by ${stated(most, 'torque', 3)}.`,
      mend: 'Make one of the two a wish, or remove it.',
    };
  const none = limits.find((l) => l.need === 'must' && l.sense === 'max' && l.value !== null && !(l.value > 0));
  return (
    none && {
      what: `The brief allows no ${LIMIT_KINDS[none.id].name.toLowerCase()} at all.`,
      why: 'Every line has some.',
      mend: 'Allow more than nought, or make it a wish.',
    }
  );
}
