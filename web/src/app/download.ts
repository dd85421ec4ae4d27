/** Hands a text, or bytes, to the browser as a file. */
export function download(name: string, content: string | Uint8Array | Blob, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  document.body.append(a);
  a.click();
  a.remove();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** A name safe for any file system: letters and digits of any script, hyphens for the rest. */
export const fileName = (...parts: string[]): string =>
  parts
    .map((p) =>
      p
        .normalize('NFC')
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .replace(/^-+|-+$/g, '')
        .slice(0, 60),
    )
    .filter(Boolean)
    .join('_') || 'joint';
