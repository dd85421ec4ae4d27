import { said } from './prefs.ts';

/** A short word to the reader, for a while. */
export interface Note {
  readonly text: string;
  /** Notes of one name take each other's place. */
  readonly id?: string;
  /** How long it stays, ms; a few seconds unless said. */
  readonly stays?: number;
}

let show: (note: Note) => void = () => undefined;

/** Says something to the reader from where no view is at hand. */
export const note = (text: string, more: Omit<Note, 'text'> = {}): void => show({ text: said(text), ...more });

/** Tells how notes are shown. */
export function showNotes(by: (note: Note) => void): void {
  show = by;
}
