import { Growing } from './growing.ts';
import { findUnit, toSi } from '../units/parse.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';
import type { ChannelCalibration } from '../shop/channel.ts';
import { MOST_SAMPLE, type Channel, type Recording } from './recording.ts';

/**
 * A channel as a rig announces it: its name, what it measures in which unit, counts per turn where it counts, and a
 * scale.
 */
export interface RigChannel extends Channel {
  /** SI value of one raw count or unit. */
  readonly scale: number;
  readonly zero: number;
}

const USUAL: Readonly<Record<string, { id: string; quantity: QuantityId; unit: string }>> = {
  t: { id: 'time', quantity: 'time', unit: 's' },
  time: { id: 'time', quantity: 'time', unit: 's' },
  in: { id: 'input', quantity: 'angle', unit: 'rad' },
  input: { id: 'input', quantity: 'angle', unit: 'rad' },
  out: { id: 'output', quantity: 'angle', unit: 'rad' },
  output: { id: 'output', quantity: 'angle', unit: 'rad' },
  load: { id: 'counts', quantity: 'count', unit: '' },
  torque: { id: 'torque', quantity: 'torque', unit: 'N·m' },
  i: { id: 'current', quantity: 'current', unit: 'A' },
  current: { id: 'current', quantity: 'current', unit: 'A' },
  angle: { id: 'angle', quantity: 'smallAngle', unit: 'rad' },
  temp: { id: 'temperature', quantity: 'temperature', unit: '°C' },
  temperature: { id: 'temperature', quantity: 'temperature', unit: '°C' },
};

type Raw = Record<string, unknown>;

/** A number of a header; 0 where it is none that can be held. */
const finite = (x: unknown): number => (Number.isFinite(Number(x ?? 0)) ? Number(x ?? 0) : 0);

/**
 * Reads what a rig prints, line by line: a header object that names channels, then an object or a row of values a
 * sample. Lines that are not whole are counted, never fatal; gaps in time are counted as well.
 *
 * A header is
 * `{"channels":[{"name":"in","quantity":"angle","counts":16384},{"name":"load","unit":"N","scale":0.001}],"rate":1000}`;
 * channels may also be given by name alone.
 */
export class LineReader {
  channels: RigChannel[] = [];
  malformed = 0;
  gaps = 0;
  rate = 0;
  /** Calibrations by channel name, laid over what a header says. */
  constructor(private readonly known: Readonly<Record<string, ChannelCalibration>> = {}) {}

  private names: string[] = [];
  private columns: Growing[] = [];
  private usualStep = 0;
  private lastTime = NaN;
  private backwards = 0;

  get samples(): number {
    return this.columns[0]?.length ?? 0;
  }

  column(id: string): Float64Array | undefined {
    const i = this.channels.findIndex((c) => c.id === id);
    return i < 0 ? undefined : this.columns[i]!.values;
  }

  /** Another scale or zero for a channel: of what came and of what will come. */
  calibrate(index: number, by: Partial<ChannelCalibration>): void {
    const c = this.channels[index];
    if (!c) return;
    const [scale, zero] = [by.scale ?? c.scale, by.zero ?? c.zero];
    const values = this.columns[index]!.values;
    for (let i = 0; i < values.length; i++) values[i] = (values[i]! / c.scale + c.zero - zero) * scale;
    this.channels[index] = { ...c, scale, zero };
  }

  private declare(names: readonly unknown[]): void {
    this.names = [];
    this.channels = [];
    this.columns = [];
    for (const n of names) {
      const spec: Raw = typeof n === 'string' ? { name: n } : typeof n === 'object' && n !== null ? (n as Raw) : {};
      const own = spec['name'] ?? spec['id'];
      const name = typeof own === 'string' || typeof own === 'number' ? String(own).slice(0, 80) : '';
      // A channel without a name, or under one that another has, cannot be told from its neighbours.
      if (!name || this.names.includes(name)) continue;
      const usual = Object.hasOwn(USUAL, name.toLowerCase()) ? USUAL[name.toLowerCase()] : undefined;
      const quantity = (
        typeof spec['quantity'] === 'string' && Object.hasOwn(QUANTITIES, spec['quantity'])
          ? spec['quantity']
          : (usual?.quantity ?? 'count')
      ) as QuantityId;
      const unit =
        typeof spec['unit'] === 'string'
          ? findUnit(QUANTITIES[quantity], spec['unit'])
          : usual && usual.quantity === quantity
            ? QUANTITIES[quantity].units.find((u) => u.symbol === usual.unit)
            : undefined;
      const counts = Number(spec['counts'] ?? 0);
      const scale =
        counts > 0 ? (2 * Math.PI) / counts : Number(spec['scale'] ?? 1) * (unit ? toSi(1, unit) - toSi(0, unit) : 1);
      this.names.push(name);
      this.channels.push({
        id: usual?.id ?? name,
        name,
        quantity,
        scale: Number.isFinite(scale) && scale !== 0 ? scale * (spec['direction'] === -1 ? -1 : 1) : 1,
        zero: finite(spec['zero']) - (unit?.offset ? unit.offset / (unit.factor || 1) : 0),
      });
      this.columns.push(new Growing());
      const known = Object.hasOwn(this.known, name) ? this.known[name] : undefined;
      if (known && known.scale !== 0)
        this.channels[this.channels.length - 1] = { ...this.channels[this.channels.length - 1]!, ...known };
    }
  }

  /** Takes one line; true where it was a sample. */
  line(text: string): boolean {
    const s = text.trim();
    if (s === '' || s.startsWith('#')) return false;
    if (s.startsWith('{')) {
      let raw: Raw;
      try {
        raw = JSON.parse(s) as Raw;
      } catch {
        this.malformed++;
        return false;
      }
      if (typeof raw !== 'object' || raw === null) {
        this.malformed++;
        return false;
      }
      if (Array.isArray(raw['channels'])) {
        if (this.samples === 0) this.declare(raw['channels']);
        const rate = finite(raw['rate']);
        if (rate > 0) this.rate = rate;
        return false;
      }
      if (this.names.length === 0) this.declare(Object.keys(raw).filter((k) => typeof raw[k] === 'number'));
      return this.take(this.names.map((n) => raw[n]));
    }
    const cells = s.split(/[,;\t ]+/);
    if (cells.some((c) => !/^[+-]?(\d|\.\d)/.test(c))) {
      // A heading in place of a header object.
      if (this.names.length === 0 && cells.length > 1 && cells.every((c) => /^[A-Za-z]\w*$/.test(c)))
        this.declare(cells);
      else this.malformed++;
      return false;
    }
    if (this.names.length === 0) {
      this.malformed++;
      return false;
    }
    return this.take(cells.map(Number));
  }

  private take(values: readonly unknown[]): boolean {
    const { channels } = this;
    if (
      values.length === 0 ||
      values.length !== this.names.length ||
      values.some(
        (v, i) => typeof v !== 'number' || !(Math.abs((v - channels[i]!.zero) * channels[i]!.scale) <= MOST_SAMPLE),
      )
    ) {
      this.malformed++;
      return false;
    }
    const time = this.channels.findIndex((c) => c.id === 'time');
    if (time >= 0) {
      const t = (values[time] as number) * this.channels[time]!.scale;
      const step = t - this.lastTime;
      if (step < 0) {
        this.backwards++;
        this.malformed++;
        return false;
      }
      if (step > 0) {
        if (this.usualStep > 0 && step > 4 * this.usualStep) this.gaps++;
        else this.usualStep = this.usualStep > 0 ? 0.98 * this.usualStep + 0.02 * step : step;
      }
      this.lastTime = t;
    }
    for (let i = 0; i < values.length; i++)
      this.columns[i]!.push(((values[i] as number) - this.channels[i]!.zero) * this.channels[i]!.scale);
    return true;
  }

  /** Everything so far; undefined where there is nothing. */
  recording(): Recording | undefined {
    if (this.samples === 0) return undefined;
    return {
      channels: this.channels.map(({ id, name, quantity }) => ({ id, name, quantity })),
      data: this.columns.map((c) => c.values.slice()),
      rate: this.rate,
      malformed: this.malformed,
      gaps: this.gaps,
      notes: [
        ...(this.malformed
          ? [
              `${this.malformed} line${this.malformed === 1 ? ' was' : 's were'} not whole and left ` +
                `out${this.backwards ? `; time ran backwards in ${this.backwards} of them` : ''}.`,
            ]
          : []),
        ...(this.gaps ? [`There ${this.gaps === 1 ? 'is a gap' : `are ${this.gaps} gaps`} in time.`] : []),
      ],
    };
  }
}

/** Cuts a stream of text into lines, the unfinished end kept for the next piece. */
export class LineCutter {
  private rest = '';
  feed(text: string): string[] {
    const parts = (this.rest + text).split(/\r\n|\n|\r/);
    this.rest = parts.pop() ?? '';
    // A sender that never ends its lines must not fill the memory.
    if (this.rest.length > 10_000) this.rest = '';
    return parts;
  }
}
