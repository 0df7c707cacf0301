import { useId } from "react";

type Props = { words: string; disabled?: boolean; onPicture: (file: File) => void };

/** Take or load a picture: a button that opens the camera or the files. */
export function PictureButton({ words, disabled, onPicture }: Props) {
  const id = useId();
  return (
    <span className="inline-flex">
      <input
        id={id}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        className="peer sr-only"
        disabled={disabled}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onPicture(file);
          event.target.value = "";
        }}
      />
      <label
        htmlFor={id}
        className="min-h-12 min-w-12 cursor-pointer rounded-sm border border-edge bg-raised px-4 py-2.5 peer-focus-visible:outline-3 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-text peer-disabled:opacity-55"
      >
        {words}
      </label>
    </span>
  );
}
