/** The longest side that the program keeps of a picture, px. */
const SIDE = 1600;

/**
 * A picture no larger than the program keeps it, which a slow connection carries in a tenth of the time. What cannot be
 * drawn here is left as it is: the program says what is wrong with it.
 */
export async function smaller(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: "from-image" });
    const k = Math.min(1, SIDE / Math.max(picture.width, picture.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(k * picture.width);
    canvas.height = Math.round(k * picture.height);
    canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    picture.close();
    const drawn = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/jpeg", 0.85));
    return drawn && drawn.size < file.size ? drawn : file;
  } catch {
    return file;
  }
}
