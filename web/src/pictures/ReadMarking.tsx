import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useReadMarkings } from "./api";
import { PictureButton } from "./PictureButton";

type Props = { words: string; onUse: (text: string) => void };

/** Print read from a picture: each proposal with the piece of the picture it was read in, to be confirmed by a touch. */
export function ReadMarking({ words, onUse }: Props) {
  const read = useReadMarkings();
  return (
    <div className="flex flex-col gap-2">
      <div>
        <PictureButton
          words={read.isPending ? "Reading …" : words}
          disabled={read.isPending}
          onPicture={(file) => read.mutate(file)}
        />
      </div>
      <ProblemNotice problem={read.error} />
      {read.data?.length === 0 && (
        <p role="status">Nothing that looks like a number was read. Go nearer, with light from the side, or type it.</p>
      )}
      {read.data && read.data.length > 0 && (
        <ul aria-label="Read in the picture" className="flex flex-col border-t border-rule">
          {read.data.map((each) => (
            <li key={each.text} className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
              <img
                src={each.piece}
                alt={`The piece in which ${each.text} was read`}
                className="max-h-14 max-w-56 border border-edge"
              />
              <Button
                onClick={() => {
                  onUse(each.text);
                  read.reset();
                }}
              >
                It says <span className="font-mono font-semibold">{each.text}</span>
              </Button>
              {each.boards[0] && (
                <span className="text-sm text-faint">
                  {each.boards[0].part_number}: {each.boards[0].readings[0]?.words}
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
