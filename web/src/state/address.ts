/**
 * Letters, digits, hyphen and underscore stand for themselves; anything else of an identifier is spelled by its code,
 * so that any identifier makes an address and a file name.
 */
export const slug = (id: string): string =>
  /^[A-Za-z0-9_-]+$/.test(id)
    ? id
    : `~${[...Array(id.length).keys()].map((i) => id.charCodeAt(i).toString(16).padStart(4, '0')).join('')}`;

/** The identifier behind a slug; one that is none is taken as it stands. */
export function unslug(text: string): string {
  if (!/^~([0-9a-f]{4})+$/.test(text)) return text;
  return text.slice(1).replace(/.{4}/g, (code) => String.fromCharCode(parseInt(code, 16)));
}

/** The address of a joint's view. */
export const jointPath = (id: string, view = 'brief'): string => `/joint/${slug(id)}/${view}`;
