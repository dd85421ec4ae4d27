/**
 * Characters that XML 1.0 has no place for: control characters but tab and line ends, halves of surrogate pairs, U+FFFE
 * and U+FFFF.
 */
const OUTSIDE =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/**
 * Text as it may stand in an XML file, in an element or an attribute; what XML cannot hold becomes a space. Source: XML
 * 1.0, 2.2 Char.
 */
export const xmlText = (text: string): string =>
  text.replace(OUTSIDE, ' ').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
