/**
 * A mark of a text in 32 bits: alike for alike texts.
 *
 * Source: FNV-1a over its UTF-16 units.
 * @example hash32('a') // 3826002220
 */
export function hash32(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}
