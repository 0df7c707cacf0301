import { answer, api, type Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type Of = Schemas["BoardPictureShown"]["of"];

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

export function useAddPicture(partNumber: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ file, of }: { file: File; of: Of }) =>
      answer(
        api.POST("/api/board-picture/{picture}/of/{part_number}", {
          params: { path: { picture: newId(), part_number: partNumber }, query: { of } },
          ...asFile(file),
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["board pictures", partNumber] }),
  });
}

export function useTakeOutPicture(partNumber: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (picture: string) =>
      answer(api.DELETE("/api/board-picture/{picture}", { params: { path: { picture } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["board pictures", partNumber] }),
  });
}
