/** The longest side of a photograph that is kept, pixels. */
const LONGEST = 2000;
const QUALITY = 0.85;

/**
 * A photograph as it was held, and no larger than a screen needs: a JPEG with nothing of where or by whom it was taken.
 *
 * @throws Error where the file is no picture.
 */
export async function upright(file: File): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
    throw new Error(`${file.name} is not a readable image.`);
  });
  const share = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(picture.width * share)),
    Math.max(1, Math.round(picture.height * share)),
  );
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
}
