import { answer, api, type Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type Of = Schemas["BoardPictureShown"]["of"];

/** What shows a board’s pictures: their list, and the drawings under which one lies. */
const WITH_PICTURES = ["board pictures", "board", "job-board"];

/** Where a kept picture is. */
export const addressOf = (picture: string | null | undefined) =>
  picture ? `/api/board-picture/${picture}` : undefined;

/** A file as the body itself. */
const asFile = (file: File) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as BodyInit,
  headers: { "Content-Type": file.type || "application/octet-stream" },
});

/** What may be a marking in a picture; proposed, never taken. */
export function useReadMarkings() {
  return useMutation({ mutationFn: (file: File) => answer(api.POST("/api/pictures/markings", asFile(file))) });
}

/** The cells of a table in a picture. */
export function useReadTable() {
  return useMutation({ mutationFn: (file: File) => answer(api.POST("/api/pictures/table", asFile(file))) });
}

/** The depot’s pictures of a board. */
export function useBoardPictures(partNumber: string) {
  return useQuery({
    queryKey: ["board pictures", partNumber],
    queryFn: () =>
      answer(
        api.GET("/api/board-pictures/{part_number}", {
          params: { path: { part_number: partNumber }, query: { size: 40 } },
        }),
      ),
  });
}

type Added = { partNumber: string; file: File; of: Of; under?: boolean };

/** Keep a picture with a board; `under` lays it under the drawing. */
export function useAddPicture() {
  return useChanging(({ partNumber, file, of, under }: Added) =>
    answer(
      api.POST("/api/board-picture/{picture}/of/{part_number}", {
        params: { path: { picture: newId(), part_number: partNumber }, query: { of, under } },
        ...asFile(file),
      }),
    ),
  );
}

export function useTakeOutPicture() {
  return useChanging((picture: string) =>
    answer(api.DELETE("/api/board-picture/{picture}", { params: { path: { picture } } })),
  );
}

/** Lay a picture under the board’s drawing, or take it away from there. */
export function useLayUnder() {
  return useChanging(({ picture, under }: { picture: string; under: boolean }) =>
    answer(api.PUT("/api/board-picture/{picture}/under", { params: { path: { picture } }, body: { under } })),
  );
}

/** Something done to the pictures of boards; they and the drawings over them are read again then. */
function useChanging<Said, Answer>(mutationFn: (said: Said) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn,
    onSuccess: () => Promise.all(WITH_PICTURES.map((key) => queries.invalidateQueries({ queryKey: [key] }))),
  });
}
