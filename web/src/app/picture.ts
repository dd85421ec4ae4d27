/** Longest side of a kept picture, px, and how hard it is packed. */
const [SIDE, QUALITY] = [800, 0.7];
/** A picture is kept in the joint’s file: longer than this it is packed harder. */
const MOST = 250_000;

const asUrl = (blob: Blob): Promise<string> =>
  new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => fail(reader.error ?? new Error('it could not be read'));
    reader.readAsDataURL(blob);
  });

/**
 * A picture made small enough to be kept in a joint’s file, without what the camera wrote about where and when.
 *
 * @returns a data URL
 * @throws where the file is no picture
 */
export async function smallPicture(file: Blob): Promise<string> {
  const bitmap = await createImageBitmap(file);
  try {
    for (let [side, quality] = [SIDE, QUALITY]; ; [side, quality] = [side * 0.75, quality - 0.05]) {
      const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
      const canvas = new OffscreenCanvas(
        Math.max(1, Math.round(bitmap.width * scale)),
        Math.max(1, Math.round(bitmap.height * scale)),
      );
      canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      const url = await asUrl(await canvas.convertToBlob({ type: 'image/jpeg', quality }));
      if (url.length <= MOST || side < 100) return url;
    }
  } finally {
    bitmap.close();
  }
}
