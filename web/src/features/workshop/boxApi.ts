import { answer, api } from "@/api/client";
import { useMutation, useQueryClient } from "@tanstack/react-query";

/** The text of a file as the body itself. */
const asText = (text: string) => ({
  body: text as never,
  bodySerializer: (body: unknown) => body as BodyInit,
  headers: { "Content-Type": "application/json" },
});

/** Save boards as one file for another depot. */
export function useGive() {
  return useMutation({
    mutationFn: async (part_numbers: string[]) => {
      const file = await answer(api.POST("/api/board-boxes", { body: { part_numbers }, parseAs: "blob" }));
      const link = document.createElement("a");
      link.href = URL.createObjectURL(file as Blob);
      link.download = "boards.json";
      link.click();
      URL.revokeObjectURL(link.href);
    },
  });
}

/** What a file from another depot holds, beside what is here. */
export function useLookInto() {
  return useMutation({ mutationFn: (text: string) => answer(api.POST("/api/board-boxes/look", asText(text))) });
}

/** Take what was chosen of a file in. */
export function useTakeIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ text, names }: { text: string; names: string[] }) =>
      answer(api.POST("/api/board-boxes/take", { params: { query: { names } }, ...asText(text) })),
    onSuccess: () => queries.invalidateQueries(),
  });
}
