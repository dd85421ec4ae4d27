/** Files that were dropped before what takes them had come. */
const early: File[] = [];

export const holdsFiles = (e: DragEvent): boolean => [...(e.dataTransfer?.types ?? [])].includes('Files');
const allow = (e: DragEvent): void => {
  if (holdsFiles(e)) e.preventDefault();
};
const keep = (e: DragEvent): void => {
  if (!holdsFiles(e)) return;
  e.preventDefault();
  early.push(...(e.dataTransfer?.files ?? []));
};

/** Keeps files that are dropped while the page is still coming: a browser would open them instead. */
export function keepEarlyDrops(): void {
  window.addEventListener('dragover', allow);
  window.addEventListener('drop', keep);
}

/** Gives the files that were kept, and keeps no more: who takes them is here. */
export function takeEarlyDrops(): File[] {
  window.removeEventListener('dragover', allow);
  window.removeEventListener('drop', keep);
  return early.splice(0);
}
