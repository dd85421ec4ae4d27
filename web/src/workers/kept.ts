/** Remembers results by key within a weight in all; those asked for longest ago go first. */
export class Kept<T> {
  private readonly entries = new Map<string, { value: T; weight: number }>();
  private total = 0;

  /** @param most weight of all that is kept, in whatever `set` counts in */
  constructor(private readonly most: number) {}

  get size(): number {
    return this.entries.size;
  }

  get(key: string): T | undefined {
    const entry = this.entries.get(key);
    if (!entry) return undefined;
    this.entries.delete(key);
    this.entries.set(key, entry);
    return entry.value;
  }

  set(key: string, value: T, weight = 1): void {
    this.total += weight - (this.entries.get(key)?.weight ?? 0);
    this.entries.delete(key);
    this.entries.set(key, { value, weight });
    for (const [oldest, entry] of this.entries) {
      if (this.total <= this.most || oldest === key) break;
      this.entries.delete(oldest);
      this.total -= entry.weight;
    }
  }
}
