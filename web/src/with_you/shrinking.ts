/** Pictures are made smaller before they are sent. */
/** The longest side of a picture that is sent: the smallest print on a board is read at it. */
const LONGEST_PX = 2560;
const QUALITY = 0.85;
/** What is no larger than this is sent as it is. */
const SMALL_BYTES = 600_000;

/** A picture no larger than it has to be; as it is where the browser cannot read it, for the depot says what is wrong with it. */
export async function shrunk(file: File): Promise<Blob> {
  if (file.size <= SMALL_BYTES || !("createImageBitmap" in window)) return file;
  try {
    const whole = await createImageBitmap(file, { imageOrientation: "from-image" });
    const scale = Math.min(1, LONGEST_PX / Math.max(whole.width, whole.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(whole.width * scale);
    canvas.height = Math.round(whole.height * scale);
    canvas.getContext("2d")?.drawImage(whole, 0, 0, canvas.width, canvas.height);
    const small = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/jpeg", QUALITY));
    return small && small.size < file.size ? small : file;
  } catch {
    return file;
  }
}
