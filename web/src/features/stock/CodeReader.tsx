import { Button } from "@/ui/Button";
import { useEffect, useRef, useState } from "react";
import { readCodes } from "./codes";

/** The camera, held before the codes on boxes. */
export function CodeReader({ onCode, onEnd }: { onCode: (code: string) => void; onEnd: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const tell = useRef(onCode);
  const [fault, setFault] = useState("");
  useEffect(() => {
    tell.current = onCode;
  });
  useEffect(() => {
    let stop: (() => void) | undefined;
    let ended = false;
    if (video.current)
      readCodes(video.current, (code) => tell.current(code)).then(
        (how) => (ended ? how() : (stop = how)),
        () => setFault("The camera cannot be used. Type the number instead."),
      );
    return () => {
      ended = true;
      stop?.();
    };
  }, []);
  return (
    <div className="flex flex-col gap-2">
      {fault ? (
        <p role="alert">{fault}</p>
      ) : (
        <video ref={video} muted playsInline className="max-h-60 w-full border border-edge object-cover" />
      )}
      <Button className="self-start" onClick={onEnd}>
        Close the camera
      </Button>
    </div>
  );
}
