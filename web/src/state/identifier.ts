/** A short identifier that does not clash within a joint or a shelf. */
export const newId = (): string => crypto.randomUUID().slice(0, 12);
