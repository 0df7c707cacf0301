/** Codes on boxes, read by the device's camera where it can read them. */

type Found = { rawValue: string };
type Detector = { detect: (source: ImageBitmapSource) => Promise<Found[]> };
type DetectorClass = { new (): Detector };

const detectorClass = () => (globalThis as { BarcodeDetector?: DetectorClass }).BarcodeDetector;

/** Whether this device reads codes by itself; a reader that types needs nothing. */
export const readsCodes = () => detectorClass() !== undefined && navigator.mediaDevices !== undefined;

const PAUSE_MS = 250;
/** For so long the same code counts once: it is held before the camera for a while. */
const SAME_MS = 2000;

/** Read codes from the camera into a video until it is stopped; each code is told once. Answers with how to stop. */
export async function readCodes(video: HTMLVideoElement, onCode: (code: string) => void): Promise<() => void> {
  const Reader = detectorClass();
  if (!Reader) throw new Error("This device does not read codes.");
  const stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
  video.srcObject = stream;
  await video.play();
  const reader = new Reader();
  const told = new Map<string, number>();
  let going = true;
  const look = async () => {
    if (!going) return;
    for (const { rawValue } of await reader.detect(video).catch(() => [])) {
      const now = performance.now();
      if (now - (told.get(rawValue) ?? -Infinity) > SAME_MS) onCode(rawValue);
      told.set(rawValue, now);
    }
    setTimeout(() => void look(), PAUSE_MS);
  };
  void look();
  return () => {
    going = false;
    stream.getTracks().forEach((track) => track.stop());
  };
}
